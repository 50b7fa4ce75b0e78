import type { BoardShape } from './board-shape';
import { LINK_PAD, VIA_PAD, type EtchedBoard, type Rect } from './etched';

/** Lines of the silk, mm wide. */
export const SILK_MM = 0.15;
/** Letters on the silk, mm high. */
const NAME_MM = 1.5;
const SMALL_MM = 1.1;

export const line = (x1: number, y1: number, x2: number, y2: number, w = SILK_MM): BoardShape => ({
  kind: 'stroke',
  x1,
  y1,
  x2,
  y2,
  w,
  net: null,
});

/** A word of the silk and where it goes: its middle, and how high. */
export interface Word {
  text: string;
  x: number;
  y: number;
  mm: number;
  of: 'name' | 'value' | 'wire';
}

/** A letter is so wide for its height. */
const LETTER = 0.85;
/** Around a word stays so much free, mm. */
const AROUND_MM = 0.25;

/** What is written on a board: names and values in the free part of bodies, beside each wire what it is. */
export function boardWords(board: EtchedBoard, volts: ReadonlyMap<string, string>): Word[] {
  const { parts, links, vias, wMm, hMm } = board;
  const taken: Rect[] = [
    ...parts.flatMap((p) => p.pads.map((pad) => square(pad.xMm, pad.yMm, pad.padMm / 2))),
    ...links.flatMap((l) => [square(l.x1, l.y1, LINK_PAD.padMm / 2), square(l.x2, l.y2, LINK_PAD.padMm / 2)]),
    ...vias.map((v) => square(v.xMm, v.yMm, VIA_PAD.padMm / 2)),
  ];
  const words: Word[] = [];
  /** The first of some places where a word lies on nothing; the first of all where there is none. */
  const write = (word: Omit<Word, 'x' | 'y'>, places: readonly (readonly [x: number, y: number])[], must: boolean) => {
    const boxAt = ([x, y]: readonly [number, number]): Rect => {
      const [w, h] = [(word.text.length * word.mm * LETTER) / 2 + AROUND_MM, word.mm / 2 + AROUND_MM];
      return { x0: x - w, x1: x + w, y0: y - h, y1: y + h };
    };
    const free = places.find((at) => {
      const b = boxAt(at);
      const inside = b.x0 > 0 && b.y0 > 0 && b.x1 < wMm && b.y1 < hMm;
      return inside && !taken.some((t) => b.x0 < t.x1 && t.x0 < b.x1 && b.y0 < t.y1 && t.y0 < b.y1);
    });
    const at = free ?? (must ? (places.find(([, y]) => y > word.mm && y < hMm - word.mm) ?? places[0]) : undefined);
    if (!at) return;
    taken.push(boxAt(at));
    words.push({ ...word, x: at[0], y: at[1] });
  };
  for (const { ref, wire, body } of parts) {
    if (wire) continue;
    const across = [0, 0.25, -0.25, 0.4, -0.4].map((share) => share * (body.x1 - body.x0));
    const along = [0, 0.25, -0.25, 0.4, -0.4].map((share) => share * (body.y1 - body.y0));
    const [x, y] = [(body.x0 + body.x1) / 2, (body.y0 + body.y1) / 2];
    const places = across.flatMap((dx) => along.map((dy) => [x + dx, y + dy] as const));
    // Where it is all legs, above or below it.
    const beside = [body.y0 - NAME_MM, body.y1 + NAME_MM].map((py) => [x, py] as const);
    write({ text: ref, mm: NAME_MM, of: 'name' }, [...places, ...beside], true);
  }
  for (const { of, wire, pads } of parts) {
    if (!wire) continue;
    const { net, xMm, yMm, padMm } = pads[0]!;
    const says = `${of} ${net}`;
    const reads = volts.get(net);
    const text = reads && !says.includes(reads) ? `${says} ${reads}` : says;
    const off = padMm / 2 + AROUND_MM + 0.1;
    const [up, aside] = [off + SMALL_MM / 2, off + (text.length * SMALL_MM * LETTER) / 2];
    // Above, below, beside it; then farther off.
    const places = [0, 1.6, 3.2, 4.8].flatMap((far) => [
      [xMm, yMm - up - far] as const,
      [xMm, yMm + up + far] as const,
      [xMm + aside + far, yMm] as const,
      [xMm - aside - far, yMm] as const,
      ...[aside / 2, -aside / 2].flatMap((dx) => [
        [xMm + dx, yMm - up - far] as const,
        [xMm + dx, yMm + up + far] as const,
      ]),
    ]);
    write({ text, mm: SMALL_MM, of: 'wire' }, places, true);
  }
  for (const { wire, body, pads } of parts) {
    if (wire || !pads.some((p) => board.branches[p.branch]?.mains)) continue;
    const x = (body.x0 + body.x1) / 2;
    const places = [body.y0 - NAME_MM, body.y1 + NAME_MM].map((y) => [x, y] as const);
    write({ text: 'MAINS', mm: NAME_MM, of: 'name' }, places, true);
  }
  for (const { value, wire, body } of parts) {
    if (wire || value === '' || body.x1 - body.x0 < value.length * SMALL_MM * LETTER) continue;
    const [x, y] = [(body.x0 + body.x1) / 2, (body.y0 + body.y1) / 2];
    const places = [1.9, -1.9, 2.8, -2.8].map((dy) => [x, y + dy] as const);
    write(
      { text: value, mm: SMALL_MM, of: 'value' },
      places.filter(([, py]) => py > body.y0 + 0.8 && py < body.y1 - 0.8),
      false,
    );
  }
  return words;
}

const square = (x: number, y: number, r: number): Rect => ({ x0: x - r, x1: x + r, y0: y - r, y1: y + r });

/** Which way round: a plus beside a can's, a band at a cathode, a bar along a metal tab. */
export function markOf({ body, pads, polarised }: EtchedBoard['parts'][number]): BoardShape[] {
  const plus = polarised ? pads.find((p) => p.name === 'plus') : undefined;
  const minus = polarised ? pads.find((p) => p.name === 'minus') : undefined;
  if (plus && minus) {
    // Away from the other leg, along the line of both.
    const apart = Math.hypot(plus.xMm - minus.xMm, plus.yMm - minus.yMm) || 1;
    const [ux, uy] = [(plus.xMm - minus.xMm) / apart, (plus.yMm - minus.yMm) / apart];
    const [x, y] = [plus.xMm + ux * (plus.padMm / 2 + 1.1), plus.yMm + uy * (plus.padMm / 2 + 1.1)];
    return [line(x - 0.6, y, x + 0.6, y), line(x, y - 0.6, x, y + 0.6)];
  }
  const cathode = pads.length === 2 ? pads.find((p) => p.name === 'cathode') : undefined;
  if (cathode) {
    const { x0, y0, x1, y1 } = body;
    if (cathode.yMm > y1) return [line(x0, y1 - 0.8, x1, y1 - 0.8, 0.4)];
    if (cathode.yMm < y0) return [line(x0, y0 + 0.8, x1, y0 + 0.8, 0.4)];
    if (cathode.xMm > x1) return [line(x1 - 0.8, y0, x1 - 0.8, y1, 0.4)];
    return [line(x0 + 0.8, y0, x0 + 0.8, y1, 0.4)];
  }
  return [];
}
