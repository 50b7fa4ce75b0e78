import { factsOf } from '@/core/parts/arrangement-facts';
import { diodeCount } from '@/core/parts/arrangement';
import { diodeOf } from '@/core/parts/diode';
import type { Design, Heater } from './design';
import { arrangementOf, dcSourceOf, hasDiodes } from './source';

/** Bulbs of a valve rectifier, two anodes about one cathode in each: one number for each place a cathode stands at. */
export function bulbsOf(design: Design): number[] {
  if (!hasDiodes(design) || diodeOf(design.rectifier).technology !== 'valve') return [];
  return factsOf(arrangementOf(design)).cathodes.map((anodes) => Math.ceil(anodes / 2));
}

/** Diodes to buy: each by itself, or bulbs. */
export function rectifierPieces(design: Design): number {
  if (!hasDiodes(design)) return 0;
  const bulbs = bulbsOf(design);
  return bulbs.length > 0 ? bulbs.reduce((a, b) => a + b) : diodeCount(arrangementOf(design));
}

/** Windings that heat the rectifier's own cathodes, one for each place they stand at: between two stand the volts. */
export function rectifierHeaters(design: Design): Heater[] {
  const diode = diodeOf(design.rectifier);
  if (diode.technology !== 'valve') return [];
  return bulbsOf(design).map((bulbs) => ({ ...diode.heater, currentA: bulbs * diode.heater.currentA }));
}

/** Every winding that feeds heaters: the load's, where there is one, and the rectifier's own. */
export function heatersOf(design: Design): Heater[] {
  if (dcSourceOf(design)) return [];
  return [...(design.heater ? [design.heater] : []), ...rectifierHeaters(design)];
}

/** Where the rectifier's heat goes besides the air: a sink of its own, the regulator's, or none. Bulbs take no sink. */
export function rectifierSink(design: Design): 'own' | 'shared' | null {
  if (!hasDiodes(design) || diodeOf(design.rectifier).technology === 'valve') return null;
  return design.heat.rectifierSinkKPerW !== null ? 'own' : design.heat.sharedWithRectifier ? 'shared' : null;
}
