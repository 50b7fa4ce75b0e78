import type { Network } from '@/core/circuit/network';
import { loadLaw, type LoadLaw } from './load-law';
import { wrightOmega } from './wright-omega';

const BOLTZMANN_J_PER_K = 1.380649e-23;
const ELEMENTARY_CHARGE_C = 1.602176634e-19;

/** Stands in where no reservoir is fitted: wiring and diode capacitance. Small enough not to show at mains frequency. */
export const STRAY_F = 1e-9;

/** Smallest loop resistance the closed-form diode needs, ohm. Far below any real winding. */
const LEAST_LOOP_OHM = 1e-6;

/**
 * A rectifier into one reservoir, reduced by symmetry to a single loop:
 * drive e(t) - R*i - (diodes in path)*(diode drop) = v,   v = y + ESR*(i - load(v)),   C*dy/dt = i - load(v).
 * For a full-wave rectifier the drive is |e| and the two halves take turns. That they never conduct together holds
 * while the reservoir stands above a few tenths of a volt where the EMF crosses zero.
 */
export interface ReservoirCircuit {
  periodS: number;
  omega: number;
  peakV: number;
  /** The drive is held at this level: (1 - flatTop) of the peak, V. */
  clipV: number;
  fullWave: boolean;
  diodesInPath: number;
  /** Winding, shared and diode resistance in the loop, ohm. */
  loopOhm: number;
  windingOhm: number;
  ownOhm: number;
  sharedOhm: number;
  /** n*Vt of all diodes in the path, V. */
  thetaV: number;
  saturationA: number;
  capacitanceF: number;
  esrOhm: number;
  load: LoadLaw;
}

/** Reduces a network to its loop. Valid for one reservoir (or none) and windings without leakage inductance. */
export function reservoirCircuit(network: Network): ReservoirCircuit {
  const { source, rectifier, rail } = network;
  const reservoir = rail.filter[0];
  const diodesInPath = rectifier.kind === 'bridge' ? 2 : 1;
  const windingOhm = source.resistanceOhm + source.sharedResistanceOhm;
  const vt = (BOLTZMANN_J_PER_K * (rectifier.diode.temperatureC + 273.15)) / ELEMENTARY_CHARGE_C;
  const peakV = Math.SQRT2 * source.voltageRms;
  return {
    periodS: 1 / network.frequencyHz,
    omega: 2 * Math.PI * network.frequencyHz,
    peakV,
    clipV: peakV * (1 - source.flatTop),
    fullWave: rectifier.kind !== 'half-wave',
    diodesInPath,
    loopOhm: Math.max(LEAST_LOOP_OHM, windingOhm + diodesInPath * rectifier.diode.seriesResistanceOhm),
    windingOhm,
    ownOhm: source.resistanceOhm,
    sharedOhm: source.sharedResistanceOhm,
    thetaV: diodesInPath * rectifier.diode.emissionCoefficient * vt,
    saturationA: rectifier.diode.saturationCurrentA,
    capacitanceF: Math.max(STRAY_F, reservoir?.capacitanceF ?? 0),
    esrOhm: reservoir && reservoir.capacitanceF > STRAY_F ? reservoir.esrOhm : 0,
    load: loadLaw(rail.load),
  };
}

/** EMF of the first winding at time t with the sine started at phase `phi`, V. */
export function emf(circuit: ReservoirCircuit, t: number, phi: number): number {
  const e = circuit.peakV * Math.sin(circuit.omega * t + phi);
  return e > circuit.clipV ? circuit.clipV : e < -circuit.clipV ? -circuit.clipV : e;
}

/** Where the algebraic part of the loop settles. */
export interface LoopPoint {
  /** Current through the rectifier, A. */
  i: number;
  /** Rail voltage, ESR drop included, V. */
  v: number;
  /** Load current, A. */
  loadA: number;
  /** Slope of the load law there, S. */
  loadS: number;
}

/**
 * Makes the loop's solver: given a drive, and a capacitor that looks like a source `base` behind `z` ohm, it finds the
 * current and the rail voltage exactly (Wright omega in each segment of the load law). The result object is reused.
 */
export function loopSolver(circuit: ReservoirCircuit): (drive: number, base: number, z: number) => LoopPoint {
  const { loopOhm, thetaV, saturationA, load } = circuit;
  const { breakpoints, offset, slope } = load;
  const last = breakpoints.length;
  const point: LoopPoint = { i: 0, v: 0, loadA: 0, loadS: 0 };
  let segment = last;
  // What depends on the step and the segment alone, kept while both stay the same (five stages of a step share it).
  let forZ = NaN;
  let forSegment = -1;
  let g = 1;
  let b = loopOhm;
  let shift = 0;
  let perAmp = 0;
  return (drive, base, z) => {
    let moves = 0;
    for (;;) {
      const k = segment;
      if (z !== forZ || k !== forSegment) {
        forZ = z;
        forSegment = k;
        g = 1 / (1 + z * slope[k]!);
        b = loopOhm + z * g;
        perAmp = thetaV / b;
        shift = (b * saturationA) / thetaV + Math.log((b * saturationA) / thetaV);
      }
      const a = drive - (base - z * offset[k]!) * g;
      const i = wrightOmega(a / thetaV + shift) * perAmp - saturationA;
      const v = (base + z * (i - offset[k]!)) * g;
      if (moves <= last) {
        if (k < last && v > breakpoints[k]!) {
          segment = k + 1;
          moves++;
          continue;
        }
        if (k > 0 && v < breakpoints[k - 1]!) {
          segment = k - 1;
          moves++;
          continue;
        }
      }
      point.i = i;
      point.v = v;
      point.loadA = offset[k]! + slope[k]! * v;
      point.loadS = slope[k]!;
      return point;
    }
  };
}
