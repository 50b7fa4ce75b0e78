import type { BoardShape } from './board-layers';
import type { EtchedBoard } from './etched';

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

/** What is written on a board: names on bodies, values under them where there is room, above each wire what it is. */
export function boardWords({ parts }: EtchedBoard, volts: ReadonlyMap<string, string>): Word[] {
  return parts.flatMap(({ ref, value, wire, body, pads }): Word[] => {
    const [x, y] = [(body.x0 + body.x1) / 2, (body.y0 + body.y1) / 2];
    if (wire) {
      const net = pads[0]!.net;
      const says = `${ref.split(' ')[0]} ${net}`;
      const reads = volts.get(net);
      const above = pads[0]!.yMm - pads[0]!.padMm / 2 - 0.4 - SMALL_MM / 2;
      return [
        { text: reads && !says.includes(reads) ? `${says} ${reads}` : says, x, y: above, mm: SMALL_MM, of: 'wire' },
      ];
    }
    const [w, h] = [body.x1 - body.x0, body.y1 - body.y0];
    const roomy = h >= 2 * NAME_MM + 2 && w >= value.length * SMALL_MM && value !== '';
    const name: Word = { text: ref, x, y: roomy ? y - NAME_MM : y, mm: NAME_MM, of: 'name' };
    return roomy ? [name, { text: value, x, y: y + NAME_MM, mm: SMALL_MM, of: 'value' }] : [name];
  });
}

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
