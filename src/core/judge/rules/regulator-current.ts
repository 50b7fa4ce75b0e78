import type { Edit } from '@/core/design/design';
import { isSplit } from '@/core/design/words';
import { ADJUSTABLE_PARTS, type AdjustableId } from '@/core/parts/regulators/adjustable';
import { REGULATOR_SIZES, regulatorSize } from '@/core/parts/regulators/fixed';
import { regulatorModel } from '@/core/parts/regulators';
import { formatNominal, formatQuantity } from '@/core/quantity/format';
import { morePasses } from '../cures';
import type { Rule } from '../verdict';

export const regulatorCurrent: Rule = {
  id: 'regulator-current',
  title: 'Regulator current',
  station: 'regulator',
  find({ design }) {
    const model = regulatorModel(design.regulator);
    if (!model) return null;
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
      limit: model.ratedA,
      limitSource: `Rated output current of the ${model.name}.`,
      relation: 'at most',
      wantedMargin: 0.1 * model.ratedA,
      sentence: `${formatNominal(asked, 'A')} of ${formatQuantity(model.ratedA, 'A')} rated.`,
      reason: 'Past its rating dropout grows, the limit sets in early when hot, and the output sags.',
    };
  },
  cures: (design): Edit[] => {
    const { regulator } = design;
    if (regulator.kind === 'adjustable') {
      const now = ADJUSTABLE_PARTS[regulator.part].ratedA;
      return (Object.keys(ADJUSTABLE_PARTS) as AdjustableId[])
        .filter((id) => ADJUSTABLE_PARTS[id].ratedA > now)
        .map((part) => ({
          label: `${part}, ${formatNominal(ADJUSTABLE_PARTS[part].ratedA, 'A')}`,
          patch: { regulator: { ...regulator, part } },
        }));
    }
    if (regulator.kind !== 'fixed') return morePasses(design, [1, 2]);
    return REGULATOR_SIZES.filter(
      (s) => s.ratedA > regulatorSize(regulator.size).ratedA && s.outputsV.includes(regulator.outputV),
    ).map((s) => ({
      label: `${s.partNumber(regulator.outputV)}, ${formatNominal(s.ratedA, 'A')}`,
      patch: { regulator: { ...regulator, size: s.id } },
    }));
  },
};
