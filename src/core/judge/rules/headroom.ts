import { emfPeakV } from '@/core/circuit/network';
import { capacitanceAt } from '@/core/circuit/filter-of';
import { arrangementFacts, dcSourceOf, termsOf } from '@/core/design/source';
import { formatNominal, formatQuantity } from '@/core/quantity/format';
import { rippleHz } from '@/core/study/point';
import { neededOf } from '@/core/study/output-point';
import { biggerReservoir, fullWave, otherDiodes, transformerSize, windingVolts } from '../cures';
import { FULL, type Rule } from '../rule';
import { chosen, classed, computed, simulated } from '@/core/picture/working';

/** Dropout is a typical figure; half a volt more is what the worst part takes. */
const WANTED_V = 0.5;

export const headroom: Rule = {
  title: 'Headroom',
  station: 'regulator',
  scope: 'output',
  occasion: FULL,
  decides: ['transformer', 'reservoir', 'choke', 'regulator', 'transistor'],
  early: 1,
  find({ design, study, output, model, at, adjust }) {
    const needed = neededOf(study.design, output, adjust, at.at);
    if (needed === null || !model) return null;
    const valley = at.rail.minV;
    const value = valley - needed;
    return {
      value,
      limit: 0,
      relation: 'at least',
      wanted: WANTED_V,
      tell: () => {
        const dc = dcSourceOf(design);
        const low = at.at.mains === 'low';
        const title = !low ? 'Headroom' : dc ? `Headroom, ${termsOf(design).low}` : 'Headroom at low line';
        const { diodesInPath, railPeaks } = arrangementFacts(design);
        const c = capacitanceAt(design, 'aged');
        const sag = c > 0 ? at.rail.loadMeanA / (rippleHz(design, output.rail) * c) : Infinity;
        const estimate = railPeaks * (emfPeakV(at.network) - diodesInPath) - sag - needed;
        return {
          title,
          figure: {
            id: 'headroom',
            label: title,
            unit: 'V',
            origin: 'simulated',
            expression: 'lowest reservoir voltage − (output + dropout)',
            inputs: [
              simulated('lowest reservoir voltage', valley, 'V'),
              chosen('output', model.outputV, 'V'),
              classed(model, 'dropoutV', 'dropout', needed - model.outputV, 'V'),
              computed('reservoir left by tolerance and age', c, 'F'),
            ],
            source:
              'Periodic steady state of source, diodes and reservoir; dropout at this current typical of the class, at the worse of a cold and a hot junction.',
            assumes: [
              dc
                ? 'Its own resistance stays as given; a battery’s grows as it empties and in the cold.'
                : 'Copper warm, mains at its lower limit, a clean sine.',
              'Reservoir at its lower tolerance and at the end of its life, ESR doubled.',
            ],
            ...(Number.isFinite(estimate) && !dc
              ? {
                  estimate: {
                    label: 'peak less 1 V a diode less I·t/C',
                    value: estimate,
                    expression: '√2·V − diodes·1 V − I/(f·C) − (output + dropout)',
                  },
                }
              : {}),
          },
          limitSource: 'Below zero the regulator lets go in every valley.',
          sentence:
            value < 0
              ? `The valley falls ${formatQuantity(-value, 'V')} short of the ${formatNominal(Number(needed.toPrecision(4)), 'V')} the regulator needs.`
              : `${formatQuantity(value, 'V')} of the ${formatNominal(WANTED_V, 'V')} wanted above ${formatNominal(Number(needed.toPrecision(4)), 'V')}.`,
          reason: dc
            ? 'Under output plus dropout the regulator lets go: the output sinks with its input and passes on every ripple.'
            : 'Where the valley dips under output plus dropout, ripple passes straight to the load, a hundred times a second.',
        };
      },
    };
  },
  cures: (design) => [
    ...biggerReservoir(design, [1, 2, 3]),
    ...windingVolts(design, [1, 2, 3]),
    ...transformerSize(design, [1, 2]),
    ...fullWave(design),
    ...otherDiodes(design).filter((e) => e.label.startsWith('Schottky')),
  ],
};
