import { bankF } from '@/core/design/bank';
import { dcSourceOf, termsOf } from '@/core/design/source';
import { formatNominal, formatQuantity } from '@/core/quantity/format';
import { rippleHz } from '@/core/study/point';
import { adjCapacitor, biggerReservoir, fullWave, transformerSize, windingVolts } from '../cures';
import { FULL, type Rule } from '../rule';
import { simulated, typical } from '@/core/picture/working';

export const outputRipple: Rule = {
  title: 'Output ripple',
  station: 'load',
  scope: 'output',
  occasion: FULL,
  decides: ['reservoir'],
  early: 1,
  find({ design, output, model, at }) {
    const { demand } = output;
    const value = at.outputRippleVpp;
    return {
      value,
      limit: demand.rippleVpp,
      relation: 'at most',
      wanted: 0.2 * demand.rippleVpp,
      tell: () => {
        const { reservoir } = design;
        const hz = rippleHz(design, output.rail);
        const rejectionDb = model ? model.rejectionDb(hz) : 0;
        const dip = model ? at.outputMaxV - at.outputMinV : 0;
        const left = bankF(reservoir) * (1 - reservoir.tolerancePct / 100) * (1 - reservoir.agedPct / 100);
        return {
          figure: {
            id: 'output-ripple',
            label: 'Ripple on the output',
            unit: 'V',
            origin: 'simulated',
            expression: model
              ? 'reservoir ripple × rejection + what dropout lets through'
              : 'highest − lowest reservoir voltage of the cycle',
            inputs: [
              simulated('reservoir ripple', at.rail.ripplePeakToPeakV, 'V'),
              ...(model
                ? [
                    typical('rejection at the ripple’s frequency', rejectionDb, 'dB'),
                    simulated('let through by dropout', dip, 'V'),
                  ]
                : []),
            ],
            source: model
              ? 'Periodic steady state; rejection at the ripple’s frequency typical of the class.'
              : 'Periodic steady state.',
            assumes: ['The regulator’s own noise and what layout adds are not in it.'],
            ...(reservoir.capacitanceF > 0 && !dcSourceOf(design)
              ? {
                  estimate: {
                    label: model ? 'I·t/C times rejection' : 'I·t/C',
                    value: (at.rail.loadMeanA / (hz * left)) * 10 ** (-rejectionDb / 20),
                    expression: model ? 'I/(2·f·C) × 10^(−dB/20)' : 'I/(2·f·C), or I/(f·C) half-wave',
                  },
                }
              : {}),
          },
          limitSource: 'What your load allows, peak to peak.',
          sentence: `${formatQuantity(value, 'V')} p-p of ${formatNominal(demand.rippleVpp, 'V')} allowed.`,
          reason:
            dip > 0
              ? 'The regulator lets go in the valleys; no rejection figure helps there.'
              : `It is what the load hears of the ${termsOf(design).source}.`,
        };
      },
    };
  },
  cures: (design) => [
    ...adjCapacitor(design),
    ...biggerReservoir(design, [1, 2, 3, 4]),
    ...windingVolts(design, [1, 2]),
    ...transformerSize(design, [1, 2]),
    ...fullWave(design),
  ],
};
