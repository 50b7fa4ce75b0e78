import { wordsOf } from '@/core/circuit/condition';
import type { Edit } from '@/core/design/design';
import { regulatorModel } from '@/core/parts/regulators';
import { formatNominal, formatQuantity } from '@/core/quantity/format';
import { fans, outputSinks, sinks, windingVolts } from '../cures';
import type { Rule } from '../verdict';

/** What a lasting short does to the pass element. A caution where the part limits itself, a failure where it does not. */
export const shortCircuit: Rule = {
  id: 'short-circuit',
  title: 'Output shorted',
  station: 'regulator',
  advisory: true,
  find({ design, shorted }) {
    const model = regulatorModel(design.regulator);
    if (!model || !shorted?.heat) return null;
    const { junctionC } = shorted.heat;
    const limit = model.pass.junctionMaxC;
    const limitsItself = model.pass.safeA === null;
    return {
      figure: {
        id: 'short-circuit',
        label: 'Junction with the output shorted for long',
        value: junctionC,
        unit: '°C',
        origin: 'formula',
        condition: wordsOf(design, 'shorted'),
        expression: 'air + input × current into the short × (junction … air)',
        inputs: [
          { label: 'input', value: shorted.rail.meanV, unit: 'V', origin: 'simulated' },
          { label: 'into the short', value: model.shortA, unit: 'A', origin: 'typical' },
          { label: 'watts', value: shorted.regulatorW, unit: 'W', origin: 'simulated' },
          { label: 'air at the sink', value: shorted.heat.airC, unit: '°C', origin: 'formula' },
        ],
        source: 'Periodic steady state with that current drawn; steady heat flow.',
        assumes: [
          'The short stays until everything is warm.',
          limitsItself
            ? 'Without its own thermal limit: with it the current falls until the junction stays there.'
            : 'It has no thermal limit of its own.',
        ],
      },
      limit,
      limitSource: `Highest junction temperature of the class, ${limit} °C.`,
      relation: 'at most',
      wantedMargin: 20,
      sentence:
        junctionC <= limit
          ? `${formatQuantity(shorted.regulatorW, 'W')} at ${formatQuantity(model.shortA, 'A')} into the short: ${formatQuantity(junctionC, '°C')}.`
          : limitsItself
            ? `${formatQuantity(shorted.regulatorW, 'W')} would make ${formatQuantity(junctionC, '°C')}: its thermal limit takes over at ${formatNominal(limit, '°C')}.`
            : `${formatQuantity(shorted.regulatorW, 'W')} makes ${formatQuantity(junctionC, '°C')}: it dies unless a fuse or you are quicker.`,
      reason: limitsItself
        ? 'It survives, hot; whatever touches the sink gets as hot.'
        : 'A discrete pass transistor burns the whole input at its limit current.',
    };
  },
  cures: (design): Edit[] => [
    ...sinks(design, [1, 2, 3, 5]),
    ...fans(design),
    ...windingVolts(design, [-1, -2]),
    ...outputSinks(design),
  ],
};
