import { windingCount } from '@/core/design/words';
import { openVoltsWorking } from '@/core/picture/figures/transformer';
import { formatQuantity as q } from '@/core/quantity/format';
import type { Point, PointContext } from './point-context';
import { sourcePoint } from './source-point';
import { figure } from './test-point';

/** What feeds the supply, and the winding by itself. */
export function mainsPoints(context: PointContext): Point[] {
  const { design, mainsFor, dc, voltsPct, read, meter, opened } = context;
  const points: Point[] = [];
  const { mains } = design;
  const half = windingCount(design) === 2 ? 'each half, tap to end' : 'across the winding';
  if (dc) points.push(sourcePoint(dc, meter));
  else
    points.push({
      id: 'mains',
      label: 'Mains',
      how: 'A plug-in meter, or the AC range with CAT II leads at the outlet. Leave it out where you have neither: nominal is taken.',
      unit: 'V',
      expected: figure(
        'mains',
        'Mains today',
        mains.voltageRms,
        'V',
        'chosen',
        'nominal mains with the limits of the design',
        [
          { label: 'nominal', value: mains.voltageRms, unit: 'V' },
          { label: 'low', value: mains.lowPct, unit: '%' },
          { label: 'high', value: mains.highPct, unit: '%' },
        ],
        'Your mains settings.',
        [],
      ),
      low: mains.voltageRms * (1 - mains.lowPct / 100) - meter(mains.voltageRms),
      high: mains.voltageRms * (1 + mains.highPct / 100) + meter(mains.voltageRms),
      caution:
        'Mains. Case closed or nothing bare within reach, one hand, never alone. If you are not sure, have a qualified person do this step.',
      ifLow: 'Under the range the design was judged for: widen low line, or measure again at another hour.',
      ifHigh: 'Over the range the design was judged for: widen high line and look at the ratings again.',
    });

  if (!dc) {
    const mainsV = mainsFor('secondary-open');
    const value = opened(mainsV);
    const open = openVoltsWorking(design, { called: read, mainsV });
    const spread = (value * voltsPct) / 100 + meter(value);
    points.push({
      id: 'secondary-open',
      label: 'Winding, open',
      how: `AC range, ${half}, nothing connected; first time through a series lamp.`,
      unit: 'V',
      expected: figure(
        'secondary-open',
        'Open-circuit winding voltage',
        value,
        'V',
        'formula',
        open.expression,
        open.inputs,
        open.source,
        [`Turns ratio and regulation within ±${q(voltsPct, '%', 2)} together, then the meter.`],
      ),
      low: value - spread,
      high: value + spread,
      caution: 'Mains at the primary. Fuse and switch fitted, primary insulated, earth bonded.',
      ifLow: 'Wrong tap, half of the winding, or the lamp is still in series and glowing.',
      ifHigh: 'Wrong tap, two windings in series, or a size smaller than its plate says.',
    });
  }
  return points;
}
