import type { Circuit } from '@/core/circuit/assemble';
import { dropV, rectifies } from '@/core/circuit/port';
import { C } from './esdirk';
import type { StageSolver } from './stage';
import { zeroBetween } from './zero';

/** A diode counts as about to conduct when it would carry this share of the load's current. */
export const ABOUT_TO_CONDUCT = 1e-4;

/** How closely the beginning of a pulse is foreseen, as a share of the step it may lie in. */
const FORESEEN = 1e-9;

/** Stages of a step whose voltages tell how a waiting diode's will run on. */
export const TOLD = [1, 3, 5] as const;
const AT = TOLD.map((s) => C[s]!) as [number, number, number];

/**
 * Foresees when the next diode begins to conduct, so that a step that ends there needs not be found too long first.
 * While none conducts the inputs run on as in the last step and the EMF is known; while others do, the voltage across
 * each waiting one is carried on as the parabola through three stages of the last step.
 */
export function turnOnForesight(shape: Circuit, stage: StageSolver) {
  const { ports, inputs } = shape;
  const watched = ports.flatMap((port, n) => (rectifies(port) && port.floating < 0 && port.into.length > 0 ? [n] : []));
  const drive = new Float64Array(ports.length);
  const onV = new Float64Array(ports.length);
  const inputV = new Float64Array(inputs.length);
  const inputSlope = new Float64Array(inputs.length);
  /** Voltage across each waiting diode at the told stages of the last step; NaN where it conducted. */
  const waitingV = watched.map(() => new Float64Array(TOLD.length).fill(NaN));
  let quietA = 0;

  function note(h: number): void {
    for (let q = 0; q < inputs.length; q++) {
      const { plus, minus } = inputs[q]!;
      const v = stage.node[plus]! - (minus >= 0 ? stage.node[minus]! : 0);
      inputSlope[q] = (v - inputV[q]!) / h;
      inputV[q] = v;
    }
  }

  return {
    /** Whether diodes are watched that can join others. */
    several: watched.length > 1,
    load(circuit: Circuit): void {
      quietA = 1e-2 * ABOUT_TO_CONDUCT * circuit.typicalA;
      for (const n of watched) {
        const port = circuit.ports[n]!;
        drive[n] = port.share * circuit.windings[port.winding]!.ratio;
        onV[n] = dropV(port, ABOUT_TO_CONDUCT * circuit.typicalA);
      }
    },
    /** Whether no diode conducts at the stage just solved; notes the inputs. @param h length of the step behind it, s */
    quiet(h: number): boolean {
      stage.spell();
      note(h);
      for (const n of watched) if (stage.portA[n]! > quietA) return false;
      return true;
    },
    /** Notes what stands across the waiting diodes at one of the told stages. */
    tell(which: number): void {
      for (let w = 0; w < watched.length; w++) {
        const n = watched[w]!;
        waitingV[w]![which] = stage.portA[n]! > quietA ? NaN : stage.driveV(n);
      }
    },
    /** Forgets what was told: what stood there no longer runs on. */
    forget(): void {
      for (const told of waitingV) told.fill(NaN);
    },
    /** Time until the next diode joins those that conduct, s, if that lies within h; else Infinity. @param last length of the step just done, s */
    joins(h: number, last: number): number {
      let earliest = Infinity;
      for (let w = 0; w < watched.length; w++) {
        const [a, b, c] = waitingV[w]! as unknown as [number, number, number];
        const over = c - onV[watched[w]!]!;
        if (!(over < 0)) continue;
        // Newton's form about the step's end, times in units of the last step.
        const slope = (c - b) / (AT[2] - AT[1]);
        const bend = (slope - (b - a) / (AT[1] - AT[0])) / (AT[2] - AT[0]);
        const rise = slope + bend * (AT[2] - AT[1]);
        // over + rise*x + bend*x^2 = 0
        const root = rise * rise - 4 * bend * over;
        if (!(root >= 0)) continue;
        const x = (-2 * over) / (rise + Math.sqrt(root));
        if (x > 0 && x * last < Math.min(h, earliest)) earliest = x * last;
      }
      return earliest;
    },
    /**
     * Time from t until the first diode begins to conduct, s, if that lies within h; else Infinity.
     * @param emfAt common EMF, V, at a time, s
     */
    within(t: number, h: number, emfAt: (t: number) => number): number {
      let earliest = Infinity;
      for (const n of watched) {
        let standsV = onV[n]!;
        let rises = 0;
        for (const { input, sign } of ports[n]!.into) {
          standsV += sign * inputV[input]!;
          rises += sign * inputSlope[input]!;
        }
        const over = (dt: number) => drive[n]! * emfAt(t + dt) - standsV - rises * dt;
        const atStart = over(0);
        if (atStart >= 0) continue;
        // The EMF turns once in a step at most: its end and its middle tell.
        let high = h;
        let atHigh = over(h);
        if (!(atHigh > 0)) {
          high = h / 2;
          atHigh = over(high);
          if (!(atHigh > 0)) continue;
        }
        earliest = Math.min(earliest, zeroBetween(over, 0, high, atStart, atHigh, FORESEEN * h));
      }
      return earliest;
    },
  };
}
