import type { Edit } from '@/core/design/design';
import { formatQuantity } from '@/core/quantity/format';
import { lampAmps } from '@/core/circuit/loads-of';
import type { Rule } from '../rule';
import { chosen, computed, typical } from '@/core/picture/working';

/** Some regulators need a few milliamperes to regulate at all; a divider should draw them, or the load always. */
export const minimumLoad: Rule = {
  title: 'Least load of the regulator',
  station: 'regulator',
  scope: 'output',
  occasion: 'once',
  decides: ['regulator'],
  find({ study, output, model }) {
    if (!model || model.minimumLoadA === 0) return null;
    const lampA = lampAmps(study.design, output);
    const { leastA } = output.demand;
    const value = model.dividerA + lampA + leastA;
    return {
      value,
      limit: model.minimumTypicalA,
      relation: 'at least',
      wanted: Math.max(model.minimumLoadA - model.minimumTypicalA, 0.1 * model.minimumTypicalA),
      tell: () => ({
        figure: {
          id: 'minimum-load',
          label: 'Current that always flows out of it',
          unit: 'A',
          origin: 'formula',
          expression: 'what its divider draws + the least the load draws + an indicator',
          inputs: [
            computed('divider', model.dividerA, 'A'),
            chosen('least load', leastA, 'A'),
            chosen('indicator', lampA, 'A'),
            typical('the worst part needs', model.minimumLoadA, 'A'),
          ],
          source: 'Minimum load current of the class, typical and worst.',
          assumes: ['Nothing else is connected.'],
        },
        limitSource: `A typical part needs ${formatQuantity(model.minimumTypicalA, 'A')}, the worst ${formatQuantity(model.minimumLoadA, 'A')}.`,
        sentence:
          value < model.minimumTypicalA
            ? `${formatQuantity(value, 'A')} of the ${formatQuantity(model.minimumTypicalA, 'A')} a typical part needs: without load the output climbs.`
            : value < model.minimumLoadA
              ? `${formatQuantity(value, 'A')}: enough for a typical part, not for the worst.`
              : `${formatQuantity(value, 'A')}, enough for every part of its class.`,
        reason: 'Its own working current flows out of the output; with nowhere to go it lifts the output.',
      }),
    };
  },
  cures: (design): Edit[] => {
    const { regulator, demand } = design;
    const lamp: Edit = {
      label: 'An indicator at the output, 10 mA',
      patch: { indicator: { at: 'output', currentA: 0.01, forwardV: 2 } },
    };
    const lit = demand.outputV > 3 && design.indicator === null ? [lamp] : [];
    if (regulator.kind !== 'adjustable') return lit;
    return [
      ...[240, 180, 120]
        .filter((r) => r < regulator.r1Ohm)
        .map((r1Ohm): Edit => {
          const scale = r1Ohm / regulator.r1Ohm;
          const scaled = (ohm: number) => Number((scale * ohm).toPrecision(3));
          return {
            label: `R1 ${r1Ohm} Ω, the divider in proportion`,
            patch: {
              regulator: {
                ...regulator,
                r1Ohm,
                r2Ohm: scaled(regulator.r2Ohm),
                potOhm: regulator.potOhm === null ? null : Math.max(10, scaled(regulator.potOhm)),
              },
            },
          };
        }),
      ...lit,
    ];
  },
};
