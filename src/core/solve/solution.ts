/** What a run of a circuit comes to. Means, RMS and extremes over one mains cycle unless said otherwise; all SI. */

export interface RailResult {
  meanV: number;
  minV: number;
  maxV: number;
  ripplePeakToPeakV: number;
  rippleRmsV: number;
  inputMeanV: number;
  inputMinV: number;
  inputMaxV: number;
  inputRipplePeakToPeakV: number;
  loadMeanA: number;
  loadPowerW: number;
  outputMinV?: number;
  outputMaxV?: number;
}

export interface WindingResult {
  rmsA: number;
  meanA: number;
  peakA: number;
  voltAmpere: number;
  copperLossW: number;
}

export interface DiodeResult {
  meanA: number;
  rmsA: number;
  peakA: number;
  peakReverseV: number;
  meanW: number;
  conductionDeg: number;
}

export interface ElementResult {
  kind: 'capacitor' | 'inductor' | 'resistor' | 'shunt';
  rmsA: number;
  meanA: number;
  /** Mean of the voltage across it: of a capacitor to ground, its node. */
  meanV: number;
  peakToPeakV: number;
  /** Extremes of its current and of the voltage across it. */
  minA: number;
  maxA: number;
  minV: number;
  maxV: number;
}

export interface AcLoadResult {
  rmsV: number;
  rmsA: number;
  powerW: number;
}

export interface EnergyBalance {
  sourceW: number;
  loadW: number;
  copperW: number;
  sharedW?: number;
  diodeW: number;
  filterW: number;
  storedW: number;
  relativeError: number;
}

export interface StartResult {
  peakDiodeA: number;
  peakWindingA: number;
  i2tDiode: number;
  timeTo90PercentS: number | null;
}

export interface StepResult {
  beforeMeanV: number;
  beforeMinV: number;
  beforeMaxV: number;
  minV: number;
  maxV: number;
  meanV: number;
  peakDiodeA: number;
  peakWindingA: number;
}

export interface DipResult {
  beforeMinV: number;
  minV: number;
  timeToMinS: number;
  maxV: number;
  peakDiodeA: number;
  peakWindingA: number;
  recoveredWithinS: number | null;
  outputMinV?: number;
}

/** Uniform samples, the same number in every cycle, from the beginning of the recorded time, its end left out. V, A, s. */
export interface Waveforms {
  t: number[];
  sourceV: number[];
  railV: number[][];
  inputV: number[][];
  windingA: number[][];
  diodeA: number[][];
  /** Voltage across each filter element, rail by rail: of a capacitor to ground, its node. */
  elementV: number[][][];
  elementA: number[][][];
}

export interface Solution {
  id?: string;
  source: { rms: number; sharedLossW?: number };
  rails: RailResult[];
  /** Ampere-turns of all windings as a current through the first section's: what the primary carries, magnetising aside. */
  primary: { rmsA: number; meanA: number; peakA: number };
  windings: WindingResult[];
  diodes: DiodeResult[];
  /** One list per rail, in the order of its filter. */
  elements: ElementResult[][];
  doublerLowerCapacitor?: ElementResult;
  /** Capacitors of a multiplier: stacked ones from the top, then pumps. */
  cans?: ElementResult[];
  acLoads?: AcLoadResult[];
  start?: StartResult;
  step?: StepResult;
  dip?: DipResult;
  waveforms?: Waveforms;
  /** The rails' samples alone, where no others are wanted. */
  railV?: number[][];
  energyBalance: EnergyBalance;
  /** Cost of the answer: integration steps and passes over the cycle. */
  effort: { steps: number; passes: number };
  /** Capacitor voltages and choke currents at t = 0 of the periodic cycle: a warm start for a similar circuit. */
  state: number[];
}

/** Largest energy error that still counts as a solution, as a fraction of the power handled. */
export const ENERGY_TOLERANCE = 1e-4;
