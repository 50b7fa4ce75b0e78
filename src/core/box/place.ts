import type { BoxFace } from '@/core/design/design';
import type { Block, Inside, PlacedBlock, Spot } from './block';
import {
  keeps,
  leftBetween,
  pairClearances,
  standing,
  wallClearances,
  wantedBetween,
  type Clearance,
  type Wanted,
} from './clearances';
import { WALL_RULES, type Standing, type Surroundings } from './rules';

/** A box with everything in it that found room. */
export interface Placing {
  placed: PlacedBlock[];
  /** What found none, and what it came nearest to breaking. */
  left: { block: Block; because: Clearance | null }[];
}

/** Places are tried so many millimetres apart, and no finer than so many to a side. */
const STEP_MM = 2;
const STEPS = 48;

/** Which corner the mains come in at. */
type Side = 'left' | 'right';

/**
 * Puts every block somewhere where all rules hold: those put by hand first, as they are, then panels, then the floor from the
 * iron to the small, each as near to what it is wired to as there is room.
 */
export function placeAll(
  blocks: readonly Block[],
  byHand: ReadonlyMap<string, Spot>,
  inside: Inside,
  around: Surroundings,
): Placing {
  const tries = (['right', 'left'] as const).flatMap((side) =>
    ORDERS.map((order) => () => placeInOrder(blocks, byHand, inside, around, side, order)),
  );
  let best: Placing | null = null;
  for (const attempt of tries) {
    const found = attempt();
    if (!best || found.left.length < best.left.length) best = found;
    if (best.left.length === 0) break;
  }
  return best!;
}

/** In which order the floor is filled: the iron first always, then what is largest, or what is highest. */
const ORDERS: readonly ((b: Block) => number)[] = [
  (b) => (b.fieldVA !== null ? 1e9 : 0) + b.size.wMm * b.size.dMm,
  (b) => (b.fieldVA !== null ? 1e9 : 0) + (b.can ? 0 : 1e6) + b.size.hMm,
];

function placeInOrder(
  blocks: readonly Block[],
  byHand: ReadonlyMap<string, Spot>,
  inside: Inside,
  around: Surroundings,
  side: Side,
  order: (b: Block) => number,
): Placing {
  const placed: PlacedBlock[] = [];
  const stood: Standing[] = [];
  const left: Placing['left'] = [];
  const roomless = new Map<string, Clearance | null>();
  const put = (block: Block, spot: Spot, hand: boolean) => {
    placed.push({ block, spot, byHand: hand });
    stood.push(standing({ block, spot }, inside));
  };
  for (const block of blocks) {
    const spot = byHand.get(block.id);
    if (spot) put(block, spot, true);
  }
  const free = blocks.filter((b) => !byHand.has(b.id));
  const panels = free.filter((b) => b.face !== 'floor').sort((a, b) => area(b) - area(a));
  const floor = free.filter((b) => b.face === 'floor').sort((a, b) => order(b) - order(a));
  for (const block of [
    ...panels.filter((b) => b.carries === 'mains'),
    ...panels.filter((b) => b.carries !== 'mains'),
    ...floor,
  ]) {
    // Of several alike, where one found no room no other does.
    const like = JSON.stringify([block.size, block.face, block.carries, block.hot, block.can, block.fins]);
    const before = roomless.get(like);
    if (before !== undefined) {
      left.push({ block, because: before });
      continue;
    }
    const cost = costOf(block, placed, inside, side);
    const spots = spotsFor(block, inside)
      .map((spot) => ({ spot, cost: cost(spot) }))
      .sort((a, b) => a.cost - b.cost);
    const against = stood.map((other) => ({ other, wanted: wantedBetween(block, other.block, around) }));
    let nearest: Broken | null = null;
    const found = spots.find(({ spot }) => {
      const broken = firstBroken(standing({ block, spot }, inside), against, inside);
      if (broken && (!nearest || broken.shortMm < nearest.shortMm)) nearest = broken;
      return !broken;
    });
    if (found) put(block, found.spot, false);
    else {
      const because = (nearest as Broken | null)?.of() ?? null;
      roomless.set(like, because);
      left.push({ block, because });
    }
  }
  return { placed, left };
}

