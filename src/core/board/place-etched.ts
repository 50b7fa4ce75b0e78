import type { PadAt } from './branches';
import { heatGapMm } from './heat-gaps';
import { GRID_MM, MAINS_MM, POLES_MM, type Heat, type Place, type Rect, type Turn } from './etched';
import { courtyard, turned, type Footprint } from './pad-footprint';

/** Left and right of the parts stay free for screws and wires, mm. */
export const SIDE_STRIP_MM = 6 * GRID_MM;
/** Above and below them, mm. */
export const EDGE_STRIP_MM = 3 * GRID_MM;

/** What is to be placed. */
export interface ToPlace {
  footprint: Footprint;
  /** Wires end at an edge: where they come from on the left, where they go to on the right, others at any. */
  edge: 'left' | 'right' | 'any' | null;
  /** What heat it gives, or minds: on a sink, a resistor the load flows through, a can, what sets the output. */
  heat: Heat | null;
  /** Whether the mains is on it. */
  mains: boolean;
  /** Where a hand has put it. */
  fixed: Place | null;
}

/** Of a board so much is covered by parts. */
const COVERED = 0.5;
/** What a crossing of two connections costs, mm of track; what a millimetre of board to the right does. */
const CROSSING_MM = 14;
const RIGHT = 0.25;
/** What a millimetre costs by which a board is taller than wide. */
const TALL = 0.5;
/** How far back to the left a part is still tried at first, and how far on where there is no room, mm. */
const BACK_MM = 30;
const FAR_MM = 150;
/** Rounds in which every part is moved where it is better off. */
const ROUNDS = 4;
/** How far beyond what it is joined to a part is tried, mm. */
const NEAR_MM = 10;
/** Of the places a part could take so many are looked at closely. */
const CLOSELY = 10;
/** Sums of the same lengths in another order differ by less, mm. */
const ROUNDING_MM = 1e-9;

/** A wire's pad, mm. */
const WIRE_MM = 3;
/** A screw's head takes so much of a corner, with what copper keeps from it, mm. */
export const cornerMm = ({ mains }: Pick<ToPlace, 'mains'>, apartMm: number): number =>
  7.5 + (mains ? MAINS_MM : apartMm);

/** Between bodies, and between copper of two nets, mm. */
export interface Apart {
  gapMm: number;
  apartMm: number;
}

interface Spot extends Place {
  court: Rect;
  pads: readonly (readonly [x: number, y: number])[];
}

const TURNS: readonly Turn[] = [0, 1, 2, 3];

/** Places parts in their order from left to right, near what they are joined to and without crossing connections; the best of several heights. */
export function* placing(
  parts: readonly ToPlace[],
  branches: readonly { pads: readonly PadAt[] }[],
  { gapMm, apartMm }: Apart,
): Generator<void, Place[] | null> {
  const areaMm2 = parts.reduce((sum, { footprint }) => {
    const c = courtyard(footprint);
    return sum + (c.x1 - c.x0 + gapMm) * (c.y1 - c.y0 + gapMm);
  }, 0);
  const tallest = Math.max(
    ...parts.map(({ footprint }) => {
      const c = courtyard(footprint);
      return Math.min(c.y1 - c.y0, c.x1 - c.x0);
    }),
  );
  const low = parts.filter((p) => p.fixed).map((p) => spotAt(p.footprint, p.fixed!).court.y1);
  const up = (mm: number) => Math.ceil(mm / GRID_MM) * GRID_MM;
  const wireMm = up(WIRE_MM + gapMm);
  const mains = parts.some((p) => p.mains);
  const beside = (edge: ToPlace['edge']) =>
    parts
      .filter((p) => p.edge === edge)
      .reduce((sum, p) => sum + wireMm + (p.mains ? MAINS_MM : 0), 2 * cornerMm({ mains }, apartMm));
  const least = Math.max(tallest + 2 * EDGE_STRIP_MM, beside('left'), beside('right'), ...low);
  const about = Math.sqrt(areaMm2 / COVERED / 1.4);
  // First in one go at several heights, then the best of them with every part moved where it is better off.
  const between = { gapMm, apartMm };
  let best = null as { hMm: number; cost: number } | null;
  for (const share of [0.85, 1.1, 1.4]) {
    const hMm = up(Math.max(least, share * about));
    if (best?.hMm === hMm) continue;
    const next: { cost: number } | null = yield* placed(parts, branches, hMm, between, 0);
    if (next && next.cost < (best?.cost ?? Infinity)) best = { hMm, cost: next.cost };
  }
  let found = best && (yield* placed(parts, branches, best.hMm, between, ROUNDS));
  // Wires beside each other that left no room for the last one: a taller board.
  for (const taller of [1.4, 2, 3])
    found ??= yield* placed(parts, branches, up(taller * Math.max(least, 1.4 * about)), between, ROUNDS);
  return found && found.spots.map(({ xMm, yMm, turn }) => ({ xMm, yMm, turn }));
}

