import { modelOf, plateOf } from '@/core/circuit/feed';
import { arrangementOf, dcSourceOf } from '@/core/design/source';
import { feedingRmsA, feedingWindings } from '@/core/study/feeding';
import { windingCount } from '@/core/design/words';
import { formatNominal, formatQuantity } from '@/core/quantity/format';
import { fullWave, transformerSize } from '../cures';
import { LASTING, type Rule } from '../rule';
import { simulated } from '@/core/picture/working';

export const windingCurrent: Rule = {
  title: 'Winding current',
  station: 'winding',
  scope: 'supply',
  occasion: LASTING,
  decides: ['transformer'],
  early: 3,
  find({ study: { design }, at }) {
    if (dcSourceOf(design)) return null;
    const { ratedA } = modelOf(design);
    // A heater winding has wire of its own; what it takes from the core is in the apparent power.
    const rmsA = feedingRmsA(design, at.solution);
    return {
      value: rmsA,
      limit: ratedA,
      relation: 'at most',
      wanted: 0.1 * ratedA,
      tell: () => {
        const va = at.solution.windings.reduce((sum, w) => sum + w.voltAmpere, 0);
        const { name, rmsFactor } = arrangementOf(design).words;
        const half = windingCount(design) === 2 ? 'each winding' : 'the winding';
        return {
          figure: {
            id: 'winding-current',
            label: `RMS current in ${half}`,
            unit: 'A',
            origin: 'simulated',
            expression: 'root of the mean square of the winding current over the cycle',
            inputs: [
              simulated('load current', at.rail.loadMeanA, 'A'),
              simulated(
                'highest current of the pulse',
                Math.max(...feedingWindings(design, at.solution).map((w) => w.peakA)),
                'A',
              ),
              simulated('apparent power', va, 'VA'),
              simulated('times the load current', rmsA / Math.max(at.rail.loadMeanA, 1e-12), ''),
            ],
            source: 'Periodic steady state.',
            assumes: ['A clean sine and no leakage inductance: a real winding’s pulse is a little broader and lower.'],
            estimate: {
              label: `${rmsFactor} times the load current`,
              value: rmsFactor * at.rail.loadMeanA,
              expression: `${name.toLowerCase()}, capacitor input: about ${rmsFactor} × direct current`,
            },
          },
          limitSource: `Nameplate: ${formatNominal(design.transformer.ratedVA, 'VA')} / ${plateOf(design).halves === 2 ? '2 × ' : ''}${formatNominal(design.transformer.ratedV, 'V')}.`,
          sentence: `${formatQuantity(rmsA, 'A')} RMS in ${half}, rated ${formatNominal(ratedA, 'A')} (${formatQuantity(va, 'VA')} of ${formatNominal(design.transformer.ratedVA, 'VA')}).`,
          reason:
            'The winding heats by RMS, and the pulses into a reservoir have far more of it than the direct current they make.',
        };
      },
    };
  },
  cures: (design) => [...transformerSize(design, [1, 2, 3, 4]), ...fullWave(design)],
};
