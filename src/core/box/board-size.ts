import type { NetPart } from '@/core/netlist/netlist';
import { canOf } from '@/core/build/off-board';
import type { Size } from '@/core/parts/footprints';

/** Room small parts take on a board, mm by mm by height; typical. */
const SMALL: Readonly<Partial<Record<NetPart['kind'], readonly [w: number, d: number, h: number]>>> = {
  fuse: [25, 10, 14],
  diode: [15, 5, 6],
  bridge: [20, 8, 18],
  capacitor: [8, 5, 9],
  electrolytic: [8, 8, 13],
  resistor: [12, 4, 4],
  zener: [10, 4, 4],
  transistor: [12, 8, 20],
  regulator: [12, 8, 20],
  control: [40, 30, 10],
  pot: [10, 10, 12],
};
/** Of a board so much is covered by parts, the rest by tracks, screws and edges. Rule of thumb. */
const COVERED = 0.35;
const BOARD_MM = 1.6;
const LEAST_MM = 30;

/** What a part takes up on a board, mm. */
export function onBoard(part: NetPart, knownMm: number | null = null): readonly [w: number, d: number, h: number] {
  const can = canOf(part);
  if (can) return [can.diameterMm, can.diameterMm, knownMm ?? can.hMm];
  return SMALL[part.kind] ?? [10, 10, 10];
}

/**
 * About how large a board its parts make: three to two, as high as its tallest. Rule of thumb, until it is laid out.
 * @param heightOf of a part, where somebody wrote it down, mm
 */
export function aboutBoard(parts: readonly NetPart[], heightOf: (part: NetPart) => number | null): Size {
  const sizes = parts.map((p) => onBoard(p, heightOf(p)));
  const mm2 = sizes.reduce((sum, [w, d]) => sum + w * d, 0) / COVERED;
  const depth = Math.max(LEAST_MM, Math.sqrt(mm2 / 1.5), ...sizes.map(([w, d]) => Math.min(w, d) + 10));
  return {
    wMm: Math.ceil(Math.max(LEAST_MM, mm2 / depth, 1.5 * LEAST_MM)),
    dMm: Math.ceil(depth),
    hMm: Math.ceil(BOARD_MM + Math.max(3, ...sizes.map(([, , h]) => h))),
  };
}
