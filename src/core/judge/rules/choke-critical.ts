import { inductanceAt } from '@/core/circuit/choke-flux';
import { criticalInductanceH, hasChokeInput } from '@/core/design/filters';
import { dcSourceOf } from '@/core/design/source';
import { formatNominal, formatQuantity } from '@/core/quantity/format';
import { heavierBleeder, largerChoke } from '../cures';
import { UNLOADED, type Finding, type Look, type Rule } from '../rule';
import { chosen, computed, simulated, STEADY } from '@/core/picture/working';

/** A choke input only does its work while current never ceases in the choke. */
export const chokeCritical: Rule = {
  title: 'Choke current never ceases',
  station: 'before',
  scope: 'rail',
  occasion: (c) => (c.load === 'full' || c.load === 'lasting') && c.output === undefined,
  decides: ['choke'],
  find: (look) => chokeFinding(look, 'under load, bleeder included', false),
  cures: (design) => [...largerChoke(design, [1, 3, 6]), ...heavierBleeder(design)],
};

/** The same without the load: what the bleeder holds. A caution, for many supplies are never left idle. */
export const chokeIdle: Rule = {
  title: 'Bleeder holds the choke',
  station: 'before',
  scope: 'rail',
  occasion: UNLOADED,
  decides: [],
  find: (look) => chokeFinding(look, 'without load, on the bleeder alone', true),
  cures: (design) => [...heavierBleeder(design), ...largerChoke(design, [1, 3, 6])],
};

function chokeFinding({ design, at, output }: Look, when: string, caution: boolean): Finding | null {
  if (!hasChokeInput(design) || dcSourceOf(design)) return null;
  const place = design.filter.before.findIndex((s) => s.kind === 'choke');
  const part = design.filter.before[place]!;
  const choke = at.solution.elements[output.rail]![place]!;
  if (part.kind !== 'choke') return null;
  const henry = inductanceAt(part.inductanceH, part.swinging ? part.ratedA / 2 : Infinity, choke.meanA);
  const criticalA = at.rail.meanV / (3 * 2 * Math.PI * design.mains.frequencyHz * henry);
  const ceases = choke.minA <= 1e-4 * choke.maxA;
  return {
    value: ceases ? choke.meanA - criticalA : choke.minA,
    limit: 0,
    relation: 'at least',
    wanted: Math.max(0.15 * choke.meanA, 1e-9),
    caution,
    tell: () => ({
      figure: {
        id: 'choke-current',
        label: 'Lowest choke current of the cycle',
        unit: 'A',
        origin: 'simulated',
        expression: ceases
          ? `mean choke current − V/(3·ω·L), ${when}: how far it stays below the critical current`
          : `lowest choke current ${when}`,
        inputs: [
          simulated('mean choke current', choke.meanA, 'A'),
          chosen('inductance at that current', henry, 'H'),
          computed('critical current', criticalA, 'A'),
          computed(
            'critical inductance for this load',
            criticalInductanceH(at.rail.meanV / Math.max(choke.meanA, 1e-9), design.mains.frequencyHz),
            'H',
          ),
          computed('bleeder that holds it', 3 * 2 * Math.PI * design.mains.frequencyHz * henry, 'ohm'),
        ],
        source: STEADY,
        assumes: ['A full-wave rectifier; a half-wave one never keeps a choke going.'],
        estimate: {
          label: 'mean current against V/(3·ω·L)',
          value: choke.meanA - criticalA,
          expression: 'mean current − V/(3·ω·L)',
        },
      },
      limitSource: 'At zero the choke lets go and the output climbs towards the peak.',
      sentence: ceases
        ? `Ceases in every cycle: ${formatQuantity(choke.meanA, 'A')} where ${formatNominal(part.inductanceH, 'H')} needs ${formatQuantity(criticalA, 'A')}.`
        : `Never below ${formatQuantity(choke.minA, 'A')} of ${formatQuantity(choke.meanA, 'A')} mean.`,
      reason:
        'Below its critical current a choke input behaves like a capacitor input: the volts rise and regulation is lost.',
    }),
  };
}
