import type { Edit } from '@/core/design/design';
import { isSplit } from '@/core/design/words';
import { REGULATOR_SIZES, regulatorSize } from '@/core/parts/regulator';
import { formatNominal } from '@/core/quantity/format';
import type { Rule } from '../verdict';

export const regulatorCurrent: Rule = {
  id: 'regulator-current',
  title: 'Regulator current',
  station: 'regulator',
  find({ design }) {
    if (design.regulator.kind === 'none') return null;
    const size = regulatorSize(design.regulator.size);
    // Of a split supply the harder worked regulator counts: both are of the same size.
    const asked = isSplit(design)
      ? Math.max(design.demand.outputA, design.demand.negativeA ?? 0)
      : design.demand.outputA;
    return {
      figure: {
        id: 'regulator-current',
        label: 'Current through the regulator',
        value: asked,
        unit: 'A',
        origin: 'chosen',
        expression: 'the load current asked for',
        inputs: [],
        source: 'Your load.',
        assumes: ['The load’s typical figure is also its highest.'],
      },
      limit: size.ratedA,
      limitSource: `Rated output current of the ${size.partNumber(design.regulator.outputV)}.`,
      relation: 'at most',
      wantedMargin: 0.1 * size.ratedA,
      sentence: `${formatNominal(asked, 'A')} of ${formatNominal(size.ratedA, 'A')} rated.`,
      reason: 'Past its rating dropout grows, the limit sets in early when hot, and the output sags.',
    };
  },
  cures: (design): Edit[] => {
    const { regulator } = design;
    if (regulator.kind === 'none') return [];
    return REGULATOR_SIZES.filter(
      (s) => s.ratedA > regulatorSize(regulator.size).ratedA && s.outputsV.includes(regulator.outputV),
    ).map((s) => ({
      label: `${s.partNumber(regulator.outputV)}, ${formatNominal(s.ratedA, 'A')}`,
      patch: { regulator: { ...regulator, size: s.id } },
    }));
  },
};
