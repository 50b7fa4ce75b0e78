import type { Circuit, CircuitElement } from '@/core/circuit/assemble';
import { fluxAt, inductanceAt } from '@/core/circuit/choke-flux';

type Choke = Extract<CircuitElement, { kind: 'inductor' }>;

/**
 * Chokes that lose inductance with current. Their state is their flux; a level knows their current, each made linear about
 * the current it last had.
 */
export interface Swings {
  readonly any: boolean;
  load(circuit: Circuit): void;
  /** Starts the search for their currents afresh from states. */
  aim(from: Float64Array): void;
  /** Notes the fluxes a stage starts from. */
  hold(base: Float64Array): void;
  /** Puts the currents about which they are linear in place of the fluxes in `base`. @param differential H, by element */
  straighten(base: Float64Array, differential: Float64Array): void;
  /** Takes the currents found, and says how far they moved at most, A. */
  follow(x: Float64Array, round: number): number;
  /** Puts the fluxes back into what was found. */
  bendBack(base: Float64Array, x: Float64Array, change: Float64Array): void;
  /** Turns a map of currents into one of fluxes, state by state, from `at` on. */
  rescale(map: Float64Array, at: number, states: number): void;
  /** Starting value of a state as the maps take it: a swinging choke's current instead of its flux. */
  current(base: Float64Array, state: number): number;
  /** Current in a choke whose state is `value`: the state itself, or what belongs to that flux. */
  currentOf(element: number, value: number): number;
  /** Flux per ampere where a choke now stands, H; 1 for one whose state is its current. */
  perAmp(state: number): number;
  /** State of a choke that carries a current: the current itself, or the flux that goes with it. */
  stateFor(state: number, current: number): number;
}

export function swingingChokes(shape: Circuit): Swings {
  const where = shape.elements.flatMap((e, n) => (e.kind === 'inductor' && e.halfAtA !== Infinity ? [n] : []));
  const stateOf = where.map((n) => (shape.elements[n] as Choke).state);
  const count = where.length;
  let elements = shape.elements;
  let typicalA = shape.typicalA;
  const about = new Float64Array(count);
  const slope = new Float64Array(count);
  const offset = new Float64Array(count);
  const flux = new Float64Array(count);
  const choke = (c: number) => elements[where[c]!] as Choke;

  function currentIn({ inductanceH, halfAtA }: Choke, value: number): number {
    let i = value / inductanceH;
    for (let round = 0; round < 60; round++) {
      const step = (fluxAt(inductanceH, halfAtA, i) - value) / inductanceAt(inductanceH, halfAtA, i);
      i -= step;
      if (Math.abs(step) < 1e-13 * typicalA) break;
    }
    return i;
  }

  return {
    any: count > 0,
    load(circuit) {
      ({ elements, typicalA } = circuit);
      about.fill(0);
      for (let c = 0; c < count; c++) slope[c] = choke(c).inductanceH;
    },
    aim(from) {
      for (let c = 0; c < count; c++) about[c] = currentIn(choke(c), from[stateOf[c]!]!);
    },
    hold(base) {
      for (let c = 0; c < count; c++) flux[c] = base[stateOf[c]!]!;
    },
    straighten(base, differential) {
      for (let c = 0; c < count; c++) {
        const { inductanceH, halfAtA } = choke(c);
        slope[c] = differential[where[c]!] = inductanceAt(inductanceH, halfAtA, about[c]!);
        offset[c] = about[c]! - fluxAt(inductanceH, halfAtA, about[c]!) / slope[c]!;
        base[stateOf[c]!] = flux[c]! / slope[c]! + offset[c]!;
      }
    },
    follow(x, round) {
      let worst = 0;
      for (let c = 0; c < count; c++) {
        const i = x[stateOf[c]!]!;
        worst = Math.max(worst, Math.abs(i - about[c]!));
        about[c] = round < 10 ? i : (i + about[c]!) / 2;
      }
      return worst;
    },
    bendBack(base, x, change) {
      for (let c = 0; c < count; c++) {
        const { inductanceH, halfAtA } = choke(c);
        const s = stateOf[c]!;
        base[s] = flux[c]!;
        x[s] = fluxAt(inductanceH, halfAtA, x[s]!);
        change[s] = x[s]! - base[s]!;
      }
    },
    rescale(map, at, states) {
      for (let c = 0; c < count; c++) {
        for (let k = 0; k < states; k++) {
          map[at + stateOf[c]! * states + k]! *= slope[c]!;
          map[at + k * states + stateOf[c]!]! /= slope[c]!;
        }
      }
    },
    current(base, state) {
      const c = stateOf.indexOf(state);
      return c < 0 ? base[state]! : base[state]! / slope[c]! + offset[c]!;
    },
    currentOf(element, value) {
      const e = elements[element]!;
      return e.kind !== 'inductor' || e.halfAtA === Infinity ? value : currentIn(e, value);
    },
    perAmp(state) {
      const c = stateOf.indexOf(state);
      return c < 0 ? 1 : slope[c]!;
    },
    stateFor(state, current) {
      const c = stateOf.indexOf(state);
      return c < 0 ? current : fluxAt(choke(c).inductanceH, choke(c).halfAtA, current);
    },
  };
}
