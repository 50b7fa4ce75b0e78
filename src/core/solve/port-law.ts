import type { Level, StageLayout } from './layout';
import { DIODE, OPEN, RESISTOR, VALVE, type PortState } from './port-state';
import { wrightOmega } from './wright-omega';

/** Below this argument of the omega function a diode carries its saturation current and nothing else. */
export const OFF = -40;

/** Current of port k alone, given what the others carry. Leaves its slope and whether it conducts in the state. */
export function ownCurrent(at: StageLayout, state: PortState, d: Level, k: number, drive: number): number {
  const law = state.law[k]!;
  const ohm = d[at.ohm + k]!;
  if (law === DIODE) {
    const x = drive / state.theta[k]! + d[at.shift + k]!;
    if (x < OFF) {
      state.live[k] = 0;
      state.slope[k] = 0;
      return -state.saturation[k]!;
    }
    const w = wrightOmega(x);
    state.live[k] = 1;
    state.slope[k] = w / ((1 + w) * ohm);
    return w * d[at.perAmp + k]! - state.saturation[k]!;
  }
  if (law === RESISTOR) {
    state.live[k] = 1;
    state.slope[k] = 1 / ohm;
    return drive / ohm;
  }
  if (law === VALVE && drive > 0) {
    const amps = spaceCharge(ohm, state.perveance[k]!, drive);
    const gain = 1.5 * Math.cbrt(state.perveance[k]! ** 2 * amps);
    state.live[k] = 1;
    state.slope[k] = gain / (1 + ohm * gain);
    return amps;
  }
  state.live[k] = 0;
  state.slope[k] = 0;
  return 0;
}

/**
 * Current of a valve against its own loop: s = sqrt(v) solves ohm*K*s^3 + s^2 = drive. Newton's method from above, where
 * the cubic bends one way only, never overshoots.
 * @param ohm resistance of the loop, ohm
 * @param perveance K, A/V^1.5
 * @param drive above 0, V
 */
export function spaceCharge(ohm: number, perveance: number, drive: number): number {
  const cubic = ohm * perveance;
  let s = Math.min(Math.sqrt(drive), Math.cbrt(drive / cubic));
  for (let round = 0; round < 40; round++) {
    const step = ((cubic * s + 1) * s * s - drive) / ((3 * cubic * s + 2) * s);
    s -= step;
    if (!(step > 1e-15 * s)) break;
  }
  return perveance * s * s * s;
}

/** Voltage port k would have with the others' currents as they are and none of its own, V. */
export function driveOf(at: StageLayout, state: PortState, d: Level, u: Float64Array, k: number): number {
  const { bends, ports } = at;
  let drive = u[k]!;
  for (let j = 0, z = at.z + k * ports; j < bends; j++) if (j !== k) drive -= d[z + j]! * state.i[j]!;
  return drive;
}

/** Completes the table of the port equations in a level whose impedances have been filled in. */
export function finishPorts(at: StageLayout, state: PortState, d: Level): void {
  const { bends, ports } = at;
  const { law, series, saturation, theta } = state;
  for (let h = ports - 1; h >= bends; h--) {
    const ohm = d[at.z + h * ports + h]! + series[h]!;
    d[at.ohm + h] = ohm;
    for (let k = 0; k < h; k++) {
      const share = d[at.z + k * ports + h]! / ohm;
      for (let j = 0; j < h; j++) d[at.z + k * ports + j]! -= share * d[at.z + h * ports + j]!;
      // The column is done with: what it passes on of the eliminated drive stands there from now on.
      d[at.z + k * ports + h] = share;
    }
  }
  for (let k = 0; k < bends; k++) {
    // The closed form divides by this; a micro-ohm lies far below any real winding.
    const ohm = Math.max(1e-6, d[at.z + k * ports + k]! + series[k]!);
    d[at.ohm + k] = ohm;
    let leak = 0;
    for (let j = 0; j < bends; j++) if (j !== k && law[j] === DIODE) leak += d[at.z + k * ports + j]! * saturation[j]!;
    d[at.leak + k] = leak;
    d[at.off + k] = law[k] === OPEN ? Infinity : law[k] === VALVE ? 0 : -Infinity;
    if (law[k] !== DIODE) continue;
    const x = (ohm * saturation[k]!) / theta[k]!;
    d[at.shift + k] = x + Math.log(x);
    d[at.perAmp + k] = theta[k]! / ohm;
    d[at.off + k] = (OFF - d[at.shift + k]!) * theta[k]!;
  }
}
