import { termsOf } from '@/core/design/source';
import { wordsOf } from '@/core/circuit/condition';
import type { Edit } from '@/core/design/design';
import { REGULATOR_SIZES, regulatorSize } from '@/core/parts/regulators/fixed';
import { regulatorModel } from '@/core/parts/regulators';
import { formatQuantity } from '@/core/quantity/format';
import { fans, outputSinks, sinks, windingVolts } from '../cures';
import type { Rule } from '../verdict';

export const junction: Rule = {
  id: 'junction',
  title: 'Regulator junction',
  station: 'regulator',
  find({ design, low, high, lowest }) {
    const model = regulatorModel(design.regulator);
    if (!high.heat || !model) return null;
    // An adjustable supply is hottest at the bottom of its knob.
    const worst = lowest?.heat && lowest.heat.junctionC > high.heat.junctionC ? lowest : high;
    const { junctionC, chain, airC } = worst.heat!;
    const limit = model.pass.junctionMaxC;
    const watts = worst.regulatorW;
    return {
      figure: {
        id: 'junction',
        label: 'Regulator junction temperature',
        value: junctionC,
        unit: '°C',
        origin: 'formula',
        condition: wordsOf(design, worst.condition),
        expression: `air + watts × (${chain.map((c) => c.label).join(' + ')})`,
        inputs: [
          { label: 'air at the sink', value: airC, unit: '°C', origin: 'formula' },
          { label: 'watts in the regulator', value: watts, unit: 'W', origin: 'simulated' },
          ...chain.map((c) => ({ label: c.label, value: c.kPerW, unit: 'K/W' as const, origin: 'typical' as const })),
        ],
        source: 'Steady heat flow through a chain of thermal resistances; the watts are those of the simulated cycle.',
        assumes: [
          'The full load stays on until everything is warm.',
          design.heat.box === 'open'
            ? 'An open frame: nothing else heats the air around it.'
            : 'The box’s air is warmed by everything inside it.',
        ],
        estimate: {
          label: 'from the mean voltage across it',
          value: airC + (worst.rail.meanV - worst.outputMeanV) * worst.outputMeanA * worst.heat!.thetaTotalKPerW,
          expression: 'air + (mean input − output) × load current × thermal resistance',
        },
      },
      limit,
      limitSource: `Highest junction temperature of the class, ${limit} °C; 20 K kept in hand.`,
      relation: 'at most',
      wantedMargin: 20,
      sentence: !low.settled
        ? `At ${termsOf(design).low} it has no end: warmth adds to the dropout, the dropout to the warmth.`
        : `${formatQuantity(junctionC, '°C')} with ${formatQuantity(watts, 'W')} to get rid of${worst === high ? '' : ' at its lowest output'}.`,
      reason: model.pass.safeA
        ? 'A transistor has no limit of its own: beyond this it dies, usually as a short to the output.'
        : 'There the part limits itself: the output drops and comes back as it cools, and its life runs out.',
    };
  },
  cures: (design): Edit[] => {
    const { regulator } = design;
    const bigger =
      regulator.kind === 'fixed' && !regulatorSize(regulator.size).takesSink
        ? REGULATOR_SIZES.filter((s) => s.takesSink && s.outputsV.includes(regulator.outputV)).map((s): Edit => ({
            label: `${s.partNumber(regulator.outputV)} in ${s.package}`,
            patch: { regulator: { ...regulator, size: s.id } },
          }))
        : [];
    return [
      ...sinks(design, [1, 2, 3, 5, 7]),
      ...fans(design),
      ...windingVolts(design, [-1, -2]),
      ...bigger,
      ...outputSinks(design),
    ];
  },
};
