import type { Edit } from '@/core/design/design';
import { regulatorModel } from '@/core/parts/regulators';
import { formatQuantity } from '@/core/quantity/format';
import type { Rule } from '../verdict';

/** Some regulators need a few milliamperes to regulate at all; a divider should draw them, or the load always. */
export const minimumLoad: Rule = {
  id: 'minimum-load',
  title: 'Least load of the regulator',
  station: 'regulator',
  advisory: true,
  find({ design }) {
    const model = regulatorModel(design.regulator);
    if (!model || model.minimumLoadA === 0) return null;
    const drawn = model.dividerA;
    const needed = model.minimumLoadA;
    return {
      figure: {
        id: 'minimum-load',
        label: 'Current its divider draws',
        value: drawn,
        unit: 'A',
        origin: 'formula',
        expression: design.regulator.kind === 'adjustable' ? '1.25 V / R1' : 'none: its output is made in',
        inputs:
          design.regulator.kind === 'adjustable'
            ? [{ label: 'R1', value: design.regulator.r1Ohm, unit: 'ohm', origin: 'chosen' }]
            : [],
        source: 'Minimum load current of the class.',
        assumes: ['Nothing else is connected.'],
      },
      limit: needed,
      limitSource: 'Least load of the part, typical to worst.',
      relation: 'at least',
      wantedMargin: 0.1 * needed,
      sentence:
        drawn < needed
          ? `${formatQuantity(drawn, 'A')} of the ${formatQuantity(needed, 'A')} it needs: without load the output climbs.`
          : `Its divider alone draws ${formatQuantity(drawn, 'A')}, enough to regulate.`,
      reason: 'Its own working current flows out of the output; with nowhere to go it lifts the output.',
    };
  },
  cures: (design): Edit[] => {
    const { regulator } = design;
    if (regulator.kind !== 'adjustable') return [];
    return [240, 180, 120]
      .filter((r) => r < regulator.r1Ohm)
      .map((r1Ohm) => {
        const scale = r1Ohm / regulator.r1Ohm;
        return {
          label: `R1 ${r1Ohm} Ω, the divider in proportion`,
          patch: {
            regulator: {
              ...regulator,
              r1Ohm,
              r2Ohm: Number((scale * regulator.r2Ohm).toPrecision(3)),
              potOhm: regulator.potOhm === null ? null : Number((scale * regulator.potOhm).toPrecision(3)),
            },
          },
        };
      });
  },
};
