import { dcSourceOf } from '@/core/design/source';
import { wordsOf } from '@/core/circuit/condition';
import { inductanceAt } from '@/core/circuit/assemble';
import type { Design, Edit } from '@/core/design/design';
import { criticalInductanceH, hasChokeInput } from '@/core/design/filters';
import { formatNominal, formatQuantity } from '@/core/quantity/format';
import { E12, nearestInDecades, stepInDecades } from '@/core/quantity/preferred';
import type { OperatingPoint } from '@/core/study/operating-point';
import type { Finding, Rule } from '../verdict';

/** A choke input only does its work while current never ceases in the choke. */
export const chokeCritical: Rule = {
  id: 'choke-critical',
  title: 'Choke current never ceases',
  station: 'before',
  find: ({ design, low }) => chokeFinding('choke-critical', design, low, 'at full load, bleeder included'),
  cures: (design) => [...largerChoke(design, [1, 3, 6]), ...heavierBleeder(design)],
};

/** The same without the load: what the bleeder holds. A caution, for many supplies are never left idle. */
export const chokeIdle: Rule = {
  id: 'choke-idle',
  title: 'Bleeder holds the choke',
  station: 'before',
  advisory: true,
  find: ({ design, idle }) => chokeFinding('choke-idle', design, idle, 'without load, on the bleeder alone'),
  cures: (design) => [...heavierBleeder(design), ...largerChoke(design, [1, 3, 6])],
};

function chokeFinding(id: string, design: Design, point: OperatingPoint, when: string): Finding | null {
  if (!hasChokeInput(design) || dcSourceOf(design)) return null;
  const at = design.filter.before.findIndex((s) => s.kind === 'choke');
  const part = design.filter.before[at]!;
  const choke = point.solution.elements[0]![at]!;
  if (part.kind !== 'choke') return null;
  const henry = inductanceAt(part.inductanceH, part.swinging ? part.ratedA / 2 : Infinity, choke.meanA);
  const criticalA = point.rail.meanV / (3 * 2 * Math.PI * design.mains.frequencyHz * henry);
  const ceases = choke.minA <= 1e-4 * choke.maxA;
  return {
    figure: {
      id,
      label: 'Lowest choke current of the cycle',
      value: ceases ? choke.meanA - criticalA : choke.minA,
      unit: 'A',
      origin: 'simulated',
      condition: wordsOf(design, point.condition),
      expression: ceases
        ? `mean choke current − V/(3·ω·L), ${when}: how far it stays below the critical current`
        : `lowest choke current ${when}`,
      inputs: [
        { label: 'mean choke current', value: choke.meanA, unit: 'A', origin: 'simulated' },
        { label: 'inductance at that current', value: henry, unit: 'H', origin: 'chosen' },
        { label: 'critical current', value: criticalA, unit: 'A', origin: 'formula' },
        {
          label: 'critical inductance for this load',
          value: criticalInductanceH(point.rail.meanV / Math.max(choke.meanA, 1e-9), design.mains.frequencyHz),
          unit: 'H',
          origin: 'formula',
        },
        {
          label: 'bleeder that holds it',
          value: 3 * 2 * Math.PI * design.mains.frequencyHz * henry,
          unit: 'ohm',
          origin: 'formula',
        },
      ],
      source: 'Periodic steady state.',
      assumes: ['A full-wave rectifier; a half-wave one never keeps a choke going.'],
      estimate: {
        label: 'mean current against V/(3·ω·L)',
        value: choke.meanA - criticalA,
        expression: 'mean current − V/(3·ω·L)',
      },
    },
    limit: 0,
    limitSource: 'At zero the choke lets go and the output climbs towards the peak.',
    relation: 'at least',
    wantedMargin: Math.max(0.15 * choke.meanA, 1e-9),
    sentence: ceases
      ? `Ceases in every cycle: ${formatQuantity(choke.meanA, 'A')} where ${formatNominal(part.inductanceH, 'H')} needs ${formatQuantity(criticalA, 'A')}.`
      : `Never below ${formatQuantity(choke.minA, 'A')} of ${formatQuantity(choke.meanA, 'A')} mean.`,
    reason:
      'Below its critical current a choke input behaves like a capacitor input: the volts rise and regulation is lost.',
  };
}

export function largerChoke(design: Design, steps: readonly number[]): Edit[] {
  return steps.map((n) => {
    const before = design.filter.before.map((s) =>
      s.kind === 'choke' ? { ...s, inductanceH: Math.min(200, stepInDecades(s.inductanceH, E12, n)) } : s,
    );
    const choke = before.find((s) => s.kind === 'choke');
    return {
      label: `Choke ${choke?.kind === 'choke' ? formatNominal(choke.inductanceH, 'H') : ''}`,
      patch: { filter: { before } },
    };
  });
}

/** A bleeder that carries the critical current by itself, or one step short of it. */
export function heavierBleeder(design: Design): Edit[] {
  const choke = design.filter.before.find((s) => s.kind === 'choke');
  if (choke?.kind !== 'choke') return [];
  const ohm = 3 * 2 * Math.PI * design.mains.frequencyHz * choke.inductanceH;
  return [0.75, 1.3]
    .map((share) => nearestInDecades(share * ohm, E12))
    .filter((value) => design.filter.bleederOhm === null || value < design.filter.bleederOhm)
    .map((bleederOhm) => ({
      label: `Bleeder ${formatNominal(bleederOhm, 'ohm')}`,
      patch: { filter: { bleederOhm } },
    }));
}
