import { metalWorking } from '@/core/picture/heat-working';
import { formatQuantity as q } from '@/core/quantity/format';
import { operatingPoint } from '@/core/study/operating-point';
import type { Point, PointContext } from './point-context';
import { figure } from './test-point';

/** What the room may be off from the one assumed. */
const ROOM = { coolerK: 15, warmerK: 5 };

/** The metal after half an hour. */
export function sinkPoints(context: PointContext): Point[] {
  const { design, mainsFor, made } = context;
  const points: Point[] = [];
  const { heat, bench } = design;
  const warm = made && operatingPoint(design, 'nominal', { mainsV: mainsFor('sink-warm') });
  if (made && warm?.heat) {
    const expectedC = warm.heat.sinkC;
    const working = metalWorking(warm.heat, warm.regulatorW, made.pass.jcKPerW / made.pass.count);
    const rise = expectedC - heat.ambientC;
    const bare = warm.heat.sink === null;
    points.push({
      id: 'sink-warm',
      label: bare ? 'Regulator’s case' : 'Heatsink',
      how: bare
        ? 'Thermometer on the part itself, full load for 30 minutes.'
        : 'Thermometer on the metal beside the tab, full load for 30 minutes.',
      unit: '°C',
      expected: figure(
        'sink-warm',
        bare ? 'Case temperature, warm' : 'Sink temperature, warm',
        expectedC,
        '°C',
        'formula',
        working.expression,
        working.inputs,
        'Steady heat flow.',
        [
          'Natural convection, ±30 % on its thermal resistance; the room up to 15 K cooler or 5 K warmer than assumed; the thermometer on top.',
        ],
      ),
      low: heat.ambientC - ROOM.coolerK + 0.7 * rise - bench.thermometerK,
      high: heat.ambientC + ROOM.warmerK + 1.3 * rise + bench.thermometerK,
      caution: expectedC > 60 ? `About ${q(expectedC, '°C')}: burns. Thermometer, not finger.` : undefined,
      ifLow: 'Colder room than assumed, or it is not carrying the load.',
      ifHigh: bare
        ? 'Less copper or air around it than assumed, or more input voltage than expected.'
        : 'No paste, sink lying flat or boxed in, or more input voltage than expected.',
    });
  }
  return points;
}
