import { warmedOf } from './heat-gaps';
import { overlapsOf } from './overlaps';
import { outsideStar } from './star';
import { between, closerThan, type Piece } from './copper-geometry';
import { apartBetween, EDGE_MM, fromScrew, LINK_PAD, SCREW, VIA_PAD, type EtchedBoard, type Layer } from './etched';

/** What is wrong with a board as its copper is: found again from pads, tracks and links alone. */
export interface EtchedFaults {
  /** Nets in more than one piece. */
  apart: string[];
  touching: [string, string][];
  /** Nets whose pulses and load share more than the reservoir's leg. */
  shared: string[];
  /** Copper closer than the volts ask, nearest first. */
  close: { a: string; b: string; mm: number; xMm: number; yMm: number; legs: boolean }[];
  /** Parts that stand on each other or over the edge. */
  overlaps: [string, string][];
  /** Cans and what sets the output nearer to heat than they should stand. */
  warmed: { a: string; b: string; mm: number; wantsMm: number }[];
}

/** A piece of copper: its middle line, half its width, and whose it is. */
interface Copper {
  piece: Piece;
  half: number;
  layer: Layer | 'both';
  net: string;
  /** Whether the mains is on it. */
  mains: boolean;
  /** Reference of the part it is a leg of. */
  ref: string | null;
  /** Which link it is an end of. */
  link: number | null;
}

const dot = (x: number, y: number): Piece => ({ x1: x, y1: y, x2: x, y2: y });

/** All copper of a board, without saying what belongs together. */
export function copperOf(board: EtchedBoard): Copper[] {
  const both = board.sides === 2 ? ('both' as const) : ('under' as const);
  const of = (branch: number) => ({ net: board.branches[branch]!.net, mains: board.branches[branch]!.mains });
  return [
    ...board.parts.flatMap((p) =>
      p.pads.map((pad): Copper => ({
        piece: dot(pad.xMm, pad.yMm),
        half: pad.padMm / 2,
        layer: both,
        ...of(pad.branch),
        ref: p.ref,
        link: null,
      })),
    ),
    ...board.tracks.map((t): Copper => ({
      piece: t,
      half: t.widthMm / 2,
      link: null,
      layer: t.layer,
      ...of(t.branch),
      ref: null,
    })),
    ...board.links.flatMap((l, link) =>
      [dot(l.x1, l.y1), dot(l.x2, l.y2)].map((piece): Copper => ({
        piece,
        half: LINK_PAD.padMm / 2,
        link,
        layer: both,
        ...of(l.branch),
        ref: null,
      })),
    ),
    ...board.vias.map((v): Copper => ({
      piece: dot(v.xMm, v.yMm),
      half: VIA_PAD.padMm / 2,
      link: null,
      layer: both,
      ...of(v.branch),
      ref: null,
    })),
  ];
}

export function etchedFaults(board: EtchedBoard): EtchedFaults {
  const copper = copperOf(board);
  const pads = board.parts.reduce((sum, p) => sum + p.pads.length, 0);
  const piece = pieces(copper);
  const nets = new Map<string, Set<number>>();
  const on = new Map<number, Set<string>>();
  for (let n = 0; n < pads; n++) {
    const { net } = copper[n]!;
    nets.set(net, (nets.get(net) ?? new Set()).add(piece[n]!));
    on.set(piece[n]!, (on.get(piece[n]!) ?? new Set()).add(net));
  }
  return {
    apart: [...nets].filter(([, p]) => p.size > 1).map(([net]) => net),
    touching: [...on.values()].filter((s) => s.size > 1).map((s) => [...s].slice(0, 2) as [string, string]),
    shared: sharedOf(board, copper),
    close: closeOf(board, copper),
    overlaps: overlapsOf(board),
    warmed: warmedOf(board.parts),
  };
}

const sameLayer = (a: Copper, b: Copper) => a.layer === 'both' || b.layer === 'both' || a.layer === b.layer;

