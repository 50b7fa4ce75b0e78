import { bankF } from '@/core/design/bank';
import type { Design } from '@/core/design/design';
import { arrangementFacts } from '@/core/design/source';
import { formatQuantity } from '@/core/quantity/format';
import { rippleHz } from '@/core/study/point';
import { biggerReservoir, largerChoke } from '../cures';
import type { Rule } from '../rule';
import { chosen, computed } from '@/core/picture/working';

/** A choke and the capacitor behind it ring; the mains must not play their note. */
export const filterResonance: Rule = {
  title: 'Filter resonance',
  station: 'before',
  scope: 'supply',
  occasion: 'once',
  decides: ['choke'],
  find({ study: { design } }) {
    const pair = ringing(design);
    if (!pair || design.source.kind === 'battery') return null;
    const value = 1 / (2 * Math.PI * Math.sqrt(pair.henry * pair.farad));
    const ripple = rippleHz(design);
    return {
      value,
      limit: ripple / 1.5,
      relation: 'at most',
      wanted: ripple / 1.5 - ripple / 2,
      tell: () => ({
        station: pair.station,
        figure: {
          id: 'filter-resonance',
          label: 'Resonance of choke and capacitor',
          unit: 'Hz',
          origin: 'formula',
          expression: '1/(2π·√(L·C))',
          inputs: [
            chosen('choke', pair.henry, 'H'),
            chosen('capacitor behind it', pair.farad, 'F'),
            computed('ripple frequency', ripple, 'Hz'),
          ],
          source: 'Series resonance of an LC filter.',
          assumes: ['Damped by the choke’s copper and the load; look at the step and the start on the Scope.'],
        },
        limitSource: 'Two thirds of the ripple frequency; half of it and less is wanted.',
        sentence: `Rings at ${formatQuantity(value, 'Hz')} against ${formatQuantity(ripple, 'Hz')} of ripple.`,
        reason: 'Near its resonance a filter lifts the ripple it should take away, and load steps ring on for seconds.',
      }),
    };
  },
  cures: (design) => [...biggerReservoir(design, [1, 2, 4]), ...largerChoke(design, [2, 5])],
};

function ringing(design: Design): { henry: number; farad: number; station: 'before' | 'after' } | null {
  const { before, after } = design.filter;
  const first = before.find((s) => s.kind === 'choke');
  if (first?.kind === 'choke' && design.reservoir.capacitanceF > 0 && !arrangementFacts(design).ownCans) {
    return { henry: first.inductanceH, farad: bankF(design.reservoir), station: 'before' };
  }
  const at = after.findIndex((s) => s.kind === 'choke');
  const choke = after[at];
  const behind = after.slice(at + 1).find((s) => s.kind === 'capacitor');
  return choke?.kind === 'choke' && behind?.kind === 'capacitor'
    ? { henry: choke.inductanceH, farad: behind.capacitanceF, station: 'after' }
    : null;
}
