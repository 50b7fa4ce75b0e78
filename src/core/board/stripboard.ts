import { offBoard } from '@/core/build/off-board';
import type { Netlist, NetPart } from '@/core/netlist/netlist';
import type { StripPlace } from '@/core/design/design';
import type { Hole, OnStrips, Stripboard } from './on-strips';
import { lyings, PITCH_MM, type Lying } from './strip-footprint';
import { BODY, cutsOf, isFree, LEG, linksOf, WIDEST, type Soldered, type Taken } from './strip-links';

/** Boards of so many strips are tried. */
const STRIPS = [12, 14, 16, 18, 20, 24] as const;
/** Free holes between two parts are tried from close to wide. */
const GAPS = [1, 2, 3] as const;
/** What a place costs: a strip cut, a link, a leg nothing can be linked to, a hole to the right, a strip from the middle. */
const COST = { cut: 1, link: 4, shut: 6, hole: 0.6, strip: 0.02 } as const;
/** Parts and wires a board of strips is laid out for. */
const MOST_PARTS = 80;
/** Strips that are free below what was put somewhere by hand. */
const ROOM_BELOW = 3;
/** How far back to the left a part is still tried, holes. */
const BACK = 10;

/** A part that is soldered into a board, or a wire that ends on it: then with the one pin it comes from. */
export interface BoardPart {
  part: NetPart;
  wire: boolean;
  /** The part a wire comes from; of any other itself. */
  of: string;
}

/** Everything of a netlist that is soldered into a board, in the order of the street, with a pin for each wire that leaves it. */
export function boardParts(netlist: Netlist): BoardPart[] {
  const on = netlist.parts.filter((p) => !offBoard(p));
  const nets = new Set(on.flatMap((p) => p.pins.map((pin) => pin.net)));
  const wires = netlist.parts.filter(offBoard).flatMap((p) =>
    p.pins
      .filter((pin) => nets.has(pin.net))
      .map((pin) => ({
        part: { ...p, ref: `${p.ref} ${pin.name}`, pins: [{ name: pin.name, net: pin.net }], value: pin.net },
        wire: true,
        of: p.ref,
      })),
  );
  const sources = wires.filter((w) => w.part.block === 'transformer' || w.part.block === 'mains');
  const others = wires.filter((w) => !sources.includes(w));
  return [...sources, ...on.map((part) => ({ part, wire: false, of: part.ref })), ...others];
}

/** By which a part or a wire of a board is found again when references move. */
export const boardKey = ({ part, wire }: Pick<BoardPart, 'part' | 'wire'>): string =>
  wire ? `${part.key} ${part.pins[0]!.name}` : part.key;

/**
 * Lays a netlist out on a board of strips: the best of several, by links, cuts and size.
 * @param byHand where parts were put: each lies there, or in the nearest holes it can be soldered into, the last one last
 */
export function stripboard(netlist: Netlist, byHand: readonly StripPlace[] = []): Stripboard {
  const all = boardParts(netlist);
  const put = byHand.flatMap((place) => {
    const one = all.find((p) => boardKey(p) === place.part);
    return one ? [{ ...one, place }] : [];
  });
  const parts = [...put, ...all.filter((p) => !put.some((q) => q.part === p.part)).map((p) => ({ ...p, place: null }))];
  if (parts.length > MOST_PARTS)
    return {
      strips: 0,
      holes: 0,
      parts: [],
      cuts: [],
      links: [],
      left: parts.map(({ part }) => ({
        ref: part.ref,
        why: `one of ${parts.length}, more than a board of strips is laid out for`,
      })),
    };
  let best: { board: Stripboard; cost: number } | null = null;
  const lowest = Math.max(0, ...put.flatMap(({ place: p }) => [p.strip, p.strip + p.down])) + 1;
  const heights = put.length > 0 ? [Math.max(lowest + ROOM_BELOW, STRIPS[0])] : STRIPS;
  for (const strips of heights)
    for (const gap of GAPS) {
      const board = layOut(parts, strips, gap);
      const cost =
        1000 * board.left.length +
        COST.link * board.links.length +
        COST.cut * board.cuts.length +
        0.05 * board.strips * board.holes;
      if (!best || cost < best.cost) best = { board, cost };
    }
  return best!.board;
}

