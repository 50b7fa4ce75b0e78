import { bankRatedV } from '@/core/design/bank';
import type { Design } from '@/core/design/design';
import { hasChokeInput } from '@/core/design/filters';
import { mainModel } from '@/core/design/outputs';
import { arrangementFacts, termsOf } from '@/core/design/source';
import { formatNominal, formatQuantity } from '@/core/quantity/format';
import { heavierBleeder, reservoirVolts } from '../cures';
import type { Rule } from '../rule';
import { simulated } from '@/core/picture/working';

/** What the rail rises to when the load goes away, swing included, against everything that hangs on it. */
export const lostLoad: Rule = {
  title: 'Load taken away',
  station: 'reservoir',
  scope: 'supply',
  occasion: 'once',
  decides: ['transformer', 'choke', 'reservoir'],
  early: 4,
  find({ study }) {
    const { design } = study;
    if (!hasChokeInput(design) && !design.filter.after.some((s) => s.kind === 'choke')) return null;
    const idleV = study.idle.reservoir.maxV;
    const value = Math.max(study.lost.maxV, idleV);
    const weakest = weakestRating(design);
    return {
      value,
      limit: weakest.volts,
      relation: 'at most',
      wanted: 0.1 * weakest.volts,
      tell: () => ({
        figure: {
          id: 'lost-load',
          label: 'Highest rail voltage after the load is taken away',
          unit: 'V',
          origin: 'simulated',
          condition: `${termsOf(design).high}, the load unplugged`,
          expression: 'larger of the swing in ten cycles after the load goes and the idle voltage it settles at',
          inputs: [
            simulated('before', study.lost.beforeV, 'V'),
            simulated('highest in ten cycles', study.lost.maxV, 'V'),
            simulated('settles at', idleV, 'V'),
          ],
          source: 'Transient from the periodic steady state; then the steady state without load.',
          assumes: ['Nothing but bleeder, leakage and the regulator’s own current stays.'],
          estimate: {
            label: 'a choke input may rise by 57 %',
            value: 1.57 * study.lost.beforeV,
            expression: 'π/2 × the volts under load',
          },
        },
        limitSource: `${weakest.what}, the lowest rating on this rail.`,
        sentence: `Rises from ${formatQuantity(study.lost.beforeV, 'V')} to ${formatQuantity(value, 'V')}; ${weakest.what.toLowerCase()} stands ${formatNominal(Number(weakest.volts.toPrecision(4)), 'V')}.`,
        reason:
          'A valve that fails or a plug that is pulled leaves the choke without its current: everything downstream sees the rise.',
      }),
    };
  },
  cures: (design) => [...heavierBleeder(design), ...reservoirVolts(design, [1, 2])],
};

function weakestRating(design: Design): { what: string; volts: number } {
  const model = mainModel(design);
  const ratings = [
    ...(design.reservoir.capacitanceF > 0
      ? [{ what: 'The reservoir', volts: bankRatedV(design.reservoir) * arrangementFacts(design).railPerCan }]
      : []),
    ...[...design.filter.before, ...design.filter.after].flatMap((s) =>
      s.kind === 'capacitor' ? [{ what: 'A filter capacitor', volts: s.ratedV }] : [],
    ),
    ...(model ? [{ what: 'The regulator', volts: model.inputMaxV }] : []),
  ];
  return ratings.sort((a, b) => a.volts - b.volts)[0] ?? { what: 'The load', volts: 1.25 * design.demand.outputV };
}
