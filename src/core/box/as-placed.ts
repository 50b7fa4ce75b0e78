import type { Design, Enclosure } from '@/core/design/design';
import type { Block, Inside, PlacedBlock, Spot } from './block';
import { clearances, type Clearance } from './clearances';
import type { Surroundings } from './rules';

/** What a page asks of a box that was laid out elsewhere. */

export const surroundingsOf = ({ build, mains }: Design): Surroundings => ({
  ring: build.box.core === 'ring',
  frequencyHz: mains.frequencyHz,
});

/** Where the person put what there is; what is there no longer is passed over. */
export function spotsOf({ places }: Enclosure, blocks: readonly Block[]): Map<string, Spot> {
  const known = new Set(blocks.map((b) => b.id));
  return new Map(
    places
      .filter((p) => known.has(p.block))
      .map(({ block, face, xMm, yMm, turned }) => [block, { face, xMm, yMm, turned }]),
  );
}

/** Every distance in a plan that is asked for. */
export const clearancesOf = (design: Design, plan: { placed: readonly PlacedBlock[]; inside: Inside }): Clearance[] =>
  clearances(plan.placed, plan.inside, surroundingsOf(design));
