import { CONDITIONS } from '@/core/circuit/condition';
import { dcSourceOf } from '@/core/design/source';
import type { Design } from '@/core/design/design';
import { outputsOf, windowOf } from '@/core/design/outputs';
import { operatingPoint } from './operating-point';
import { neededOf } from './output-point';
import type { BatteryLife } from './life-figure';

const ROUNDS = 12;

/**
 * Runs a battery down: its volts fall evenly with the charge drawn, the lasting load draws it, and the supply lets go
 * where at full load the input no longer holds any one of the outputs. Null for other sources.
 * @throws SolveError when a point on the way does not converge
 */
export function batteryLife(design: Design): BatteryLife | null {
  const dc = dcSourceOf(design);
  if (dc?.kind !== 'battery') return null;
  const least = Math.max(...outputsOf(design).map((o) => neededOf(design, o) ?? windowOf(o.demand).lowV));
  const spare = (openV: number) => operatingPoint(design, CONDITIONS.nominal, { mainsV: openV }).rail.minV - least;
  let stopV = dc.emptyV;
  let letsGoV: number | null = null;
  if (spare(dc.freshV) < 0) return { hours: 0, used: 0, letsGoV: dc.freshV, meanA: 0 };
  if (spare(dc.emptyV) < 0) {
    let high = dc.freshV;
    for (let n = 0; n < ROUNDS; n++) {
      const middle = (stopV + high) / 2;
      if (spare(middle) < 0) stopV = middle;
      else high = middle;
    }
    stopV = high;
    letsGoV = high;
  }
  const used = (dc.freshV - stopV) / (dc.freshV - dc.emptyV);
  const drawn = (openV: number) =>
    operatingPoint(design, { ...CONDITIONS.nominal, load: 'lasting' }, { mainsV: openV }).solution.windings[0]!.meanA;
  // Time is charge over current; Simpson's rule over the charge, along which the volts fall evenly.
  const perAmp = (1 / drawn(dc.freshV) + 4 / drawn((dc.freshV + stopV) / 2) + 1 / drawn(stopV)) / 6;
  return { hours: dc.capacityAh * used * perAmp, used, letsGoV, meanA: 1 / perAmp };
}