function* placed(
  parts: readonly ToPlace[],
  branches: readonly { pads: readonly PadAt[] }[],
  hMm: number,
  { gapMm, apartMm }: Apart,
  rounds: number,
): Generator<void, { spots: Spot[]; cost: number } | null> {
  const spots: (Spot | null)[] = parts.map((p) => (p.fixed ? spotAt(p.footprint, p.fixed) : null));
  const joined = parts.map((p, part) =>
    p.footprint.pads.map((_, pad) => branches.filter((b) => b.pads.some((at) => at.part === part && at.pad === pad))),
  );
  /** For each pad of a part and each branch it is on: where the branch's other pads are. */
  const goals = (part: number): Goal[] =>
    joined[part]!.flatMap((on, pad) =>
      on.flatMap((branch) => {
        const at = branch.pads.flatMap((other) => {
          const there = other.part === part ? null : spots[other.part];
          return there ? [there.pads[other.pad]!] : [];
        });
        return at.length > 0 ? [{ pad, at }] : [];
      }),
    );
  const pull = (part: number, spot: Spot) =>
    goals(part).reduce((sum, { pad, at }) => sum + nearest(at, spot.pads[pad]![0], spot.pads[pad]![1]), 0);
  /** What keeps a part's own court away, as far as it does. */
  const inTheWay = (part: number): Rect[] =>
    spots.flatMap((other, n) => {
      if (!other || n === part) return [];
      const heat = heatGapMm(parts[part]!.heat, parts[n]!.heat);
      const [a, b] = [parts[part]!.mains, parts[n]!.mains];
      const gap = Math.max(gapMm, heat, a !== b ? MAINS_MM + 0.5 : a ? POLES_MM + 0.5 : 0);
      const { x0, y0, x1, y1 } = other.court;
      return [{ x0: x0 - gap, y0: y0 - gap, x1: x1 + gap, y1: y1 + gap }];
    });
  /** Every place a part can take between two lines, cheapest first. */
  const places = (part: number, from: number, to: number, most: number): Spot[] => {
    const { footprint, edge } = parts[part]!;
    const found: { place: Place; cost: number }[] = [];
    const dearest = () => (found.length === most ? found[most - 1]!.cost : Infinity);
    const corner = cornerMm(parts[part]!, apartMm);
    const towards = goals(part);
    const blocks = inTheWay(part);
    const taken = new Uint8Array(Math.ceil(hMm / GRID_MM) + 1);
    for (const turn of edge ? [0 as const] : TURNS) {
      const lying = turned(footprint, turn);
      const own = courtyard(lying);
      const beyond = (axis: 0 | 1, mm: number) => beyondAlong(towards, lying.pads, axis, mm);
      const upAndDown = Float64Array.from(taken, (_, row) => beyond(1, row * GRID_MM) - ROUNDING_MM);
      const leastUpAndDown = upAndDown.reduce((a, b) => Math.min(a, b), Infinity);
      const [x0, x1] =
        edge === 'left' ? [3, 3] : edge === 'right' ? [to / GRID_MM, to / GRID_MM] : [from / GRID_MM, to / GRID_MM];
      for (let column = Math.ceil(x0); column <= x1; column++) {
        // Nothing in this column costs less than to be so far right and so far along from what it is joined to.
        const least = RIGHT * (own.x1 + column * GRID_MM) + beyond(0, column * GRID_MM);
        if (least + leastUpAndDown >= dearest()) continue;
        taken.fill(0);
        for (const block of blocks) {
          const [left, right] = [own.x0 + column * GRID_MM, own.x1 + column * GRID_MM];
          if (left >= block.x1 || right <= block.x0) continue;
          const first = Math.max(0, Math.floor((block.y0 - own.y1) / GRID_MM + 1));
          for (let row = first; row * GRID_MM + own.y0 < block.y1 && row < taken.length; row++) taken[row] = 1;
        }
        for (let row = 1; row * GRID_MM <= hMm; row++) {
          const below = dearest();
          if (taken[row] === 1 || least + upAndDown[row]! >= below) continue;
          const [xMm, yMm] = [column * GRID_MM, row * GRID_MM];
          const [top, bottom, left, right] = [own.y0 + yMm, own.y1 + yMm, own.x0 + xMm, own.x1 + xMm];
          if (edge) {
            // Between the screws in the strips beside, or along the other edges.
            const beside = edge !== 'any';
            const along = row === 2 || row === Math.floor(hMm / GRID_MM) - 2;
            if (beside ? top < corner || bottom > hMm - corner : !along || left < corner) continue;
          } else if (top < EDGE_STRIP_MM - 1 || bottom > hMm - EDGE_STRIP_MM + 1 || left < SIDE_STRIP_MM) continue;
          // High volts keep off the screws by more than the strip beside.
          else if (left < corner - 1 && (top < corner - 1 || bottom > hMm - corner + 1)) continue;
          let cost = RIGHT * right;
          for (const { pad, at } of towards) {
            if (cost >= below) break;
            const { xMm: px, yMm: py } = lying.pads[pad]!;
            cost += nearest(at, px + xMm, py + yMm);
          }
          if (cost >= below) continue;
          const after = found.findIndex((f) => f.cost > cost);
          found.splice(after < 0 ? found.length : after, 0, { place: { xMm, yMm, turn }, cost });
          if (found.length > most) found.pop();
        }
      }
    }
    return found.map((f) => spotAt(footprint, f.place));
  };
  /** What a spot of a part costs, everything else where it is. */
  const costAt = (part: number) => {
    const own: [branch: { pads: readonly PadAt[] }, n: number][] = [];
    const fixed: Edge[] = [];
    for (const [n, b] of branches.entries())
      if (b.pads.some((at) => at.part === part)) own.push([b, n]);
      else fixed.push(...edgesOf(b, n, spots));
    const there = [...spots];
    const towards = goals(part);
    return (spot: Spot): number => {
      const lengths = towards.reduce(
        (sum, { pad, at }) => sum + nearest(at, spot.pads[pad]![0], spot.pads[pad]![1]),
        0,
      );
      there[part] = spot;
      const edges = own.flatMap(([b, n]) => edgesOf(b, n, there));
      return (crossings(edges, fixed) + crossings(edges)) * CROSSING_MM + lengths + RIGHT * spot.court.x1;
    };
  };
  let frontier = Math.max(SIDE_STRIP_MM, ...spots.flatMap((s) => (s ? [s.court.x1] : [])));
  const last: number[] = [];
  for (const [n, p] of parts.entries()) {
    if (spots[n]) continue;
    if (p.edge === 'right') {
      last.push(n);
      continue;
    }
    yield;
    const wide = courtyard(p.footprint);
    const reach = Math.max(wide.x1 - wide.x0, wide.y1 - wide.y0);
    const found = places(n, Math.max(SIDE_STRIP_MM, frontier - BACK_MM), frontier + reach + 6, CLOSELY);
    // An edge that is full here is free further on.
    const spot = best(found.length > 0 ? found : places(n, SIDE_STRIP_MM, frontier + FAR_MM, CLOSELY), costAt(n));
    if (!spot) continue;
    spots[n] = spot;
    if (!p.edge) frontier = Math.max(frontier, spot.court.x1 + gapMm);
  }
  const width = () =>
    Math.max(...spots.flatMap((s, n) => (s && parts[n]!.edge !== 'right' ? [s.court.x1] : [SIDE_STRIP_MM])));
  const settleRight = () => {
    for (const n of last) spots[n] = null;
    const x = Math.ceil((width() + SIDE_STRIP_MM - 3 * GRID_MM + 1) / GRID_MM) * GRID_MM;
    for (const n of last) {
      const found = places(n, x, x, CLOSELY);
      spots[n] = best(found, costAt(n));
    }
  };
  settleRight();
  if (spots.some((s) => s === null)) return null;
  // Every part once more, among all the others.
  for (let round = 0; round < rounds; round++) {
    let moved = false;
    for (const [n, p] of parts.entries()) {
      if (p.fixed || p.edge === 'right' || p.edge === 'left') continue;
      yield;
      const now = spots[n]!;
      const cost = costAt(n);
      // Near what it is joined to.
      const there = joined[n]!.flat().flatMap((b) =>
        b.pads.flatMap((at) => (at.part === n ? [] : [spots[at.part]!.pads[at.pad]![0]])),
      );
      const [from, to] = [Math.min(...there, now.court.x0) - NEAR_MM, Math.max(...there, now.court.x1) + NEAR_MM];
      const found = places(n, Math.max(SIDE_STRIP_MM, from), Math.min(width(), to), CLOSELY);
      const better = best(found, cost);
      if (better && cost(better) < cost(now) - 0.5) {
        spots[n] = better;
        moved = true;
      }
    }
    settleRight();
    if (spots.some((s) => s === null)) return null;
    if (!moved) break;
  }
  const all = spots as Spot[];
  const lengths = all.reduce((sum, s, n) => sum + pull(n, s), 0);
  return {
    spots: all,
    cost:
      crossings(branches.flatMap((b, n) => edgesOf(b, n, all))) * CROSSING_MM +
      lengths +
      0.02 * width() * hMm +
      TALL * Math.max(0, hMm - width()),
  };
}

