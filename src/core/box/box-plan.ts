import type { Design } from '@/core/design/design';
import { boardOf, outlineOf } from '@/core/board/board-of';
import { netlistOf } from '@/core/netlist/netlist-of';
import type { Block, Inside, PlacedBlock } from './block';
import { spotsOf, surroundingsOf } from './as-placed';
import { blocksOf } from './blocks';
import type { Clearance } from './clearances';
import { placeAll } from './place';
import { overheadMm, type Surroundings } from './rules';
import { STANDARD_BOXES } from './standard-boxes';

/** The smallest standard box that holds everything, and what stands in the way of the next smaller. */
export interface SmallestBox {
  /** Null where not even the largest does. */
  inside: Inside | null;
  smaller: { inside: Inside; why: string } | null;
}

/** A box with what is in it: of the person's own size, or the smallest standard one. */
export interface BoxPlan {
  inside: Inside;
  placed: PlacedBlock[];
  /** What found no room, and why, in words. */
  left: { block: Block; why: string }[];
  smallest: SmallestBox;
}

/**
 * Lays a design's box out: what the person placed stays, the rest finds its own place.
 * @param layOut and `size`: what lays its board out and what finds its smallest box; who asks often keeps their answers
 */
export function planBox(design: Design, layOut = boardOf, size = smallestBox): BoxPlan {
  const netlist = netlistOf(design);
  const blocks = blocksOf(design, netlist, outlineOf(layOut(design, netlist)));
  const around = surroundingsOf(design);
  const smallest = size(blocks, around);
  const inside = design.build.box.inside ?? smallest.inside ?? STANDARD_BOXES.at(-1)!;
  const { placed, left } = placeAll(blocks, spotsOf(design.build.box, blocks), inside, around);
  return {
    inside,
    placed,
    left: left.map(({ block, because }) => ({ block, why: whyNot(block, because, inside, blocks) })),
    smallest,
  };
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

/** The height a block on the floor takes with what has to stay free above it, mm. */
const highMm = ({ standOffMm, size, fins }: Block) => standOffMm + size.hMm + overheadMm(fins);

const tooHigh = (blocks: readonly Block[], { hMm }: Inside) =>
  blocks.find((b) => b.face === 'floor' && highMm(b) > hMm);

/** Why a block has no room, in words. */
function whyNot(block: Block, because: Clearance | null, { wMm, dMm, hMm }: Inside, blocks: readonly Block[]): string {
  const { size } = block;
  if (block.face === 'floor' && highMm(block) > hMm)
    return `${block.label} (${block.what}) wants ${highMm(block)} mm of height with what has to stay free above it, and there are ${hMm} mm.`;
  if (size.wMm > wMm || (block.face === 'floor' ? size.dMm > dMm : size.hMm > hMm))
    if (size.dMm > wMm || size.wMm > dMm || block.face !== 'floor')
      return `${block.label} (${block.what}) alone is larger than its wall: ${size.wMm} × ${block.face === 'floor' ? size.dMm : size.hMm} mm.`;
  const other = because && blocks.find((b) => b.id === because.blocks.find((id) => id !== block.id));
  return because
    ? `${block.label} (${block.what}) finds no place: ${because.name.toLowerCase()}${other ? ` at ${other.label}` : ''}, ${because.wantsMm} mm, is short by ${Math.ceil(-because.leftMm)} mm where it comes nearest.`
    : `${block.label} (${block.what}) finds no place.`;
}
