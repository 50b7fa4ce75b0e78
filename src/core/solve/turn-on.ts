import type { Circuit } from '@/core/circuit/assemble';
import type { StageSolver } from './stage';

/** A diode counts as about to conduct when it would carry this share of the load's current. */
const ABOUT_TO_CONDUCT = 1e-4;

/**
 * Foresees, while no diode conducts, when the first will: the inputs run on as in the last step and the EMF is known. A
 * step that ends there needs not be found too long first.
 * @param emfAt common EMF, V, at a time, s
 */
export function turnOnForesight(shape: Circuit, stage: StageSolver) {
  const { ports, inputs } = shape;
  const watched = ports.flatMap((port, n) => (port.law === 'diode' && port.floating < 0 && port.input >= 0 ? [n] : []));
  const drive = new Float64Array(ports.length);
  const onV = new Float64Array(ports.length);
  const inputV = new Float64Array(inputs.length);
  const inputSlope = new Float64Array(inputs.length);
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
    load(circuit: Circuit): void {
      quietA = 1e-2 * ABOUT_TO_CONDUCT * circuit.typicalA;
      for (const n of watched) {
        const port = circuit.ports[n]!;
        drive[n] = port.share * circuit.windings[port.winding]!.ratio;
        onV[n] = port.thetaV * Math.log1p((ABOUT_TO_CONDUCT * circuit.typicalA) / port.saturationA);
      }
    },
    /** Notes where the inputs stand as a run begins. */
    begin(): void {
      note(Infinity);
    },
    /** Whether no diode conducts at the stage just solved; notes the inputs. @param h length of the step behind it, s */
    quiet(h: number): boolean {
      stage.spell();
      note(h);
      for (const n of watched) if (stage.portA[n]! > quietA) return false;
      return true;
    },
    /** Time from t until the first diode begins to conduct, s, if that lies within h; else Infinity. */
    within(t: number, h: number, emfAt: (t: number) => number): number {
      let earliest = Infinity;
      for (const n of watched) {
        const q = ports[n]!.input;
        const over = (dt: number) => drive[n]! * emfAt(t + dt) - inputV[q]! - inputSlope[q]! * dt - onV[n]!;
        if (over(0) >= 0) continue;
        // The EMF turns once in a step at most: its end and its middle tell.
        let high = over(h) > 0 ? h : over(h / 2) > 0 ? h / 2 : -1;
        if (high < 0) continue;
        let low = 0;
        for (let round = 0; round < 12; round++) {
          const middle = (low + high) / 2;
          if (over(middle) > 0) high = middle;
          else low = middle;
        }
        if (high < earliest) earliest = high;
      }
      return earliest;
    },
  };
}
