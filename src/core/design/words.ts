import { ARRANGEMENTS } from '@/core/parts/arrangements';
import { formatNominal } from '@/core/quantity/format';
import { regulatorModel } from '@/core/parts/regulators';
import { aheadModel } from '@/core/parts/regulators/ahead';
import type { Design, Reservoir } from './design';

/** The arrangement in words: '230 V 50 Hz, bridge, 2200 µF, 7815'. */
export function arrangementWords(design: Design): string {
  const { mains, rectifier, reservoir, regulator, preRegulator } = design;
  return [
    `${formatNominal(mains.voltageRms, 'V')} ${formatNominal(mains.frequencyHz, 'Hz')}`,
    ARRANGEMENTS[rectifier.kind].facts.name.toLowerCase(),
    ...filterWords(design),
    reservoir.capacitanceF > 0 ? bankWords(reservoir) : 'no reservoir',
    ...(regulator.kind !== 'none' && preRegulator.kind !== 'none' ? [aheadModel(preRegulator)!.name] : []),
    regulatorModel(regulator)?.name ?? 'unregulated',
  ].join(', ');
}

/** The rating: '15 V, 600 mA'. */
export function ratingWords(design: Design): string {
  return `${isSplit(design) ? '±' : ''}${formatNominal(design.demand.outputV, 'V')}, ${formatNominal(design.demand.outputA, 'A')}`;
}

function filterWords({ rectifier, filter }: Design): string[] {
  if (filter.before.some((s) => s.kind === 'choke') && rectifier.kind !== 'doubler') {
    return [filter.before[0]!.kind === 'capacitor' ? 'small first capacitor and choke' : 'choke input'];
  }
  if (filter.after.some((s) => s.kind === 'choke')) return ['C-L-C'];
  return filter.after.some((s) => s.kind === 'resistor') ? ['C-R-C'] : [];
}

/** Whether a design has a plus and a minus rail. */
export function isSplit(design: Design): boolean {
  return ARRANGEMENTS[design.rectifier.kind].rails === 2;
}

/** How many alike windings, or halves of one, the rectifier works on. */
export function windingCount(design: Design): 1 | 2 {
  return ARRANGEMENTS[design.rectifier.kind].ratios.length === 2 ? 2 : 1;
}

/** The winding as its plate reads: '18 V' or '2 × 18 V'. */
export function windingWords(design: Design): string {
  return `${windingCount(design) === 2 ? '2 × ' : ''}${formatNominal(design.transformer.ratedV, 'V')}`;
}

/** '4700 µF', '3 × 2200 µF', '2 × 47 µF in series'. */
export function bankWords({ cans, pair, capacitanceF }: Reservoir): string {
  const one = formatNominal(capacitanceF, 'F');
  if (!pair) return cans > 1 ? `${cans} × ${one}` : one;
  return `${cans > 1 ? `${cans} × ` : ''}2 × ${one} in series`;
}
