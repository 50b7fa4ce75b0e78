import type { Edit } from '@/core/design/design';
import { formatNominal, formatQuantity } from '@/core/quantity/format';
import { emitterResistors, fans, limiting, morePasses, sinks, windingVolts } from '../cures';
import { absurdHeat, heatWords } from '../heat-words';
import type { Rule } from '../rule';
import { junctionWorking } from '@/core/picture/heat-working';
import { simulated, typical } from '@/core/picture/working';

/** What a lasting short does to the pass element: a caution where the part limits itself, a failure where it does not. */
export const shortCircuit: Rule = {
  title: 'Output shorted',
  station: 'regulator',
  scope: 'output',
  occasion: (c) => c.output === 'shorted',
  decides: ['transistor'],
  followsSink: true,
  find({ model, at, output }) {
    if (!model || !at.heat || at.at.of !== output.id) return null;
    const { junctionC } = at.heat;
    const limit = model.pass.junctionMaxC;
    const working = junctionWorking(at.heat, at.regulatorW);
    return {
      value: junctionC,
      limit,
      relation: 'at most',
      wanted: 20,
      caution: model.limitsItself,
      tell: () => ({
        figure: {
          id: 'short-circuit',
          label: 'Junction with the output shorted for long',
          unit: '°C',
          origin: 'formula',
          ...absurdHeat(junctionC),
          expression: working.expression,
          inputs: [
            simulated('input', at.rail.meanV, 'V'),
            typical('into the short', at.outputMeanA, 'A'),
            ...working.inputs,
          ],
          source: 'Periodic steady state with that current drawn; steady heat flow.',
          assumes: [
            'The short stays until everything is warm.',
            model.limitsItself
              ? 'Without its own thermal limit: with it the current falls until the junction stays there.'
              : 'It has no thermal limit of its own.',
          ],
        },
        limitSource: `Highest junction temperature of the class, ${limit} °C.`,
        sentence:
          junctionC <= limit
            ? `${formatQuantity(at.regulatorW, 'W')} at ${formatQuantity(at.outputMeanA, 'A')} into the short: ${heatWords(junctionC)}.`
            : model.limitsItself
              ? `${formatQuantity(at.regulatorW, 'W')} are more than it gets rid of: its thermal limit takes over at ${formatNominal(limit, '°C')}.`
              : `${formatQuantity(at.regulatorW, 'W')} make ${heatWords(junctionC)}: it dies unless a fuse or you are quicker.`,
        reason: model.limitsItself
          ? 'It survives, hot; whatever touches the sink gets as hot.'
          : 'A discrete pass transistor burns the whole input at its limit current.',
      }),
    };
  },
  cures: (design): Edit[] => [
    ...limiting(design),
    ...emitterResistors(design),
    ...morePasses(design, [1, 2, 3]),
    ...sinks(design, [1, 2, 3, 5, 7]),
    ...fans(design),
    ...windingVolts(design, [-1, -2]),
  ],
};
