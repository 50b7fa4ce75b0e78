import type { Circuit } from '@/core/circuit/assemble';

/** How a port's law is told in the loops over them. */
export const DIODE = 0;
export const RESISTOR = 1;
export const OPEN = 2;
export const VALVE = 3;
const LAWS: readonly Circuit['ports'][number]['law'][] = ['diode', 'resistor', 'open', 'valve'];

/** The ports of a circuit in flat arrays: their values, and how they stood at the last instant. */
export interface PortState {
  readonly law: Uint8Array;
  readonly theta: Float64Array;
  readonly saturation: Float64Array;
  readonly perveance: Float64Array;
  readonly series: Float64Array;
  /** The floating potential each port sees, -1 for none, and its sign. */
  readonly floatOf: Int32Array;
  readonly floatSign: Float64Array;
  /** The currents last found, A: where the next search starts. */
  readonly i: Float64Array;
  /** Whether each port conducts, and how its current follows its own drive, S. */
  readonly live: Uint8Array;
  readonly slope: Float64Array;
  /** Current of a port that conducts above its saturation current, A. */
  readonly more: Float64Array;
  /** The ports that conduct, the first `count` of the list, in the order of the ports. */
  readonly alive: Int32Array;
  count: number;
  /** Whether those are diodes and do not pull at each other. */
  apart: boolean;
  readonly floatV: Float64Array;
  /** What a floating winding leaks to ground, S. */
  leakS: number;
  typicalA: number;
  peakV: number;
}

export function newPortState({ ports, floats }: Circuit): PortState {
  const all = ports.length;
  return {
    law: Uint8Array.from(ports, (p) => LAWS.indexOf(p.law)),
    theta: new Float64Array(all),
    saturation: new Float64Array(all),
    perveance: new Float64Array(all),
    series: new Float64Array(all),
    floatOf: Int32Array.from(ports, (p) => p.floating),
    floatSign: Float64Array.from(ports, (p) => p.floatSign),
    i: new Float64Array(all),
    live: new Uint8Array(all),
    slope: new Float64Array(all),
    more: new Float64Array(all),
    alive: new Int32Array(all),
    count: 0,
    apart: true,
    floatV: new Float64Array(floats),
    leakS: 0,
    typicalA: 0,
    peakV: 0,
  };
}

/** What a floating winding leaks to ground, S. */
export const floatLeak = ({ typicalA, peakV }: Circuit): number => (1e-7 * typicalA) / peakV;

/** Takes over the values of a circuit of the same shape; nothing conducts yet. */
export function loadPorts(state: PortState, circuit: Circuit): void {
  const { ports, typicalA, peakV } = circuit;
  state.typicalA = typicalA;
  state.peakV = peakV;
  state.leakS = floatLeak(circuit);
  for (let k = 0; k < ports.length; k++) {
    const port = ports[k]!;
    state.theta[k] = port.thetaV;
    state.saturation[k] = port.saturationA;
    state.perveance[k] = port.perveance;
    state.series[k] = port.ohm;
  }
  state.i.fill(0);
  state.floatV.fill(0);
  state.live.fill(0);
  state.count = 0;
  state.apart = true;
}
