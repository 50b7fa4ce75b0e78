import { rectifierPieces } from '@/core/design/heaters';
import { arrangementFacts, dcSourceOf, hasDiodes } from '@/core/design/source';
import { bankRatedV, canCount } from '@/core/design/bank';
import { modelOf } from '@/core/circuit/feed';
import { feedingRmsA } from './feeding';
import { sourceWords, windingCount } from '@/core/design/words';
import { typicalCapacitorPrice, typicalRippleRating } from '@/core/parts/capacitor';
import { typicalSourcePrice } from '@/core/parts/dc-source';
import { diodeOf } from '@/core/parts/diode';
import { typicalTransformerPrice } from '@/core/parts/transformer';
import { formatNominal, formatQuantity } from '@/core/quantity/format';
import { need, started } from './bill-need';
import type { Study } from './study';
import type { BillLine } from './bill-sums';
import { filterLines } from './bill-filter';
import { housingLines } from './bill-housing';
import { regulatorLines } from './bill-regulators';
import { billWriter, type BillWriter } from './bill-writer';

/** Everything a design is built from, with the ratings its simulation asks for. */
export function billOf(study: Study): BillLine[] {
  const writer = billWriter(study);
  sourceLines(writer);
  filterLines(writer);
  regulatorLines(writer);
  housingLines(writer);
  return writer.lines;
}

/** Source or transformer, rectifier and reservoir. */
function sourceLines({ study, add, refs, worst, withoutLoad }: BillWriter): void {
  const { design, idle } = study;
  const { transformer, reservoir } = design;
  const halves = windingCount(design);
  const dc = dcSourceOf(design);
  if (dc)
    add(null, {
      references: refs('source'),
      what: sourceWords(design),
      count: 1,
      needed: [
        need(
          'Current',
          worst((p) => p.solution.windings[0]!.rmsA),
          'A',
          'RMS of what flows out of the source',
        ),
      ],
      had:
        dc.kind === 'battery'
          ? formatNominal(dc.capacityAh, 'Ah')
          : `${formatNominal(dc.ratedV, 'V')}, ${formatNominal(dc.ratedA, 'A')}`,
      priceEur: typicalSourcePrice(dc),
    });
  else
    add('transformer', {
      references: refs('transformer'),
      what: `Transformer, ${halves === 2 ? '2 × ' : ''}${formatNominal(transformer.ratedV, 'V')}`,
      count: 1,
      needed: [
        need(
          'Winding current',
          worst((p) => feedingRmsA(design, p.solution)),
          'A',
          'RMS of the pulses in the winding, of halves the harder one',
          { after: 'RMS' },
        ),
      ],
      had: `${formatQuantity(modelOf(design).ratedA, 'A')}, ${formatNominal(transformer.ratedVA, 'VA')}`,
      priceEur: typicalTransformerPrice(transformer.ratedVA, halves),
    });
  const pieces = rectifierPieces(design);
  const diode = diodeOf(design.rectifier);
  // Four in one block are one part.
  const bought = diode.housing === 'block' && arrangementFacts(design).bridges > 0 ? pieces / 4 : pieces;
  // As the verdicts judge them: the mean that lasts, the reverse volts without load, twice over for what the mains bring.
  const meanA = worst((p) => Math.max(...p.solution.diodes.map((d) => d.meanA)));
  const reverse = idle.solution.diodes.reduce((a, d) => Math.max(a, d.peakReverseV), 0);
  if (hasDiodes(design))
    add('rectifier', {
      references: refs('rectifier'),
      what: diode.name,
      count: bought,
      needed: [
        need('Mean current', meanA, 'A', 'mean of what flows through one diode'),
        dc
          ? need('Reverse volts', withoutLoad(2 * idle.rail.inputMaxV), 'V', '2 × the source, wrong way round', {
              inputs: [{ label: 'source', value: idle.rail.inputMaxV, unit: 'V' }],
            })
          : need('Reverse volts', withoutLoad(2 * reverse), 'V', '2 × peak across one diode while it blocks', {
              inputs: [{ label: 'peak', value: reverse, unit: 'V' }],
              assumes: ['Twice, for what comes over the mains.'],
            }),
        need('First pulse', started(study), 'A', 'largest current of the start', { after: 'once' }),
      ],
      had: `${formatNominal(diode.averageA, 'A')}, ${formatNominal(diode.reverseV, 'V')}, ${formatNominal(diode.surgeA, 'A')}`,
      priceEur: (diode.priceEur * pieces) / bought,
    });
  if (reservoir.capacitanceF > 0) {
    const count = canCount(reservoir) * arrangementFacts(design).cans;
    const ripple = worst((p) => p.can?.rmsA ?? 0);
    const rating = reservoir.rippleA ?? typicalRippleRating(reservoir.capacitanceF, reservoir.ratedV);
    add('reservoir', {
      references: refs('reservoir'),
      what: `Electrolytic ${formatNominal(reservoir.capacitanceF, 'F')} ${formatNominal(reservoir.ratedV, 'V')}`,
      count,
      needed: [
        need('Volts', withoutLoad(Math.max(...idle.rails.map((p) => p.can?.maxV ?? 0))), 'V', 'peak across it'),
        need('Ripple current', { ...ripple, value: ripple.value / reservoir.cans }, 'A', 'RMS in the bank ÷ cans', {
          after: 'ripple',
          inputs: [
            { label: 'in the bank', value: ripple.value, unit: 'A' },
            { label: 'cans', value: reservoir.cans, unit: '' },
          ],
        }),
      ],
      had: `${formatNominal(bankRatedV(reservoir), 'V')}, ${formatQuantity(rating, 'A')}`,
      priceEur: typicalCapacitorPrice(reservoir.capacitanceF, reservoir.ratedV),
    });
  }
}
