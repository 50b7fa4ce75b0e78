import { wordsOf } from '@/core/circuit/condition';
import { termsOf } from '@/core/design/source';
import type { Edit } from '@/core/design/design';
import { REGULATOR_SIZES } from '@/core/parts/regulators/fixed';
import { regulatorModel } from '@/core/parts/regulators';
import { formatNominal, formatQuantity } from '@/core/quantity/format';
import { outputSpan } from '@/core/study/study';
import { biggerReservoir, fullWave, transformerSize, windingVolts } from '../cures';
import type { Rule } from '../verdict';

export const outputWindow: Rule = {
  id: 'output-window',
  title: 'Output within its window',
  station: 'load',
  find(study) {
    const { design } = study;
    const { demand, regulator } = design;
    const say = termsOf(design);
    const span = outputSpan(study);
    const below = (100 * (demand.outputV - span.minV)) / demand.outputV;
    const above = (100 * (span.maxV - demand.outputV)) / demand.outputV;
    const value = Math.max(below, above);
    const low = below >= above;
    const model = regulatorModel(regulator);
    const regulated = model !== null;
    return {
      figure: {
        id: 'output-window',
        label: 'Largest deviation of the output',
        value,
        unit: '%',
        origin: regulated ? 'formula' : 'simulated',
        condition: low
          ? wordsOf(design, 'low')
          : regulated
            ? 'upper end of the regulator’s spread'
            : wordsOf(design, 'idle'),
        expression: 'largest of (asked − lowest) and (highest − asked), over asked',
        inputs: [
          { label: 'asked', value: demand.outputV, unit: 'V', origin: 'chosen' },
          { label: 'lowest', value: span.minV, unit: 'V', origin: 'simulated' },
          { label: 'highest', value: span.maxV, unit: 'V', origin: 'simulated' },
          ...(regulated
            ? [
                {
                  label: 'spread of the regulator',
                  value: 100 * model.spread,
                  unit: '%' as const,
                  origin: 'typical' as const,
                },
              ]
            : []),
        ],
        source: regulated
          ? model.spreadSource
          : `Lowest: ${wordsOf(design, 'low')}. Highest: ${wordsOf(design, 'idle')}.`,
        assumes: regulated ? [] : ['The load may be taken away altogether.'],
      },
      limit: demand.tolerancePct,
      limitSource: 'What your load allows.',
      relation: 'at most',
      wantedMargin: Math.min(0.15 * demand.tolerancePct, 1),
      sentence: `${formatQuantity(span.minV, 'V')} to ${formatQuantity(span.maxV, 'V')} for ${formatNominal(demand.outputV, 'V')} ±${formatQuantity(demand.tolerancePct, '%')}.`,
      reason: low
        ? `Too low and the load misbehaves with the ${say.low === 'low line' ? 'mains at its lowest' : say.low}.`
        : 'Too high and the load may not survive being the only thing switched on.',
    };
  },
  cures: (design): Edit[] => {
    const { regulator, demand } = design;
    const right = REGULATOR_SIZES.filter((s) => s.outputsV.includes(demand.outputV) && s.ratedA >= demand.outputA)
      .filter((s) => regulator.kind !== 'fixed' || regulator.outputV !== demand.outputV || regulator.size !== s.id)
      .map((s): Edit => ({
        label: `Regulator ${s.partNumber(demand.outputV)}`,
        patch: { regulator: { kind: 'fixed', size: s.id, outputV: demand.outputV } },
      }));
    return [
      ...right,
      ...windingVolts(design, [1, 2, -1, -2]),
      ...biggerReservoir(design, [1, 2, 3]),
      ...transformerSize(design, [1, 2, 3]),
      ...fullWave(design),
    ];
  },
};
