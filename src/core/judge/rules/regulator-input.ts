import { CONDITIONS } from '@/core/circuit/condition';
import { regulatorSize } from '@/core/parts/regulator';
import { formatNominal, formatQuantity } from '@/core/quantity/format';
import { transformerSize, windingVolts } from '../cures';
import type { Rule } from '../verdict';

export const regulatorInput: Rule = {
  id: 'regulator-input',
  title: 'Regulator input, idle',
  station: 'regulator',
  find({ design, idle }) {
    if (design.regulator.kind === 'none') return null;
    const size = regulatorSize(design.regulator.size);
    const limit = size.inputMaxV(design.regulator.outputV);
    const value = idle.rail.maxV;
    return {
      figure: {
        id: 'regulator-input',
        label: 'Regulator input at high line, no load',
        value,
        unit: 'V',
        origin: 'simulated',
        condition: CONDITIONS.idle.words,
        expression: 'highest reservoir voltage of the cycle, output unloaded',
        inputs: [
          { label: 'open-circuit winding', value: idle.winding.voltageRms, unit: 'V', origin: 'formula' },
          { label: 'quiescent current', value: size.quiescentA, unit: 'A', origin: 'typical' },
        ],
        source: 'Periodic steady state with only the quiescent current drawn.',
        assumes: ['The winding stands at its open-circuit voltage.', 'No mains spikes.'],
      },
      limit,
      limitSource: `Input maximum of the ${size.partNumber(design.regulator.outputV)}.`,
      relation: 'at most',
      wantedMargin: 0.05 * limit,
      sentence: `${formatQuantity(value, 'V')} of ${formatNominal(limit, 'V')} allowed at the input.`,
      reason:
        'Over its input maximum a regulator breaks down, and what it breaks into is usually a short to the output.',
    };
  },
  cures: (design) => [...windingVolts(design, [-1, -2, -3]), ...transformerSize(design, [1, 2, 3])],
};
