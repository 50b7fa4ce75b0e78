import type { Edit } from '@/core/design/design';
import { ADJUSTABLE_IDS, ADJUSTABLE_PARTS } from '@/core/parts/regulators/adjustable';
import { REGULATOR_SIZES, regulatorSize } from '@/core/parts/regulators/fixed';
import { LOW_DROPOUT_PARTS, type LowDropoutId } from '@/core/parts/regulators/low-dropout';
import { formatNominal, formatQuantity } from '@/core/quantity/format';
import { morePasses } from '../cures';
import type { Rule } from '../rule';

export const regulatorCurrent: Rule = {
  title: 'Regulator current',
  station: 'regulator',
  scope: 'output',
  occasion: 'once',
  decides: ['regulator'],
  find({ output, model }) {
    if (!model) return null;
    const value = output.demand.outputA;
    return {
      value,
      limit: model.ratedA,
      relation: 'at most',
      wanted: 0.1 * model.ratedA,
      tell: () => ({
        figure: {
          id: 'regulator-current',
          label: 'Current through the regulator',
          unit: 'A',
          origin: 'chosen',
          expression: 'the load current asked for',
          inputs: [],
          source: 'Your load.',
          assumes: ['The load’s peak counts: its limit does not wait.'],
        },
        limitSource: model.theirs?.includes('ratedA')
          ? 'Rated output current by your data sheet.'
          : `Rated output current of the ${model.name}.`,
        sentence: `${formatNominal(value, 'A')} of ${formatQuantity(model.ratedA, 'A')} rated.`,
        reason: 'Past its rating dropout grows, the limit sets in early when hot, and the output sags.',
      }),
    };
  },
  cures: (design): Edit[] => {
    const { regulator } = design;
    if (regulator.kind === 'adjustable') {
      const now = ADJUSTABLE_PARTS[regulator.part].ratedA;
      return ADJUSTABLE_IDS.filter((id) => ADJUSTABLE_PARTS[id].ratedA > now).map((part) => ({
        label: `${part}, ${formatNominal(ADJUSTABLE_PARTS[part].ratedA, 'A')}`,
        patch: { regulator: { ...regulator, part } },
      }));
    }
    if (regulator.kind === 'low-dropout') {
      const now = LOW_DROPOUT_PARTS[regulator.part].ratedA;
      return (Object.keys(LOW_DROPOUT_PARTS) as LowDropoutId[])
        .filter((id) => LOW_DROPOUT_PARTS[id].ratedA > now)
        .map((part) => ({ label: LOW_DROPOUT_PARTS[part].name, patch: { regulator: { ...regulator, part } } }));
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
