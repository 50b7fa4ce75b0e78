import { arrangementOf, dcSourceOf, termsOf } from '@/core/design/source';
import { wordsOf } from '@/core/circuit/condition';
import { capacitanceAt } from '@/core/circuit/filter-of';
import { regulatorModel } from '@/core/parts/regulators';
import { formatNominal, formatQuantity } from '@/core/quantity/format';
import { neededV } from '@/core/study/operating-point';
import { biggerReservoir, fullWave, otherDiodes, transformerSize, windingVolts } from '../cures';
import type { Rule } from '../verdict';

/** Dropout is a typical figure; half a volt more is what the worst part takes. */
const WANTED_V = 0.5;

export const headroom: Rule = {
  id: 'headroom',
  title: 'Headroom at low line',
  station: 'regulator',
  find(study) {
    const { design, low } = study;
    const dc = dcSourceOf(design);
    const title = dc ? `Headroom, ${termsOf(design).low}` : 'Headroom at low line';
    const needed = neededV(design);
    const model = regulatorModel(design.regulator);
    if (needed === null || !model) return null;
    const valley = low.rail.minV;
    const value = valley - needed;
    const fullWaveFactor = arrangementOf(design).facts.fullWave ? 2 : 1;
    const drops = arrangementOf(design).facts.diodesInPath;
    const c = capacitanceAt(design, 'aged');
    const sag = c > 0 ? low.rail.loadMeanA / (fullWaveFactor * design.mains.frequencyHz * c) : Infinity;
    const estimate = Math.SQRT2 * low.winding.voltageRms - drops - sag - needed;
    return {
      title,
      figure: {
        id: 'headroom',
        label: title,
        value,
        unit: 'V',
        origin: 'simulated',
        condition: wordsOf(design, 'low'),
        expression: 'lowest reservoir voltage − (output + dropout)',
        inputs: [
          { label: 'lowest reservoir voltage', value: valley, unit: 'V', origin: 'simulated' },
          { label: 'output', value: model.outputV, unit: 'V', origin: 'chosen' },
          { label: 'dropout', value: needed - model.outputV, unit: 'V', origin: 'typical' },
          { label: 'reservoir left by tolerance and age', value: c, unit: 'F', origin: 'formula' },
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
      limit: 0,
      limitSource: 'Below zero the regulator lets go in every valley.',
      relation: 'at least',
      wantedMargin: WANTED_V,
      sentence:
        value < 0
          ? `The valley falls ${formatQuantity(-value, 'V', 2)} short of the ${formatNominal(needed, 'V')} the regulator needs.`
          : `${formatQuantity(value, 'V', 2)} of the ${formatNominal(WANTED_V, 'V')} wanted above ${formatNominal(needed, 'V')}.`,
      reason: dc
        ? 'Under output plus dropout the regulator lets go: the output sinks with its input and passes on every ripple.'
        : 'Where the valley dips under output plus dropout, ripple passes straight to the load, a hundred times a second.',
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
