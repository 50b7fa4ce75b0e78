import type { Circuit } from '@/core/circuit/assemble';
import { rectifies } from '@/core/circuit/port';
import type { StageSolver } from './stage';

/** A current through an inductance has ceased when it is below this share of the load's. */
export const CEASED = 1e-5;
/**
 * A step leaves at least this share of the time a large falling current has left: as it dies its diode's voltage falls
 * with its logarithm, which no polynomial follows to the end. The smaller the current, the less that matters.
 */
const LEAVE = 0.25;
/** A current counts as large here from this share of the load's. */
export const LARGE = 0.3;

/** Which currents flow through an inductance and can cease there: what a circuit's shape says of it. */
export function currentsThatCease({ ports, windings, inputs, elements }: Circuit) {
  /** The choke that carries all of a port's current, -1 when a capacitor stands before it or there is none. */
  const chokeOf = ports.map((port) => {
    if (port.input < 0) return -1;
    const { plus } = inputs[port.input]!;
    const at = elements.filter((e) => (e.kind === 'capacitor' ? e.plus === plus : e.from === plus));
    const only = at.length === 1 ? at[0]! : undefined;
    return only?.kind === 'inductor' ? only.state : -1;
  });
  return {
    chokeOf,
    /** Ports whose current flows through an inductance and can cease. */
    eventful: ports.flatMap((port, n) =>
      rectifies(port) && port.floating < 0 && (chokeOf[n]! >= 0 || windings[port.winding]!.state >= 0) ? [n] : [],
    ),
    /** Whether another port takes over a port's current within its own winding. */
    sharesWinding: (n: number): boolean =>
      ports.some((p, m) => m !== n && p.winding === ports[n]!.winding && p.input === ports[n]!.input),
  };
}

/**
 * Watches for currents through an inductance that cease within a step. The voltage there jumps in no time, so a step has
 * to end just before it: a step across would push the current below zero, and the diode's answer to that would look like
 * a spike as high as the step is short.
 * @param before port currents at the start of the step, kept up to date by the integrator
 * @param x states at the start of the step; `cut` changes them
 */
export function turnOffEvents(shape: Circuit, stage: StageSolver, before: Float64Array, x: Float64Array) {
  const { ports, windings } = shape;
  const { portA } = stage;
  let threshold = 0;
  let largeA = 0;
  const { chokeOf, eventful, sharesWinding } = currentsThatCease(shape);

  /** How fast a port's current changes as a step begins, A/s; NaN where the currents at its input are not told apart. */
  function fall(n: number, k: Float64Array): number {
    const port = ports[n]!;
    const own = windings[port.winding]!.state;
    const choke = chokeOf[n]!;
    let shared = 0;
    for (const m of eventful) if (m !== n && ports[m]!.input === port.input && before[m]! > threshold) shared++;
    if (own < 0 && shared > 0) return NaN;
    const slope = own >= 0 ? port.share * k[own]! : 0;
    if (choke < 0) return slope;
    const through = k[choke]! / stage.statePerAmp(choke);
    return own < 0 ? through : shared === 1 && sharesWinding(n) ? (slope + through) / 2 : slope;
  }

  return {
    any: eventful.length > 0,
    /** Whether a choke carries a diode's current with nothing between: there the next diode takes over while it flows. */
    choked: eventful.some((n) => chokeOf[n]! >= 0),
    /** Takes over the values of a circuit of the same shape. */
    load(circuit: Circuit): void {
      threshold = CEASED * circuit.typicalA;
      largeA = LARGE * circuit.typicalA;
    },
    /** The longest step from here, s, that does not run into the end of a current. @param k derivatives of the states */
    limit(k: Float64Array): number {
      let most = Infinity;
      for (const n of eventful) {
        const amps = before[n]!;
        if (amps <= threshold) continue;
        const slope = fall(n, k);
        if (!(slope < 0)) continue;
        const leave = LEAVE * Math.cbrt(Math.min(1, amps / largeA));
        most = Math.min(most, (-amps / slope) * (1 - leave));
      }
      return most;
    },
    /**
     * Where in the step of length h just solved a current ceases, s; Infinity when none does.
     * @param landing whether the step was made to end at such an instant
     * @param k derivatives of the states at its start
     */
    next(h: number, landing: boolean, k: Float64Array): number {
      let earliest = Infinity;
      for (const n of eventful) {
        const amps = before[n]!;
        if (amps <= threshold || portA[n]! > threshold) continue;
        const slope = fall(n, k);
        if (slope !== slope) continue;
        const ends = slope < 0 ? (-amps / slope) * (1 - 1e-3) : Infinity;
        // A step made to end there has done what it should; one the current still rises in is halved.
        if ((landing || portA[n]! > 0) && ends > 0.98 * h && ends < 1.5 * h) continue;
        earliest = Math.min(earliest, ends < h ? ends : h / 2);
      }
      return earliest;
    },
    /**
     * Takes a current that has just ceased out of the states of its inductances.
     * @returns whether there was one: the derivatives then have to be found anew
     */
    cut(): boolean {
      let ceased = false;
      for (const n of eventful) {
        if (!(before[n]! > threshold) || portA[n]! > threshold) continue;
        ceased = true;
        const port = ports[n]!;
        const own = windings[port.winding]!.state;
        if (own >= 0) x[own] = 0;
        const choke = chokeOf[n]!;
        let through = 0;
        ports.forEach((other, m) => {
          if (m === n) return;
          if (own >= 0 && other.winding === port.winding) x[own]! += other.share * portA[m]!;
          if (choke >= 0 && other.input === port.input) through += portA[m]!;
        });
        if (choke >= 0) x[choke] = stage.stateFor(choke, through);
      }
      return ceased;
    },
  };
}
