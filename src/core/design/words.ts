import { arrangementFacts, arrangementOf, dcSourceOf, hasDiodes } from './source';
import { formatNominal } from '@/core/quantity/format';
import { regulatorModel } from '@/core/parts/regulators';
import { aheadModel } from '@/core/parts/regulators/ahead';
import type { Design, Reservoir } from './design';

/** The arrangement in words: '230 V 50 Hz, bridge, 2200 µF, 7815'. */
export function arrangementWords(design: Design): string {
  const { mains, reservoir, regulator, preRegulator } = design;
  return [
    ...(dcSourceOf(design)
      ? [sourceWords(design), hasDiodes(design) ? 'reverse diode' : 'no reverse diode']
      : [
          `${formatNominal(mains.voltageRms, 'V')} ${formatNominal(mains.frequencyHz, 'Hz')}`,
          arrangementOf(design).words.name.toLowerCase(),
        ]),
    ...filterWords(design),
    reservoir.capacitanceF > 0 ? bankWords(reservoir) : 'no reservoir',
    ...(regulator.kind !== 'none' && preRegulator.kind !== 'none' ? [aheadModel(preRegulator)!.name] : []),
    regulatorModel(regulator)?.name ?? 'unregulated',
  ].join(', ');
}

/** What feeds a design, short: '230 V', '12.9 V battery', '12 V 1 A adapter'. */
export function sourceWords({ source, mains }: Pick<Design, 'source' | 'mains'>): string {
  if (source.kind === 'mains') return formatNominal(mains.voltageRms, 'V');
  return source.kind === 'battery'
    ? `${formatNominal(source.freshV, 'V')} battery`
    : `${formatNominal(source.ratedV, 'V')} ${formatNominal(source.ratedA, 'A')} adapter`;
}

/** The rating: '15 V, 600 mA'. */
export function ratingWords(design: Design): string {
  return `${isSplit(design) ? '±' : ''}${formatNominal(design.demand.outputV, 'V')}, ${formatNominal(design.demand.outputA, 'A')}`;
}

function filterWords(design: Design): string[] {
  const { filter } = design;
  if (filter.before.some((s) => s.kind === 'choke') && !arrangementFacts(design).ownCans) {
    return [filter.before[0]!.kind === 'capacitor' ? 'small first capacitor and choke' : 'choke input'];
  }
  if (filter.after.some((s) => s.kind === 'choke')) return ['C-L-C'];
  return filter.after.some((s) => s.kind === 'resistor') ? ['C-R-C'] : [];
}

/** Whether a design has a plus and a minus rail. */
export function isSplit(design: Design): boolean {
  return arrangementOf(design).rails === 2;
}

/** How many alike windings, or halves of one, the rectifier works on. */
export function windingCount(design: Design): 1 | 2 {
  return arrangementOf(design).ratios.length === 2 ? 2 : 1;
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
