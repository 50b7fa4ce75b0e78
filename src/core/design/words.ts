import { formatNominal } from '@/core/quantity/format';
import { regulatorSize } from '@/core/parts/regulator';
import type { Design } from './design';

const RECTIFIER_WORDS = { 'half-wave': 'half-wave', 'centre-tap': 'centre tap', bridge: 'bridge' } as const;

/** The arrangement in words: '230 V 50 Hz, bridge, 2200 µF, 7815'. */
export function arrangementWords(design: Design): string {
  const { mains, rectifier, reservoir, regulator } = design;
  return [
    `${formatNominal(mains.voltageRms, 'V')} ${formatNominal(mains.frequencyHz, 'Hz')}`,
    RECTIFIER_WORDS[rectifier.kind],
    reservoir.capacitanceF > 0 ? formatNominal(reservoir.capacitanceF, 'F') : 'no reservoir',
    regulator.kind === 'fixed' ? regulatorSize(regulator.size).partNumber(regulator.outputV) : 'unregulated',
  ].join(', ');
}

/** The rating: '15 V, 600 mA'. */
export function ratingWords(design: Design): string {
  return `${formatNominal(design.demand.outputV, 'V')}, ${formatNominal(design.demand.outputA, 'A')}`;
}

/** The winding as its plate reads: '18 V' or '2 × 18 V'. */
export function windingWords(design: Design): string {
  return `${design.rectifier.kind === 'centre-tap' ? '2 × ' : ''}${formatNominal(design.transformer.ratedV, 'V')}`;
}
