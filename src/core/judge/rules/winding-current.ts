import { dcSourceOf } from '@/core/design/source';
import { arrangementOf } from '@/core/design/source';
import { wordsOf } from '@/core/circuit/condition';
import { modelOf } from '@/core/circuit/feed';
import { windingCount } from '@/core/design/words';
import { formatNominal, formatQuantity } from '@/core/quantity/format';
import { fullWave, transformerSize } from '../cures';
import type { Rule } from '../verdict';

export const windingCurrent: Rule = {
  id: 'winding-current',
  title: 'Winding current',
  station: 'winding',
  find({ design, high }) {
    if (dcSourceOf(design)) return null;
    const model = modelOf(design);
    // A heater winding has wire of its own; what it takes from the core is in the apparent power.
    const feeding = high.solution.windings.slice(0, windingCount(design));
    const rmsA = Math.max(...feeding.map((w) => w.rmsA));
    const va = high.solution.windings.reduce((sum, w) => sum + w.voltAmpere, 0);
    const factor = arrangementOf(design).facts.rmsFactor;
    const half = windingCount(design) === 2 ? 'each half of the winding' : 'the winding';
    return {
      figure: {
        id: 'winding-current',
        label: `RMS current in ${half}`,
        value: rmsA,
        unit: 'A',
        origin: 'simulated',
        condition: wordsOf(design, 'high'),
        expression: 'root of the mean square of the winding current over the cycle',
        inputs: [
          { label: 'load current', value: high.rail.loadMeanA, unit: 'A', origin: 'simulated' },
          {
            label: 'highest current of the pulse',
            value: Math.max(...feeding.map((w) => w.peakA)),
            unit: 'A',
            origin: 'simulated',
          },
          { label: 'apparent power', value: va, unit: 'VA', origin: 'simulated' },
          {
            label: 'times the load current',
            value: rmsA / high.rail.loadMeanA,
            unit: '',
            origin: 'simulated',
          },
        ],
        source: 'Periodic steady state.',
        assumes: ['A clean sine and no leakage inductance: a real winding’s pulse is a little broader and lower.'],
        estimate: {
          label: `${factor} times the load current`,
          value: factor * high.rail.loadMeanA,
          expression: `${design.rectifier.kind}, capacitor input: about ${factor} × direct current`,
        },
      },
      limit: model.ratedA,
      limitSource: `Nameplate: ${formatNominal(design.transformer.ratedVA, 'VA')} / ${windingCount(design) === 2 ? '2 × ' : ''}${formatNominal(design.transformer.ratedV, 'V')}.`,
      relation: 'at most',
      wantedMargin: 0.1 * model.ratedA,
      sentence: `${formatQuantity(rmsA, 'A')} RMS in ${half}, rated ${formatNominal(model.ratedA, 'A')} (${formatQuantity(va, 'VA')} of ${formatNominal(design.transformer.ratedVA, 'VA')}).`,
      reason:
        'The winding heats by RMS, and the pulses into a reservoir have far more of it than the direct current they make.',
    };
  },
  cures: (design) => [...transformerSize(design, [1, 2, 3, 4]), ...fullWave(design)],
};
