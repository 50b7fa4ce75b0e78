import { CONDITIONS } from '@/core/circuit/condition';
import type { Edit } from '@/core/design/design';
import { REGULATOR_JUNCTION_MAX_C, REGULATOR_SIZES, regulatorSize } from '@/core/parts/regulator';
import { formatQuantity } from '@/core/quantity/format';
import { sinks, windingVolts } from '../cures';
import type { Rule } from '../verdict';

export const junction: Rule = {
  id: 'junction',
  title: 'Regulator junction',
  station: 'regulator',
  find({ design, high }) {
    if (!high.heat || design.regulator.kind === 'none') return null;
    const { junctionC, chain } = high.heat;
    return {
      figure: {
        id: 'junction',
        label: 'Regulator junction temperature',
        value: junctionC,
        unit: '°C',
        origin: 'formula',
        condition: CONDITIONS.high.words,
        expression: `air + watts × (${chain.map((c) => c.label).join(' + ')})`,
        inputs: [
          { label: 'air at the sink', value: design.heat.ambientC, unit: '°C', origin: 'chosen' },
          { label: 'watts in the regulator', value: high.watts.regulator, unit: 'W', origin: 'simulated' },
          ...chain.map((c) => ({ label: c.label, value: c.kPerW, unit: 'K/W' as const, origin: 'typical' as const })),
        ],
        source: 'Steady heat flow through a chain of thermal resistances; the watts are those of the simulated cycle.',
        assumes: [
          'The full load stays on until everything is warm.',
          'Nothing else heats the same sink or the air around it.',
        ],
        estimate: {
          label: 'from the mean voltage across it',
          value:
            design.heat.ambientC + (high.rail.meanV - high.outputMeanV) * high.outputMeanA * high.heat.thetaTotalKPerW,
          expression: 'air + (mean input − output) × load current × thermal resistance',
        },
      },
      limit: REGULATOR_JUNCTION_MAX_C,
      limitSource: 'Highest junction temperature of the family, 125 °C; 20 K kept in hand.',
      relation: 'at most',
      wantedMargin: 20,
      sentence: `${formatQuantity(junctionC, '°C')} with ${formatQuantity(high.watts.regulator, 'W')} to get rid of.`,
      reason: 'At 125 °C the part limits itself: the output drops and comes back as it cools, and its life runs out.',
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
    return [...sinks(design, [1, 2, 3, 5, 7]), ...windingVolts(design, [-1, -2]), ...bigger];
  },
};