/** A board's edges, mm, along its strips and across them; null where nothing, or not everything, is on it. */
export function outlineMm({ strips, holes, parts, left }: Stripboard): { wMm: number; dMm: number } | null {
  if (parts.length === 0 || left.length > 0) return null;
  return { wMm: Math.round(holes * PITCH_MM), dMm: Math.round(strips * PITCH_MM) };
}

function layOut(parts: readonly (BoardPart & { place: StripPlace | null })[], strips: number, gap: number): Stripboard {
  const placed: OnStrips[] = [];
  const left: Stripboard['left'] = [];
  /** Legs on each strip, from the left. */
  const rows: Soldered[][] = Array.from({ length: strips }, () => []);
  const taken: Taken = { strips, holes: new Uint8Array(strips * WIDEST) };
  const known = new Set<string>();
  let frontier = 0;
  /** Where wires that go on to the outputs leave: behind everything else. */
  let edge: number | null = null;
  for (const { part, wire, of, place } of parts) {
    if (!place && wire && placed.some((p) => !p.wire)) edge ??= frontier;
    const lie = place ? lyings(part).filter((l) => downOf(l) === place.down) : [];
    const [from, to] = place ? [1, WIDEST - 1] : [Math.max(1, edge ?? frontier - BACK), (edge ?? frontier) + 4];
    let best: { lying: Lying; strip: number; hole: number; cost: number } | null = null;
    for (const lying of lie.length > 0 ? lie : lyings(part)) {
      const over = [...lying.body.strips, ...lying.legs.map((l) => l.strip)];
      const [top, bottom] = [Math.min(...over), Math.max(...over)];
      for (let strip = Math.max(0, -top); strip + bottom < strips; strip++)
        for (let hole = from; hole <= to; hole++) {
          const far = place ? farFrom(place, lying, strip, hole) : 0;
          if (best && place && far >= best.cost) continue;
          const below = place ? Infinity : (best?.cost ?? Infinity);
          const costs = costAt(lying, strip, hole, { rows, taken, known, gap: place ? 1 : gap }, below);
          const cost = place && costs < Infinity ? far : costs;
          if (cost < (best?.cost ?? Infinity)) best = { lying, strip, hole, cost };
        }
    }
    if (!best) {
      left.push({ ref: part.ref, why: `finds no place on ${strips} strips` });
      continue;
    }
    const { lying, strip, hole } = best;
    const legs = lying.legs.map((l) => ({ ...l, at: { strip: strip + l.strip, hole: hole + l.hole } }));
    const body = {
      strips: lying.body.strips.map((s) => s + strip) as [number, number],
      holes: lying.body.holes.map((h) => h + hole) as [number, number],
    };
    placed.push({
      ref: part.ref,
      of,
      key: boardKey({ part, wire }),
      wire,
      polarised: !wire && part.kind === 'electrolytic',
      legs,
      body,
    });
    for (const { at, net } of legs) {
      const row = rows[at.strip]!;
      row.push({ ...at, net });
      row.sort((a, b) => a.hole - b.hole);
      known.add(net);
    }
    for (let s = body.strips[0]; s <= body.strips[1]; s++)
      for (let h = body.holes[0]; h <= body.holes[1]; h++) taken.holes[s * WIDEST + h] = BODY;
    for (const { at } of legs) taken.holes[at.strip * WIDEST + at.hole] = LEG;
    frontier = Math.max(frontier, body.holes[1] + gap);
  }
  const holes = Math.max(frontier, ...placed.flatMap((p) => p.legs.map((l) => l.at.hole + 1))) + 2;
  const cuts = cutsOf(rows);
  const { links, loose } = linksOf(rows, cuts, taken, holes);
  const whole: Stripboard = {
    strips,
    holes,
    parts: placed,
    cuts,
    links,
    left: [...left, ...loose.map((net) => ({ ref: net, why: 'has no free hole for a link' }))],
  };
  // What was put somewhere by hand stays on the strip it was put on.
  return trimmed(
    whole,
    parts.some((p) => p.place !== null),
  );
}

