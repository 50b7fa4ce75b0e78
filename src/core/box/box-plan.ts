import type { Design, Enclosure } from '@/core/design/design';
import { outlineMm, stripboard } from '@/core/board/stripboard';
import { netlistOf } from '@/core/netlist/netlist-of';
import type { Block, Inside, PlacedBlock, Spot } from './block';
import { blocksOf } from './blocks';
import { clearances, type Clearance } from './clearances';
import { placeAll } from './place';
import type { Surroundings } from './rules';
import { STANDARD_BOXES } from './standard-boxes';

/** A box with what is in it. */
export interface BoxPlan {
  inside: Inside;
  /** Whether the size is the person's own, or the smallest standard one. */
  chosen: boolean;
  placed: PlacedBlock[];
  /** What found no room, and why, in words. */
  left: { block: Block; why: string }[];
}

/** The smallest standard box that holds everything, and what stands in the way of the next smaller. */
export interface SmallestBox {
  /** Null where not even the largest does. */
  inside: Inside | null;
  smaller: { inside: Inside; why: string } | null;
}

export const surroundingsOf = ({ build, mains }: Design): Surroundings => ({
  ring: build.box.core === 'ring',
  frequencyHz: mains.frequencyHz,
});

/** Lays a design's box out: what the person placed stays, the rest finds its own place. */
export function planBox(design: Design): BoxPlan & { smallest: SmallestBox } {
  const netlist = netlistOf(design);
  const blocks = blocksOf(design, netlist, outlineMm(stripboard(netlist)));
  const around = surroundingsOf(design);
  const smallest = smallestBox(blocks, around);
  const { inside: own } = design.build.box;
  const inside = own ?? smallest.inside ?? STANDARD_BOXES.at(-1)!;
  const found = placeAll(blocks, spotsOf(design.build.box, blocks), inside, around);
  return {
    inside,
    chosen: own !== null,
    placed: found.placed,
    left: found.left.map(({ block, because }) => ({ block, why: whyNot(block, because, inside, blocks) })),
    smallest,
  };
}

/** Where the person put what there is; what is there no longer is passed over. */
export function spotsOf({ places }: Enclosure, blocks: readonly Block[]): Map<string, Spot> {
  const known = new Set(blocks.map((b) => b.id));
  return new Map(
    places
      .filter((p) => known.has(p.block))
      .map(({ block, face, xMm, yMm, turned }) => [block, { face, xMm, yMm, turned }]),
  );
}

/** The least standard box everything has room in, with all distances kept. */
export function smallestBox(blocks: readonly Block[], around: Surroundings): SmallestBox {
  let smaller: SmallestBox['smaller'] = null;
  for (const inside of STANDARD_BOXES) {
    const high = tooHigh(blocks, inside);
    const { left } = high ? { left: [{ block: high, because: null }] } : placeAll(blocks, new Map(), inside, around);
    if (left.length === 0) return { inside, smaller };
    const { block, because } = left[0]!;
    smaller = { inside, why: whyNot(block, because, inside, blocks) };
  }
  return { inside: null, smaller };
}

const tooHigh = (blocks: readonly Block[], { hMm }: Inside) =>
  blocks.find((b) => b.face === 'floor' && b.standOffMm + b.size.hMm + (b.fins ? 25 : 5) > hMm);

/** Why a block has no room, in words. */
function whyNot(block: Block, because: Clearance | null, { wMm, dMm, hMm }: Inside, blocks: readonly Block[]): string {
  const { size, standOffMm } = block;
  const high = standOffMm + size.hMm + (block.fins ? 25 : 5);
  if (block.face === 'floor' && high > hMm)
    return `${block.label} (${block.what}) wants ${high} mm of height with what has to stay free above it, and there are ${hMm} mm.`;
  if (size.wMm > wMm || (block.face === 'floor' ? size.dMm > dMm : size.hMm > hMm))
    if (size.dMm > wMm || size.wMm > dMm || block.face !== 'floor')
      return `${block.label} (${block.what}) alone is larger than its wall: ${size.wMm} × ${block.face === 'floor' ? size.dMm : size.hMm} mm.`;
  const other = because && blocks.find((b) => b.id === because.blocks.find((id) => id !== block.id));
  return because
    ? `${block.label} (${block.what}) finds no place: ${because.name.toLowerCase()}${other ? ` at ${other.label}` : ''}, ${because.wantsMm} mm, is short by ${Math.ceil(-because.leftMm)} mm where it comes nearest.`
    : `${block.label} (${block.what}) finds no place.`;
}

/** Every distance in a plan that is asked for. */
export const clearancesOf = (design: Design, plan: Pick<BoxPlan, 'placed' | 'inside'>): Clearance[] =>
  clearances(plan.placed, plan.inside, surroundingsOf(design));
