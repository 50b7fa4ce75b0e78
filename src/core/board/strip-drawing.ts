import { PITCH_MM } from './strip-footprint';
import { holeName, stripName } from './strip-names';
import { stretchesOf } from './strip-links';
import type { Hole, OnStrips, Stripboard } from './on-strips';

/** What a board is drawn with, mm from its upper left corner, from the side of the parts. */
export type StripShape =
  | { kind: 'strip'; x: number; y: number; w: number; h: number; net: string | null; key: string }
  | { kind: 'hole'; x: number; y: number; key: string }
  | { kind: 'cut'; x: number; y: number; key: string }
  | { kind: 'link'; x1: number; y1: number; x2: number; y2: number; net: string; insulated: boolean; key: string }
  | { kind: 'body'; x: number; y: number; w: number; h: number; round: boolean; ref: string; key: string }
  | { kind: 'lead'; x1: number; y1: number; x2: number; y2: number; key: string }
  | { kind: 'pin'; x: number; y: number; wire: boolean; net: string; key: string }
  | {
      kind: 'text';
      /** Of the board itself, of what is wired to it, or of what lies on it. */
      of: 'board' | 'wire' | 'part';
      x: number;
      y: number;
      text: string;
      size: number;
      anchor: 'start' | 'middle' | 'end';
      key: string;
    };

/** What is seen from the side of the copper. */
export const onCopper = (s: StripShape): boolean =>
  s.kind === 'strip' || s.kind === 'hole' || s.kind === 'cut' || (s.kind === 'text' && s.of === 'board');

/** A board as it is drawn. */
export interface StripDrawing {
  wMm: number;
  hMm: number;
  shapes: StripShape[];
}

/** Above and below the holes, for their numbers, mm. */
export const EDGE_MM = 6;
/** Beside them, for the letters of strips and for what is wired there, mm. */
export const SIDE_MM = 24;
const STRIP_MM = 1.9;
const at = (strip: number) => EDGE_MM + PITCH_MM * strip;
const over = (hole: number) => SIDE_MM + PITCH_MM * hole;

/** A laid-out board as shapes. */
export function stripDrawing(board: Stripboard): StripDrawing {
  const { strips, holes, parts, cuts, links } = board;
  const legs = parts.flatMap((p) => p.legs);
  const shapes: StripShape[] = [];
  for (let strip = 0; strip < strips; strip++) {
    stretchesOf(strip, board).forEach(([from, to]) => {
      const leg = legs.find((l) => l.at.strip === strip && l.at.hole >= from && l.at.hole <= to);
      shapes.push({
        kind: 'strip',
        x: over(from) - PITCH_MM / 2,
        y: at(strip) - STRIP_MM / 2,
        w: (to - from + 1) * PITCH_MM,
        h: STRIP_MM,
        net: leg?.net ?? null,
        key: `strip ${strip} ${from}`,
      });
    });
    shapes.push({
      kind: 'text',
      of: 'board',
      x: SIDE_MM - 4,
      y: at(strip) + 0.8,
      text: stripName(strip),
      size: 2.2,
      anchor: 'middle',
      key: `letter ${strip}`,
    });
    for (let hole = 0; hole < holes; hole++)
      shapes.push({ kind: 'hole', x: over(hole), y: at(strip), key: holeName({ strip, hole }) });
  }
  for (let hole = 4; hole < holes; hole += 5)
    shapes.push({
      kind: 'text',
      of: 'board',
      x: over(hole),
      y: 2.7,
      text: String(hole + 1),
      size: 2.2,
      anchor: 'middle',
      key: `number ${hole}`,
    });
  for (const c of cuts) shapes.push({ kind: 'cut', x: over(c.hole), y: at(c.strip), key: `cut ${holeName(c)}` });
  for (const l of links)
    shapes.push({
      kind: 'link',
      ...between(l.from, l.to),
      net: l.net,
      insulated: l.insulated,
      key: `link ${holeName(l.from)}`,
    });
  for (const p of parts) shapes.push(...partShapes(p));
  shapes.push(...wireNames(board));
  return { wMm: 2 * SIDE_MM + PITCH_MM * (holes - 1), hMm: 2 * EDGE_MM + PITCH_MM * (strips - 1), shapes };
}

