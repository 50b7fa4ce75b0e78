import { wordsOf } from '@/core/circuit/condition';
import type { Edit } from '@/core/design/design';
import { regulatorModel } from '@/core/parts/regulators';
import { PASS_TRANSISTORS } from '@/core/parts/transistor';
import { formatQuantity } from '@/core/quantity/format';
import { morePasses, windingVolts } from '../cures';
import type { Rule } from '../verdict';

/** Whether the pass transistors stay inside their safe operating area, shorted and at the lowest output. */
export const safeArea: Rule = {
  id: 'safe-area',
  title: 'Safe area of the pass transistors',
  station: 'regulator',
  find({ design, high, lowest, shorted }) {
    const model = regulatorModel(design.regulator);
    if (!model?.pass.safeA) return null;
    const points = [high, lowest, shorted].filter((p) => p !== null);
    const loads = points.map((point) => {
      const volts = point.rail.maxV - point.outputMeanV;
      const amps = point.outputMeanA / model.pass.count;
      // The curves hold for a case at 25 °C; a warm one bears less in proportion.
      const caseC = point.heat ? point.heat.sinkC : 25;
      const derate = Math.max(0.05, (model.pass.junctionMaxC - caseC) / (model.pass.junctionMaxC - 25));
      const allowed = Math.max(derate * model.pass.safeA!(volts), 1e-6);
      return { point, volts, amps, allowed, used: amps / allowed, caseC };
    });
    const worst = loads.reduce((a, b) => (b.used > a.used ? b : a));
    return {
      figure: {
        id: 'safe-area',
        label: 'Share of the safe area in use',
        value: 100 * worst.used,
        unit: '%',
        origin: 'formula',
        condition: wordsOf(design, worst.point.condition),
        expression: 'current through each / what it bears at the volts across it, case as warm as it gets',
        inputs: [
          { label: 'across it', value: worst.volts, unit: 'V', origin: 'simulated' },
          { label: 'through each', value: worst.amps, unit: 'A', origin: 'simulated' },
          { label: 'it bears there', value: worst.allowed, unit: 'A', origin: 'typical' },
          { label: 'case', value: worst.caseC, unit: '°C', origin: 'formula' },
        ],
        source: 'Power to the second breakdown, then falling with the 2.4th power of the volts; derated with the case.',
        assumes: [
          model.pass.count > 1
            ? 'The current shares evenly: emitter resistors with 50 to 100 mV each.'
            : 'One transistor.',
          'Direct current, not a pulse.',
        ],
      },
      limit: 100,
      limitSource: 'Its safe operating area: beyond it a hot spot runs away within milliseconds.',
      relation: 'at most',
      wantedMargin: 20,
      sentence: `${formatQuantity(worst.amps, 'A')} each at ${formatQuantity(worst.volts, 'V')}, where ${formatQuantity(worst.allowed, 'A')} are borne.`,
      reason: 'Above 30 to 40 V a bipolar transistor bears far less than its watts say.',
    };
  },
  cures: (design): Edit[] => {
    const { regulator } = design;
    if (!('transistor' in regulator)) return [];
    return [
      ...morePasses(design, [1, 2, 3]),
      ...PASS_TRANSISTORS.filter((t) => t.id !== regulator.transistor).map((t) => ({
        label: t.name,
        patch: { regulator: { ...regulator, transistor: t.id } },
      })),
      ...windingVolts(design, [-1, -2]),
    ];
  },
};
