import type { Hole, Stripboard } from './on-strips';

/** A leg where it is, with its net. */
export interface Soldered extends Hole {
  net: string;
}

/** What is in each hole: bodies over it, legs in it. */
export interface Taken {
  strips: number;
  holes: Uint8Array;
}
export const BODY = 1;
export const LEG = 2;
/** Holes a strip may have. */
export const WIDEST = 512;
export const isFree = ({ holes }: Taken, strip: number, hole: number) =>
  hole >= 0 && hole < WIDEST && holes[strip * WIDEST + hole] === 0;

/** Where strips have to be cut: between two legs of different nets, in the middle. */
export function cutsOf(rows: readonly (readonly Soldered[])[]): Hole[] {
  return rows.flatMap((row, strip) =>
    row.flatMap((leg, n) => {
      const next = row[n + 1];
      return next && next.net !== leg.net ? [{ strip, hole: Math.floor((leg.hole + next.hole) / 2) }] : [];
    }),
  );
}

/** A stretch of a strip between two cuts, or to the edge. */
interface Stretch {
  net: string;
  strip: number;
  from: number;
  to: number;
}

/** Wires that join what the strips leave apart, each net's nearest stretches first, straight up or down where it can be. */
export function linksOf(
  rows: readonly (readonly Soldered[])[],
  cuts: readonly Hole[],
  taken: Taken,
  holes: number,
): { links: Stripboard['links']; loose: string[] } {
  const stretches = rows.flatMap((row, strip) =>
    stretchesOf(strip, { cuts, holes }).flatMap(([from, to]): Stretch[] => {
      const leg = row.find((s) => s.hole >= from && s.hole <= to);
      return leg ? [{ net: leg.net, strip, from, to }] : [];
    }),
  );
  const free = ({ strip, from, to }: Stretch) =>
    Array.from({ length: to - from + 1 }, (_, n) => ({ strip, hole: from + n })).filter((h) =>
      isFree(taken, h.strip, h.hole),
    );
  const links: Stripboard['links'] = [];
  const loose: string[] = [];
  for (const net of new Set(stretches.map((s) => s.net))) {
    const groups = stretches.filter((s) => s.net === net).map((s) => [s]);
    while (groups.length > 1) {
      let best: { from: Hole; to: Hole; a: number; b: number; bare: boolean; length: number } | null = null;
      groups.forEach((group, a) =>
        groups.slice(a + 1).forEach((other, k) => {
          for (const from of group.flatMap(free))
            for (const to of other.flatMap(free)) {
              // Straight ones over nothing are bare wire; any other has to be insulated.
              const bare = from.hole === to.hole && nothingBetween(taken, from, to);
              const length =
                Math.abs(from.strip - to.strip) + 3 * Math.abs(from.hole - to.hole) + (bare ? 0 : INSULATED);
              if (length < (best?.length ?? Infinity)) best = { from, to, a, b: a + 1 + k, bare, length };
            }
        }),
      );
      const found = best as { from: Hole; to: Hole; a: number; b: number; bare: boolean } | null;
      if (!found) {
        loose.push(net);
        break;
      }
      links.push({ net, from: found.from, to: found.to, insulated: !found.bare });
      const [upper, lower] = [found.from, found.to].sort((p, q) => p.strip - q.strip) as [Hole, Hole];
      if (found.bare)
        for (let strip = upper.strip; strip <= lower.strip; strip++) taken.holes[strip * WIDEST + upper.hole] = BODY;
      for (const end of [upper, lower]) taken.holes[end.strip * WIDEST + end.hole] = LEG;
      groups[found.a]!.push(...groups[found.b]!);
      groups.splice(found.b, 1);
    }
  }
  return { links, loose };
}

/** A link that has to be insulated is as bad as one so many holes longer. */
const INSULATED = 15;

/** Whether a bare wire can lie between two holes one above the other: over free holes only. */
function nothingBetween(taken: Taken, from: Hole, to: Hole): boolean {
  const [upper, lower] = [Math.min(from.strip, to.strip), Math.max(from.strip, to.strip)];
  for (let strip = upper + 1; strip < lower; strip++) if (!isFree(taken, strip, from.hole)) return false;
  return true;
}

/** What a strip is cut into: from which hole to which. */
export function stretchesOf(
  strip: number,
  { cuts, holes }: { cuts: readonly Hole[]; holes: number },
): [number, number][] {
  const ends = cuts.filter((c) => c.strip === strip).map((c) => c.hole);
  const edges = [-1, ...ends.sort((a, b) => a - b), holes];
  return edges.slice(1).flatMap((end, n): [number, number][] => {
    const from = edges[n]! + 1;
    return end > from ? [[from, end - 1]] : [];
  });
}