/** A pad and where it is drawn to. */
interface Goal {
  pad: number;
  at: readonly (readonly [x: number, y: number])[];
}

function nearest(at: Goal['at'], x: number, y: number): number {
  let least = Infinity;
  for (const [ox, oy] of at) least = Math.min(least, Math.abs(ox - x) + Math.abs(oy - y));
  return least;
}

/** How far from what its pads are drawn to a part is at least along one axis, whatever it is along the other, mm. */
function beyondAlong(towards: readonly Goal[], pads: Footprint['pads'], axis: 0 | 1, mm: number): number {
  let sum = 0;
  for (const { pad, at } of towards) {
    const own = mm + (axis === 0 ? pads[pad]!.xMm : pads[pad]!.yMm);
    let least = Infinity;
    for (const goal of at) least = Math.min(least, Math.abs(goal[axis] - own));
    sum += least;
  }
  return sum;
}

function best<T>(all: readonly T[], cost: (one: T) => number): T | null {
  let found: { one: T; cost: number } | null = null;
  for (const one of all) {
    const c = cost(one);
    if (!found || c < found.cost) found = { one, cost: c };
  }
  return found?.one ?? null;
}

function spotAt(footprint: Footprint, place: Place): Spot {
  const lying = turned(footprint, place.turn);
  const own = courtyard(lying);
  const { xMm, yMm } = place;
  return {
    ...place,
    court: { x0: own.x0 + xMm, y0: own.y0 + yMm, x1: own.x1 + xMm, y1: own.y1 + yMm },
    pads: lying.pads.map((p) => [p.xMm + xMm, p.yMm + yMm] as const),
  };
}

