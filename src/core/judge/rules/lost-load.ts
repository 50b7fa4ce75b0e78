import { termsOf } from '@/core/design/source';
import { bankRatedV } from '@/core/design/bank';
import type { Design } from '@/core/design/design';
import { hasChokeInput } from '@/core/design/filters';
import { regulatorModel } from '@/core/parts/regulators';
import { formatNominal, formatQuantity } from '@/core/quantity/format';
import { reservoirVolts } from '../cures';
import { heavierBleeder } from './choke-critical';
import type { Rule } from '../verdict';

/** What the rail rises to when the load goes away, swing included, against everything that hangs on it. */
export const lostLoad: Rule = {
  id: 'lost-load',
  title: 'Load taken away',
  station: 'reservoir',
  find(study) {
    const { design } = study;
    if (!hasChokeInput(design) && !design.filter.after.some((s) => s.kind === 'choke')) return null;
    const value = Math.max(study.lost.maxV, study.idle.reservoir.maxV);
    const weakest = weakestRating(design);
    return {
      figure: {
        id: 'lost-load',
        label: 'Highest rail voltage after the load is taken away',
        value,
        unit: 'V',
        origin: 'simulated',
        condition: `${termsOf(design).high}, the load unplugged`,
        expression: 'larger of the swing in ten cycles after the load goes and the idle voltage it settles at',
        inputs: [
          { label: 'before', value: study.lost.beforeV, unit: 'V', origin: 'simulated' },
          { label: 'highest in ten cycles', value: study.lost.maxV, unit: 'V', origin: 'simulated' },
          { label: 'settles at', value: study.idle.reservoir.maxV, unit: 'V', origin: 'simulated' },
        ],
        source: 'Transient from the periodic steady state; then the steady state without load.',
        assumes: ['Nothing but bleeder, leakage and the regulator’s own current stays.'],
        estimate: {
          label: 'a choke input may rise by 57 %',
          value: 1.57 * study.lost.beforeV,
          expression: 'π/2 × the volts under load',
        },
      },
      limit: weakest.volts,
      limitSource: `${weakest.what}, the lowest rating on this rail.`,
      relation: 'at most',
      wantedMargin: 0.1 * weakest.volts,
      sentence: `Rises from ${formatQuantity(study.lost.beforeV, 'V')} to ${formatQuantity(value, 'V')}; ${weakest.what.toLowerCase()} stands ${formatNominal(weakest.volts, 'V')}.`,
      reason:
        'A valve that fails or a plug that is pulled leaves the choke without its current: everything downstream sees the rise.',
    };
  },
  cures: (design) => [...heavierBleeder(design), ...reservoirVolts(design, [1, 2])],
};

function weakestRating(design: Design): { what: string; volts: number } {
  const model = regulatorModel(design.regulator);
  const ratings = [
    ...(design.reservoir.capacitanceF > 0 ? [{ what: 'The reservoir', volts: bankRatedV(design.reservoir) }] : []),
    ...[...design.filter.before, ...design.filter.after].flatMap((s) =>
      s.kind === 'capacitor' ? [{ what: 'A filter capacitor', volts: s.ratedV }] : [],
    ),
    ...(model ? [{ what: 'The regulator', volts: model.inputMaxV }] : []),
  ];
  return ratings.sort((a, b) => a.volts - b.volts)[0] ?? { what: 'The load', volts: 1.25 * design.demand.outputV };
}
