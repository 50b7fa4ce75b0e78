import type { Hole, Stripboard } from './on-strips';

/** What is wrong with a board as it is made: nets in more than one piece, and nets that touch. */
export interface StripFaults {
  apart: string[];
  touching: [string, string][];
}

/** Found again from the finished board alone: every hole a node, a strip joins neighbours unless one is cut away, a link its ends. */
export function stripFaults({ strips, holes, parts, cuts, links }: Stripboard): StripFaults {
  const cut = new Set(cuts.map(key));
  const piece = new Map<string, number>();
  const linked = new Map<string, Hole[]>();
  for (const { from, to } of links) {
    linked.set(key(from), [...(linked.get(key(from)) ?? []), to]);
    linked.set(key(to), [...(linked.get(key(to)) ?? []), from]);
  }
  let pieces = 0;
  for (let strip = 0; strip < strips; strip++)
    for (let hole = 0; hole < holes; hole++) {
      if (piece.has(key({ strip, hole })) || cut.has(key({ strip, hole }))) continue;
      const waiting: Hole[] = [{ strip, hole }];
      pieces++;
      while (waiting.length > 0) {
        const at = waiting.pop()!;
        if (piece.has(key(at)) || cut.has(key(at)) || at.hole < 0 || at.hole >= holes) continue;
        piece.set(key(at), pieces);
        waiting.push({ ...at, hole: at.hole - 1 }, { ...at, hole: at.hole + 1 }, ...(linked.get(key(at)) ?? []));
      }
    }
  const piecesOf = new Map<string, Set<number>>();
  const netsOn = new Map<number, Set<string>>();
  for (const { net, at } of parts.flatMap((p) => p.legs)) {
    const on = piece.get(key(at)) ?? -1;
    piecesOf.set(net, (piecesOf.get(net) ?? new Set()).add(on));
    netsOn.set(on, (netsOn.get(on) ?? new Set()).add(net));
  }
  return {
    apart: [...piecesOf].filter(([, on]) => on.size > 1).map(([net]) => net),
    touching: [...netsOn.values()]
      .filter((nets) => nets.size > 1)
      .map((nets) => [...nets].slice(0, 2) as [string, string]),
  };
}

const key = ({ strip, hole }: Hole) => `${strip} ${hole}`;
