import type { Ask, Design, Mains, OutputDemand, RegulatorSheet } from './design';

export interface MainsPreset {
  id: string;
  name: string;
  mains: Mains;
}

/** Nets of the world with their usual limits (EN 50160 for 230 V; -13/+6 % at the outlet for 120 V). */
export const MAINS_PRESETS: readonly MainsPreset[] = [
  {
    id: '230-50',
    name: '230 V 50 Hz',
    mains: { voltageRms: 230, frequencyHz: 50, lowPct: 10, highPct: 10, flatTopPct: 0 },
  },
  {
    id: '120-60',
    name: '120 V 60 Hz',
    mains: { voltageRms: 120, frequencyHz: 60, lowPct: 13, highPct: 6, flatTopPct: 0 },
  },
  {
    id: '240-50',
    name: '240 V 50 Hz',
    mains: { voltageRms: 240, frequencyHz: 50, lowPct: 10, highPct: 10, flatTopPct: 0 },
  },
  {
    id: '100-50',
    name: '100 V 50 Hz',
    mains: { voltageRms: 100, frequencyHz: 50, lowPct: 10, highPct: 10, flatTopPct: 0 },
  },
  {
    id: '100-60',
    name: '100 V 60 Hz',
    mains: { voltageRms: 100, frequencyHz: 60, lowPct: 10, highPct: 10, flatTopPct: 0 },
  },
];

/** A demand with nothing more known of it than what is asked. */
export function outputDemand({ outputV, outputA, tolerancePct, rippleVpp, kind }: Ask): OutputDemand {
  return {
    outputV,
    outputA,
    tolerancePct,
    rippleVpp,
    kind,
    typicalA: null,
    leastA: 0,
    window: null,
    range: null,
  };
}

/** A design with the usual assumptions around a demand: what a search or a person then fills in. */
export function blankDesign(name: string, demand: Ask, mains: Mains): Design {
  return {
    format: 'ember-rail-design',
    version: 14,
    name,
    note: '',
    stage: 'sketch',
    demand: { ...outputDemand(demand), negativeA: null },
    load: { consumers: [], togetherPct: 100, reservePct: 0 },
    source: { kind: 'mains' },
    mains,
    transformer: {
      ratedV: 15,
      ratedVA: 30,
      regulationPct: null,
      hotC: 75,
      leakageH: 0,
      core: 'laminated',
      windingsOnPlate: null,
      sealed: false,
      source: { kind: 'plate' },
    },
    rectifier: { kind: 'bridge', diode: 'si-1a', rated: null, sheet: null },
    reservoir: {
      cans: 1,
      pair: false,
      capacitanceF: 2200e-6,
      ratedV: 35,
      esrOhm: null,
      rippleA: null,
      tolerancePct: 20,
      agedPct: 20,
      gradeC: 85,
      balanceOhm: null,
    },
    filter: { before: [], after: [], bleederOhm: null },
    heater: null,
    regulator: { kind: 'none' },
    regulatorSheet: null,
    preRegulator: { kind: 'none' },
    outputs: [],
    indicator: null,
    heat: {
      ambientC: 40,
      sinkKPerW: null,
      interface: 'paste',
      box: 'open',
      boxCm2: 1500,
      sinkOutside: true,
      sharedWithRectifier: false,
      rectifierSinkKPerW: null,
      oneSink: false,
      together: false,
      fan: 'none',
      fanA: null,
      fanOnC: 55,
    },
    mainsSide: {
      insulation: 'class I',
      box: 'metal',
      polarised: false,
      homeWound: false,
      primaryFuseA: null,
      secondaryFuseA: null,
      switchPoles: 2,
      softStart: false,
      thermalCutout: false,
      ticked: [],
    },
    picked: [],
    fixed: [],
    build: {
      placed: [],
      wired: [],
      kit: [],
      box: { core: 'laminated', inside: null, places: [], sizes: [], own: [] },
      board: { kind: 'strips', copperUm: 35, mains: false, places: [], strips: [] },
    },
    bench: {
      meterPct: 0.8,
      meterDigitsV: 0.02,
      acTrueRms: true,
      inputOhm: 10e6,
      burdenV: 0.2,
      scopeFloorV: 0.01,
      probe: 1,
      thermometerK: 2,
      loadLine: [],
      soak: [],
      calibration: [],
      readings: [],
    },
    log: [],
  };
}

/** A data sheet of which nothing is known: the class speaks. */
export const NO_REGULATOR_SHEET: RegulatorSheet = {
  inputMaxV: null,
  dropoutV: null,
  ratedA: null,
  jcKPerW: null,
  jaKPerW: null,
  package: null,
  powerW: null,
  breakdownV: null,
};
