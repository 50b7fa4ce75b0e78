import { withWindingVolts } from '@/core/design/winding-edit';
import type { Design, Patch } from '@/core/design/design';
import { FIELD_LIMITS } from '@/core/design/limits';
import type { Picture } from '@/core/picture/picture';
import { withOutput } from '@/core/design/regulator-edit';
import { regulatorModel } from '@/core/parts/regulators';
import { E12, nearestInDecades } from '@/core/quantity/preferred';
import type { VoltAxis } from '@/core/picture/terrace-geometry';
import { modelOf } from '@/core/circuit/feed';
import { dcSourceOf } from '@/core/design/source';
import { openVolts, type DcSource } from '@/core/parts/dc-source';

/** Turns how far a grip was pulled (px, up is positive) from where it was taken into a patch. */
export type DragEdit = (pulledPx: number) => Patch;

const clamp = (value: number, { min, max }: { min: number; max: number }) => Math.min(max, Math.max(min, value));
/** Pixels that double or halve a quantity pulled on a logarithmic scale. */
const OCTAVE_PX = 70;

/** A DC source with one end of its range pulled to so many volts. */
function endDragged(dc: DcSource, level: 'low' | 'high', volts: number): DcSource {
  if (dc.kind === 'battery') {
    const tidy = Number(volts.toFixed(dc.freshV > 30 ? 1 : 2));
    return level === 'low'
      ? { ...dc, emptyV: clamp(tidy, { min: 0.3, max: 0.98 * dc.freshV }) }
      : { ...dc, freshV: clamp(tidy, { min: 1.02 * dc.emptyV, max: 500 }) };
  }
  const share = Math.abs(volts / openVolts(dc, 'nominal') - 1);
  return { ...dc, spreadPct: clamp(Math.round(200 * share) / 2, FIELD_LIMITS['source.spreadPct']) };
}

/** What each grip of the terrace does. The values of the moment it was taken are kept, so that a drag is a function of distance alone. */
export function dragEdits(design: Design, picture: Picture, axis: VoltAxis) {
  const volts = (startV: number) => (pulledPx: number) => axis.y.invert(axis.y(startV) - pulledPx);
  const nominalPeak = Math.SQRT2 * picture.points.nominal.winding.voltageRms;
  const model = modelOf(design);
  const dc = dcSourceOf(design);

  const mains = (field: 'lowPct' | 'highPct', sign: 1 | -1, startPeak: number): DragEdit => {
    const at = volts(startPeak);
    return (px) => ({
      mains: {
        [field]: Math.round(2 * clamp(100 * sign * (at(px) / nominalPeak - 1), FIELD_LIMITS['mains.lowPct'])) / 2,
      },
    });
  };
  const winding: DragEdit = (px) => {
    const ratedV = volts(nominalPeak)(px) / (Math.SQRT2 * (1 + model.regulation));
    const grid = ratedV > 60 ? 1 : 0.5;
    return withWindingVolts(design, clamp(Math.round(ratedV / grid) * grid, FIELD_LIMITS['transformer.ratedV']));
  };
  const reservoir: DragEdit = (px) => {
    const capacitanceF = nearestInDecades(
      clamp(design.reservoir.capacitanceF * 2 ** (px / OCTAVE_PX), { min: 1e-7, max: 1 }),
      E12,
    );
    return { reservoir: { capacitanceF } };
  };
  const load: DragEdit = (px) => {
    const outputA = clamp(design.demand.outputA * 2 ** (px / OCTAVE_PX), FIELD_LIMITS['demand.outputA']);
    return { demand: { outputA: Number(outputA.toPrecision(2)) } };
  };
  const output: DragEdit = (px) => {
    const { regulator } = design;
    const model = regulatorModel(regulator);
    return model ? { regulator: withOutput(regulator, volts(model.outputV)(px)) } : {};
  };
  if (dc) {
    // Ends of a battery's range are its own; an adapter's are its spread, alike on both sides.
    const end = (level: 'low' | 'high'): DragEdit => {
      const at = volts(Math.SQRT2 * picture.points[level].winding.voltageRms);
      return (px) => ({ source: endDragged(dc, level, at(px)) });
    };
    return { low: end('low'), high: end('high'), winding: null, reservoir, load, output };
  }
  return {
    low: mains('lowPct', -1, Math.SQRT2 * picture.points.low.winding.voltageRms),
    high: mains('highPct', 1, Math.SQRT2 * picture.points.high.winding.voltageRms),
    winding,
    reservoir,
    load,
    output,
  };
}
