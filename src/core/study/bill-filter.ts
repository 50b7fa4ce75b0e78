import { arrangementFacts, arrangementOf } from '@/core/design/source';
import { balanceOhmOf, canCount } from '@/core/design/bank';
import { indicatorOhm } from '@/core/circuit/indicator';
import { placedParts } from '@/core/circuit/filter-of';
import type { ElementResult } from '@/core/solve/solution';
import { formatNominal } from '@/core/quantity/format';
import { SMALL_EUR, typicalStepPrice } from './cost';
import { chosen, need, twiceItsLoss } from './bill-need';
import type { BillWriter } from './bill-writer';

/** What stands around the reservoir: chokes, resistors and cans of the filter, what bleeds and balances it, the lamp. */
export function filterLines(writer: BillWriter): void {
  const { study, add, refs, worst, withoutLoad } = writer;
  const { design, idle } = study;
  const { reservoir, filter, indicator } = design;
  const arrangement = arrangementOf(design);
  const before = placedParts(design).filter((p) => p.side === 'before').length;
  placedParts(design).forEach(({ part: step, at, side }, n) => {
    const references = refs(side === 'before' ? `before-${n}` : `after-${n - before}`);
    const carried = (of: (element: ElementResult) => number) =>
      worst((p) => Math.max(...p.solution.elements.map((rail) => of(rail[at]!))));
    const count = arrangement.rails;
    if (step.kind === 'choke') {
      add(null, {
        references,
        what: `Choke ${formatNominal(step.inductanceH, 'H')}, ${formatNominal(step.resistanceOhm, 'ohm')}`,
        count,
        needed: [
          need(
            'Current',
            carried((e) => e.rmsA),
            'A',
            'RMS of what flows through it',
          ),
        ],
        had: formatNominal(step.ratedA, 'A'),
        priceEur: typicalStepPrice(step),
      });
    } else if (step.kind === 'resistor') {
      // By its RMS current: ahead of a reservoir that is much more than the mean.
      const amps = carried((e) => e.rmsA);
      const loss = { ...amps, value: amps.value ** 2 * step.resistanceOhm };
      add(null, {
        references,
        what: `Resistor ${formatNominal(step.resistanceOhm, 'ohm')}`,
        count,
        needed: [
          twiceItsLoss(loss, 'I² R', [
            { label: 'I, RMS', value: amps.value, unit: 'A', origin: 'simulated' },
            { label: 'R', value: step.resistanceOhm, unit: 'ohm' },
          ]),
        ],
        lossW: loss.value,
        had: 'as bought',
        priceEur: typicalStepPrice(step),
      });
    } else {
      add(null, {
        references,
        what: `Capacitor ${formatNominal(step.capacitanceF, 'F')} ${formatNominal(step.ratedV, 'V')}`,
        count,
        needed: [
          need(
            'Volts',
            withoutLoad(Math.max(...idle.solution.elements.map((rail) => rail[at]!.maxV))),
            'V',
            'peak across it',
          ),
        ],
        had: formatNominal(step.ratedV, 'V'),
        priceEur: typicalStepPrice(step),
      });
    }
  });
  if (filter.bleederOhm !== null) {
    const watts = idle.rail.maxV ** 2 / filter.bleederOhm;
    add(null, {
      references: refs('bleeder'),
      what: `Bleeder ${formatNominal(filter.bleederOhm, 'ohm')}`,
      count: arrangement.rails,
      needed: [
        twiceItsLoss(withoutLoad(watts), 'U² ÷ R', [
          { label: 'U, peak', value: idle.rail.maxV, unit: 'V', origin: 'simulated' },
          { label: 'R', value: filter.bleederOhm, unit: 'ohm' },
        ]),
        need('Volts', withoutLoad(idle.rail.maxV), 'V', 'peak across it'),
      ],
      lossW: watts,
      had: 'as bought',
      priceEur: SMALL_EUR.powerResistor,
    });
  }
  const balance = balanceOhmOf(reservoir);
  if (balance !== null) {
    const count = canCount(reservoir) * arrangementFacts(design).cans;
    const volts = Math.max(...idle.rails.map((p) => p.can?.maxV ?? 0)) / 2;
    add(null, {
      references: refs('balance'),
      what: `Balancing resistor ${formatNominal(balance, 'ohm')}, across each can`,
      count,
      needed: [
        twiceItsLoss(withoutLoad(volts ** 2 / balance), 'U² ÷ R', [
          { label: 'U, one can', value: volts, unit: 'V', origin: 'simulated' },
          { label: 'R', value: balance, unit: 'ohm' },
        ]),
        need('Volts', withoutLoad(volts), 'V', 'half of the pair’s peak'),
      ],
      lossW: volts ** 2 / balance,
      had: 'as bought',
      priceEur: SMALL_EUR.resistor,
    });
  }
  if (indicator) {
    const ohm = indicatorOhm(design)!;
    const watts = indicator.currentA ** 2 * ohm;
    add(null, {
      references: refs('indicator-resistor'),
      what: `Resistor ${formatNominal(Number(ohm.toPrecision(3)), 'ohm')} for the indicator`,
      count: 1,
      needed: [
        twiceItsLoss(chosen(watts, 'Your lamp.'), 'I² R', [
          { label: 'I', value: indicator.currentA, unit: 'A', origin: 'chosen' },
          { label: 'R', value: ohm, unit: 'ohm' },
        ]),
      ],
      lossW: watts,
      had: 'as bought',
      priceEur: SMALL_EUR.resistor,
    });
    add(null, {
      references: refs('indicator'),
      what: 'Light-emitting diode',
      count: 1,
      needed: [need('Current', chosen(indicator.currentA, 'Your lamp.'), 'A', 'as chosen')],
      had: 'as bought',
      priceEur: SMALL_EUR.led,
    });
  }
}