const area = ({ size }: Block) => size.wMm * size.hMm;

/** What a place breaks first, and by how much; nothing where it keeps everything. */
interface Broken {
  shortMm: number;
  of(): Clearance;
}

function firstBroken(
  one: Standing,
  against: readonly { other: Standing; wanted: readonly Wanted[] }[],
  inside: Inside,
): Broken | null {
  for (const rule of WALL_RULES) {
    const wantsMm = rule.wants(one);
    const leftMm = wantsMm === null ? Infinity : rule.has(one, inside) - wantsMm;
    if (!keeps(leftMm))
      return { shortMm: -leftMm, of: () => wallClearances(one, inside).find((c) => c.rule === rule.id)! };
  }
  for (const { other, wanted } of against)
    for (const w of wanted) {
      const leftMm = leftBetween(w, one, other);
      if (!keeps(leftMm)) return { shortMm: -leftMm, of: () => pairClearances(one, other, [w])[0]! };
    }
  return null;
}

/** Everywhere a block could be on its wall; none where it is larger than the box. */
function spotsFor({ face, size, round, outside }: Block, { wMm, dMm, hMm }: Inside): Spot[] {
  const spots: Spot[] = [];
  const turns = face === 'floor' && !round && size.wMm !== size.dMm ? [false, true] : [false];
  for (const turned of turns) {
    const [w, d] = face !== 'floor' ? [size.wMm, size.hMm] : turned ? [size.dMm, size.wMm] : [size.wMm, size.dMm];
    for (const xMm of middles(w, wMm))
      for (const yMm of middles(d, face === 'floor' ? dMm : hMm, outside)) spots.push({ face, xMm, yMm, turned });
  }
  return spots;
}

/** Middles of something so wide between two walls, from one to the other. */
function middles(size: number, between: number, onlyMiddle = false): number[] {
  const free = between - size;
  if (free < 0) return [];
  if (onlyMiddle) return [between / 2];
  const count = Math.min(STEPS, Math.floor(free / STEP_MM));
  return Array.from(
    { length: count + 1 },
    (_, n) => Math.round((size / 2 + (count ? (free * n) / count : free / 2)) * 2) / 2,
  );
}

/** What a place costs: way to what it is wired to, and to the corner it belongs to. */
function costOf(block: Block, placed: readonly PlacedBlock[], inside: Inside, side: Side): (spot: Spot) => number {
  const near = placed.filter((p) => block.near.includes(p.block.id) || p.block.near.includes(block.id));
  const home = homeOf(block, inside, side);
  return (spot) => {
    const at = plan(spot, inside);
    const wires = near.reduce((sum, p) => {
      const there = plan(p.spot, inside);
      return sum + Math.hypot(at.x - there.x, at.y - there.y);
    }, 0);
    const high = spot.face === 'floor' ? 0 : Math.abs(spot.yMm - inside.hMm / 2);
    return wires + HOMEWARD * Math.hypot(at.x - home.x, at.y - home.y) + 2 * high;
  };
}

/** Way home counts so much against way to what a block is wired to. */
const HOMEWARD = 0.6;

const plan = ({ face, xMm, yMm }: Spot, { dMm }: Inside) => ({ x: xMm, y: wallY(face, dMm) ?? yMm });
const wallY = (face: BoxFace, dMm: number): number | null => (face === 'front' ? 0 : face === 'rear' ? dMm : null);

/** Where a block belongs: mains and iron in the mains' corner at the rear, outputs at the other end of the front. */
function homeOf({ carries, face }: Block, { wMm, dMm }: Inside, side: Side): { x: number; y: number } {
  const mainsX = side === 'left' ? 0 : wMm;
  if (carries === 'mains' || carries === 'both') return { x: mainsX, y: face === 'front' ? 0 : dMm };
  if (carries === 'input') return { x: wMm - mainsX, y: 0 };
  return { x: wMm - mainsX, y: face === 'rear' ? dMm : 0 };
}
