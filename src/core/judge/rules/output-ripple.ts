import { bankF } from '@/core/design/bank';
import { arrangementOf, dcSourceOf, termsOf } from '@/core/design/source';
import { wordsOf } from '@/core/circuit/condition';
import { regulatorModel } from '@/core/parts/regulators';
import { formatNominal, formatQuantity } from '@/core/quantity/format';
import { rippleHz } from '@/core/study/operating-point';
import { biggerReservoir, fullWave, transformerSize, windingVolts } from '../cures';
import type { Rule } from '../verdict';

export const outputRipple: Rule = {
  id: 'output-ripple',
  title: 'Output ripple',
  station: 'load',
  find({ design, low }) {
    const value = low.outputRippleVpp;
    const { regulator, demand, reservoir, mains } = design;
    const period = 1 / (mains.frequencyHz * (arrangementOf(design).facts.fullWave ? 2 : 1));
    const inputRipple = low.rail.ripplePeakToPeakV;
    const model = regulatorModel(regulator);
    const regulated = model !== null;
    const rejectionDb = model ? model.rejectionDb(rippleHz(design)) : 0;
    const dip = low.outputMaxV - low.outputMinV;
    return {
      figure: {
        id: 'output-ripple',
        label: 'Ripple on the output',
        value,
        unit: 'V',
        origin: 'simulated',
        condition: wordsOf(design, 'low'),
        expression: regulated
          ? 'reservoir ripple × rejection + what dropout lets through'
          : 'highest − lowest reservoir voltage of the cycle',
        inputs: [
          { label: 'reservoir ripple', value: inputRipple, unit: 'V', origin: 'simulated' },
          ...(regulated
            ? [
                {
                  label: 'rejection at the ripple’s frequency',
                  value: rejectionDb,
                  unit: 'dB' as const,
                  origin: 'typical' as const,
                },
                { label: 'let through by dropout', value: dip, unit: 'V' as const, origin: 'simulated' as const },
              ]
            : []),
        ],
        source: regulated
          ? 'Periodic steady state; rejection at the ripple’s frequency typical of the class.'
          : 'Periodic steady state.',
        assumes: ['The regulator’s own noise and what layout adds are not in it.'],
        ...(reservoir.capacitanceF > 0 && !dcSourceOf(design)
          ? {
              estimate: {
                label: regulated ? 'I·t/C times rejection' : 'I·t/C',
                value:
                  ((low.rail.loadMeanA * period) /
                    (bankF(reservoir) * (1 - reservoir.tolerancePct / 100) * (1 - reservoir.agedPct / 100))) *
                  10 ** (-rejectionDb / 20),
                expression: regulated ? 'I/(2·f·C) × 10^(−dB/20)' : 'I/(2·f·C), or I/(f·C) half-wave',
              },
            }
          : {}),
      },
      limit: demand.rippleVpp,
      limitSource: 'What your load allows, peak to peak.',
      relation: 'at most',
      wantedMargin: 0.2 * demand.rippleVpp,
      sentence: `${formatQuantity(value, 'V')} p-p of ${formatNominal(demand.rippleVpp, 'V')} allowed.`,
      reason:
        regulated && dip > 0
          ? 'The regulator lets go in the valleys; no rejection figure helps there.'
          : `It is what the load hears of the ${termsOf(design).source}.`,
    };
  },
  cures: (design) => [
    ...biggerReservoir(design, [1, 2, 3, 4]),
    ...windingVolts(design, [1, 2]),
    ...transformerSize(design, [1, 2]),
    ...fullWave(design),
  ],
};