const between = (a: Hole, b: Hole) => ({ x1: over(a.hole), y1: at(a.strip), x2: over(b.hole), y2: at(b.strip) });

function partShapes({ ref, legs, body, wire, polarised }: OnStrips): StripShape[] {
  const pins = legs.map((l): StripShape => ({
    kind: 'pin',
    x: over(l.at.hole),
    y: at(l.at.strip),
    wire,
    net: l.net,
    key: `${ref} ${l.name}`,
  }));
  const [first] = legs;
  if (wire) return pins;
  const [top, bottom] = body.strips;
  // Flat parts reserve a hole beside them that they do not cover.
  const flat = legs.length === 2 && legs.every((l) => l.at.strip < top || l.at.strip > bottom);
  const middle = flat ? first!.at.hole : (body.holes[0] + body.holes[1]) / 2;
  const width = flat ? 2.2 : PITCH_MM * (body.holes[1] - body.holes[0]) + 2;
  const [upper, lower] = flat ? [top - 0.4, bottom + 0.4] : [top - 0.1, bottom + 0.1];
  const height = PITCH_MM * (lower - upper) + (flat ? 0 : 1.4);
  const y = (at(upper) + at(lower)) / 2;
  const round = !flat && legs.length === 2 && Math.abs(width - height) < 4;
  // Its name beside its legs: to the free side of a row of them, above two that are close.
  const aside = legs.length > 2 ? 0.9 * (Math.sign(middle - first!.at.hole) || 1) : 0;
  const close = !flat && legs.length === 2 && Math.abs(legs[0]!.at.strip - legs[1]!.at.strip) < 2;
  // Which way round: a band at a cathode, a plus at a can's.
  const cathode = flat ? legs.find((l) => l.name === 'cathode') : undefined;
  const plus = polarised ? legs.find((l) => l.name === 'plus') : undefined;
  const bandY = cathode && (cathode.at.strip < top ? y - height / 2 + 0.7 : y + height / 2 - 0.7);
  return [
    ...(flat ? [{ kind: 'lead' as const, ...between(legs[0]!.at, legs[1]!.at), key: `${ref} lead` }] : []),
    {
      kind: 'body',
      x: over(middle) - width / 2,
      y: y - height / 2,
      w: width,
      h: height,
      round,
      ref,
      key: `${ref} body`,
    },
    ...(bandY === undefined
      ? []
      : [
          {
            kind: 'lead' as const,
            x1: over(middle) - width / 2,
            y1: bandY,
            x2: over(middle) + width / 2,
            y2: bandY,
            key: `${ref} band`,
          },
        ]),
    ...(plus
      ? [
          {
            kind: 'text' as const,
            of: 'part' as const,
            x: over(plus.at.hole) + 1.1,
            y: at(plus.at.strip) + 0.7,
            text: '+',
            size: 2.6,
            anchor: 'start' as const,
            key: `${ref} plus`,
          },
        ]
      : []),
    ...pins,
    {
      kind: 'text',
      of: 'part',
      x: over(middle) + aside,
      y: close ? y - height / 2 + 2.2 : y + 0.8,
      text: ref,
      size: 2.2,
      anchor: 'middle',
      key: `${ref} text`,
    },
  ];
}

/** What is wired to each strip, beside it: from the left half to the left, from the right half to the right. */
function wireNames({ parts, holes }: Stripboard): StripShape[] {
  const names = new Map<string, { strip: number; left: boolean; refs: Set<string>; net: string }>();
  for (const { of, legs, wire } of parts) {
    if (!wire) continue;
    const { at: hole, net } = legs[0]!;
    const left = hole.hole < holes / 2;
    const key = `${hole.strip} ${left} ${net}`;
    const old = names.get(key) ?? { strip: hole.strip, left, refs: new Set<string>(), net };
    old.refs.add(of);
    names.set(key, old);
  }
  return [...names].map(([key, { strip, left, refs, net }]) => ({
    kind: 'text',
    of: 'wire',
    x: left ? SIDE_MM - 6.5 : over(holes - 1) + 3.4,
    y: at(strip) + 0.7,
    text: `${[...refs].join(', ')} ${net}`,
    size: 2,
    anchor: left ? 'end' : 'start',
    key: `wire ${key}`,
  }));
}