/** How many strips below its first leg a part's last leg is. */
export const downOf = ({ legs }: Pick<Lying, 'legs'>): number => legs.at(-1)!.strip - legs[0]!.strip;

/** How far from where it was put a part would lie, holes. */
const farFrom = (place: StripPlace, { legs }: Lying, strip: number, hole: number) =>
  Math.abs(strip + legs[0]!.strip - place.strip) + Math.abs(hole + legs[0]!.hole - place.hole);

/** Without the strips above and below that nothing is on. */
function trimmed(board: Stripboard, belowOnly: boolean): Stripboard {
  const used = board.parts.flatMap((p) => [...p.legs.map((l) => l.at.strip), ...p.body.strips]);
  const first = belowOnly ? 0 : Math.max(0, Math.min(...used));
  const last = Math.min(board.strips - 1, Math.max(...used));
  const up = (h: Hole): Hole => ({ ...h, strip: h.strip - first });
  return {
    ...board,
    strips: last - first + 1,
    parts: board.parts.map((p) => ({
      ...p,
      legs: p.legs.map((l) => ({ ...l, at: up(l.at) })),
      body: { ...p.body, strips: [p.body.strips[0] - first, p.body.strips[1] - first] },
    })),
    cuts: board.cuts.map(up),
    links: board.links.map((l) => ({ ...l, from: up(l.from), to: up(l.to) })),
  };
}

/** What a place costs; infinite where something is in the way, or where it comes to no less than `below`. */
function costAt(
  lying: Lying,
  strip: number,
  hole: number,
  { rows, taken, known, gap }: { rows: Soldered[][]; taken: Taken; known: ReadonlySet<string>; gap: number },
  below: number,
): number {
  const [top, bottom] = [lying.body.strips[0] + strip, lying.body.strips[1] + strip];
  const [first, last] = [lying.body.holes[0] + hole, lying.body.holes[1] + hole];
  // Nothing that is added takes anything off again: the cheap sums come first.
  let cost = COST.hole * hole;
  for (const leg of lying.legs) cost += COST.strip * Math.abs(strip + leg.strip - taken.strips / 2);
  if (cost >= below) return Infinity;
  for (let s = top; s <= bottom; s++) for (let h = first; h <= last; h++) if (!isFree(taken, s, h)) return Infinity;
  for (const leg of lying.legs) if (!isFree(taken, strip + leg.strip, hole + leg.hole)) return Infinity;
  const joined: string[] = [];
  for (const leg of lying.legs) {
    const [s, h] = [strip + leg.strip, hole + leg.hole];
    const row = rows[s]!;
    const after = row.findIndex((other) => other.hole > h);
    for (const beside of [after < 0 ? row.at(-1) : row[after - 1], after < 0 ? undefined : row[after]]) {
      if (!beside) continue;
      if (beside.net === leg.net) joined.push(leg.net);
      else {
        // A cut takes a hole of its own, and each side wants one for a link.
        if (Math.abs(beside.hole - h) < 1 + gap) return Infinity;
        cost += COST.cut;
      }
    }
    const linkable = (to: number) => isFree(taken, s, to) && !(s >= top && s <= bottom && to >= first && to <= last);
    if (!linkable(h + 1) && !linkable(h - 1) && !linkable(h + 2) && !linkable(h - 2)) cost += COST.shut;
    if (cost >= below) return Infinity;
  }
  for (const net of new Set(lying.legs.map((l) => l.net)))
    if (known.has(net) && !joined.includes(net)) cost += COST.link;
  return cost;
}