/** The shortest tree that joins a branch's pads, as far as they are placed. */
function edgesOf({ pads }: { pads: readonly PadAt[] }, branch: number, spots: readonly (Spot | null)[]): Edge[] {
  const edges: Edge[] = [];
  const at = pads.flatMap((p) => {
    const spot = spots[p.part];
    return spot ? [spot.pads[p.pad]!] : [];
  });
  // For each pad that is not in the tree yet: the nearest that is, and how far, squared.
  const from = new Int32Array(at.length);
  const far = new Float64Array(at.length).fill(Infinity);
  let last = 0;
  for (let n = 1; n < at.length; n++) {
    far[last] = -1;
    const [x, y] = at[last]!;
    let next = -1;
    for (let to = 0; to < at.length; to++) {
      if (far[to]! < 0) continue;
      const [dx, dy] = [at[to]![0] - x, at[to]![1] - y];
      const apart = dx * dx + dy * dy;
      if (apart < far[to]!) {
        far[to] = apart;
        from[to] = last;
      }
      if (next < 0 || far[to]! < far[next]!) next = to;
    }
    const [a, b] = [at[from[next]!]!, at[next]!];
    edges.push([branch, a[0], a[1], b[0], b[1]]);
    last = next;
  }
  return edges;
}

/** How often connections of different branches cross: some with others, or with each other. */
function crossings(edges: readonly Edge[], others: readonly Edge[] | null = null): number {
  let count = 0;
  for (let n = 0; n < edges.length; n++) {
    const against = others ?? edges;
    for (let m = others ? 0 : n + 1; m < against.length; m++) if (cross(edges[n]!, against[m]!)) count++;
  }
  return count;
}

type Edge = readonly [branch: number, x1: number, y1: number, x2: number, y2: number];

function cross(one: Edge, other: Edge): boolean {
  if (one[0] === other[0]) return false;
  const [ax, ay, bx, by] = [one[1], one[2], one[3], one[4]];
  const [cx, cy, dx, dy] = [other[1], other[2], other[3], other[4]];
  // On which side of the one the ends of the other are, and the other way round.
  const [abx, aby] = [bx - ax, by - ay];
  const c = Math.sign(abx * (cy - ay) - aby * (cx - ax));
  if (c === Math.sign(abx * (dy - ay) - aby * (dx - ax))) return false;
  const [cdx, cdy] = [dx - cx, dy - cy];
  return Math.sign(cdx * (ay - cy) - cdy * (ax - cx)) !== Math.sign(cdx * (by - cy) - cdy * (bx - cx));
}
