import type { Edit } from '@/core/design/design';
import { termsOf } from '@/core/design/source';
import { REGULATOR_SIZES, regulatorSize } from '@/core/parts/regulators/fixed';
import { fans, morePasses, sinks, windingVolts } from '../cures';
import { LASTING, type Rule } from '../rule';
import { formatQuantity } from '@/core/quantity/format';
import { absurdHeat, heatWords } from '../heat-words';
import { junctionWorking } from '@/core/picture/heat-working';
import { classed, typical } from '@/core/picture/working';

export const junction: Rule = {
  title: 'Regulator junction',
  station: 'regulator',
  scope: 'output',
  occasion: LASTING,
  decides: ['regulator', 'transistor', 'sink'],
  followsSink: true,
  find({ design, study, model, at }) {
    if (!at.heat || !model) return null;
    const { junctionC } = at.heat;
    const limit = model.pass.junctionMaxC;
    return {
      // Without an end it is as hot as the search was stopped at, or hotter.
      value: at.settled ? junctionC : Math.max(junctionC, 2 * limit),
      limit,
      relation: 'at most',
      wanted: 20,
      tell: () => {
        const { chain, thetaTotalKPerW } = at.heat!;
        const watts = at.regulatorW;
        const meanW = (at.rail.meanV - at.outputMeanV) * at.outputMeanA;
        const settles = at.settled;
        return {
          figure: {
            id: 'junction',
            label: 'Regulator junction temperature',
            unit: '°C',
            origin: 'formula',
            ...(settles ? absurdHeat(junctionC) : { words: 'no rest' }),
            ...junctionWorking(at.heat!, watts, (label, kPerW, n) =>
              n === 0
                ? classed(model, chain.length === 1 ? 'jaKPerW' : 'jcKPerW', label, kPerW, 'K/W')
                : typical(label, kPerW, 'K/W'),
            ),
            source:
              'Steady heat flow through a chain of thermal resistances; the watts are those of the simulated cycle.',
            assumes: [
              'The lasting load stays on until everything is warm.',
              study.design.heat.box === 'open'
                ? 'An open frame: nothing else heats the air around it.'
                : 'The box’s air is warmed by everything inside it.',
              ...(model.pass.count < model.pass.fitted
                ? ['Nothing makes the transistors share: the warmest of them takes all of it.']
                : []),
            ],
            estimate: {
              label: 'from the mean voltage across it',
              // What else is on its sink stays as it was found.
              value: junctionC + (meanW - watts) * thetaTotalKPerW,
              expression: 'air + (mean input − output) × load current × thermal resistance',
            },
          },
          limitSource: `Highest junction temperature of the class, ${limit} °C; 20 K kept in hand.`,
          sentence: !settles
            ? `At ${termsOf(design)[at.at.mains]} it has no end: warmth adds to the dropout, the dropout to the warmth.`
            : `${heatWords(junctionC)} with ${formatQuantity(watts, 'W')} to get rid of${at.at.output === 'lowest' ? ' at its lowest output' : ''}.`,
          reason: model.limitsItself
            ? 'There the part limits itself: the output drops and comes back as it cools, and its life runs out.'
            : 'A transistor has no limit of its own: beyond this it dies, usually as a short to the output.',
        };
      },
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
      ...morePasses(design, [1, 2]),
      ...windingVolts(design, [-1, -2]),
      ...bigger,
    ];
  },
};