/** Which pieces hang together, by touch and by links. */
function pieces(copper: readonly Copper[]): number[] {
  const root = copper.map((_, n) => n);
  const find = (n: number): number => (root[n] === n ? n : (root[n] = find(root[n]!)));
  for (let a = 0; a < copper.length; a++)
    for (let b = a + 1; b < copper.length; b++) {
      const [p, q] = [copper[a]!, copper[b]!];
      const linked = p.link !== null && p.link === q.link;
      const touch = sameLayer(p, q) && closerThan(p.half + q.half + TOUCH_MM, p.piece, q.piece);
      if (linked || touch) root[find(a)] = find(b);
    }
  return copper.map((_, n) => find(n));
}

/** Whether the halves of a net still hang together when the star's pad, and what is within it, is taken away. */
function sharedOf(board: EtchedBoard, copper: readonly Copper[]): string[] {
  return board.branches.flatMap((branch) => {
    const { star, carries, net } = branch;
    if (!star || carries !== 'load') return [];
    const cut = copper.flatMap((c) => outsideStar(c.piece, star).map((piece): Copper => ({ ...c, piece })));
    const piece = pieces(cut);
    const sides = ['pulses', 'load'].map((half) => {
      const index = board.branches.findIndex((b) => b.net === net && b.carries === half);
      const legs = board.parts.flatMap((p) => p.pads.filter((pad) => pad.branch === index));
      return new Set(
        legs.flatMap((pad) => {
          const n = cut.findIndex((c) => c.ref !== null && c.piece.x1 === pad.xMm && c.piece.y1 === pad.yMm);
          return n < 0 ? [] : [piece[n]!];
        }),
      );
    });
    return [...sides[0]!].some((n) => sides[1]!.has(n)) ? [net] : [];
  });
}

/** Copper as near as this touches: what a file's coordinates are rounded to, mm. */
const TOUCH_MM = 1e-3;
/** Rounding of a file's coordinates, mm. */
const ROUNDING_MM = 0.02;

function closeOf(board: EtchedBoard, copper: readonly Copper[]): EtchedFaults['close'] {
  const { apartMm, wMm, hMm, holes, parts } = board;
  const netsOf = new Map(parts.map((p) => [p.ref, new Set(p.pads.map((pad) => pad.net))]));
  /** Beside a leg of a part that has one on the other net too: no nearer than the part itself makes it. */
  const atLegs = (a: Copper, b: Copper) =>
    (a.ref !== null && netsOf.get(a.ref)!.has(b.net)) || (b.ref !== null && netsOf.get(b.ref)!.has(a.net));
  const worst = new Map<string, EtchedFaults['close'][number]>();
  const note = (a: string, b: string, mm: number, p: Piece, legs: boolean, asked: number) => {
    if (mm >= asked - ROUNDING_MM) return;
    const key = `${a} ${b} ${legs}`;
    if ((worst.get(key)?.mm ?? Infinity) > mm)
      worst.set(key, { a, b, mm: Math.max(0, mm), xMm: (p.x1 + p.x2) / 2, yMm: (p.y1 + p.y2) / 2, legs });
  };
  for (let i = 0; i < copper.length; i++) {
    const a = copper[i]!;
    const [x0, x1] = [Math.min(a.piece.x1, a.piece.x2), Math.max(a.piece.x1, a.piece.x2)];
    const [y0, y1] = [Math.min(a.piece.y1, a.piece.y2), Math.max(a.piece.y1, a.piece.y2)];
    note(a.net, 'the edge', Math.min(x0, y0, wMm - x1, hMm - y1) - a.half, a.piece, false, EDGE_MM);
    for (const h of holes)
      note(
        a.net,
        'a screw',
        between(a.piece, dot(h.xMm, h.yMm)) - a.half - SCREW.headMm / 2,
        a.piece,
        false,
        fromScrew(a, apartMm),
      );
    for (let j = i + 1; j < copper.length; j++) {
      const b = copper[j]!;
      if (a.net === b.net || !sameLayer(a, b)) continue;
      const asked = apartBetween(a, b, apartMm);
      if (!closerThan(asked + a.half + b.half, a.piece, b.piece)) continue;
      const mm = between(a.piece, b.piece) - a.half - b.half;
      note(a.net, b.net, mm, b.piece, atLegs(a, b), asked);
    }
  }
  return [...worst.values()].sort((a, b) => a.mm - b.mm);
}
