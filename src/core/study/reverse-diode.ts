import { ofDiodeClass } from '@/core/design/diode-edit';
import { dcSourceOf } from '@/core/design/source';
import type { Design } from '@/core/design/design';
import { openVolts } from '@/core/parts/dc-source';
import { JUNCTION_CLASSES, type DiodeClass } from '@/core/parts/diode';
import { operatingPoint } from './operating-point';
import { firstSurge } from './study';
import type { Way } from './regulator-schools';

/** How much above the load and the volts a diode in the lead is chosen. */
const CURRENT_SPARE = 1.3;
const REVERSE_SPARE = 2.4;

/** The cheapest diode of a technology that bears load and first surge and, a charged reservoir behind it, swapped leads. */
function smallest(
  technology: DiodeClass['technology'],
  amps: number,
  volts: number,
  surgeA: number,
): DiodeClass | undefined {
  return JUNCTION_CLASSES.filter(
    (d) =>
      d.technology === technology &&
      d.averageA >= CURRENT_SPARE * amps &&
      d.reverseV >= REVERSE_SPARE * volts &&
      d.surgeA >= CURRENT_SPARE * surgeA,
  ).sort((a, b) => a.priceEur - b.priceEur)[0];
}

/**
 * No diode, a Schottky, a silicon one in the lead of a DC source; none of it for a design fed from the mains.
 * @throws SolveError when the design as it stands does not converge
 */
export function reverseDiodeWays(design: Design): Way[] {
  const dc = dcSourceOf(design);
  if (!dc) return [];
  const volts = openVolts(dc, 'high');
  const amps = operatingPoint(design, 'low').solution.windings[0]!.meanA;
  const surgeA = firstSurge(design).peakA;
  const fitted = (technology: DiodeClass['technology'], creed: string): Way[] => {
    const diode = smallest(technology, amps, volts, surgeA);
    return diode
      ? [
          {
            id: technology,
            name: diode.name.split(',')[0]!,
            creed,
            patch: { source: { ...dc, reverseDiode: true }, rectifier: ofDiodeClass(diode.id) },
          },
        ]
      : [];
  };
  return [
    {
      id: 'none',
      name: 'No diode',
      creed: 'Every volt reaches the regulator, and so does every swapped lead: for keyed plugs only.',
      patch: { source: { ...dc, reverseDiode: false } },
    },
    ...fitted('Schottky', 'Costs about a third of a volt; leaks a little backwards when it is hot.'),
    ...fitted('silicon', 'Costs most of a volt, stands anything, costs nothing.'),
  ];
}
