import { canOf } from '@/core/build/off-board';
import { pinoutOf } from '@/core/build/pinouts';
import type { NetPart } from '@/core/netlist/netlist';
import type { Rect, Turn } from './etched';
import { isFat, lyings, PITCH_MM, type Lying } from './strip-footprint';

/** A part as it lies unturned: its first leg at 0, 0. */
export interface Footprint {
  pads: readonly { name: string; net: string; xMm: number; yMm: number; drillMm: number; padMm: number }[];
  body: Rect;
  round: boolean;
}

/** Holes and pads by thickness of leg, mm. */
const PADS = {
  thin: { drillMm: 0.8, padMm: 1.8 },
  row: { drillMm: 1, padMm: 1.8 },
  can: { drillMm: 0.9, padMm: 2.2 },
  thick: { drillMm: 1.4, padMm: 3 },
} as const;

/** A part's pads and body: its legs as far apart as on a board of strips. */
export function footprintOf(part: NetPart, wire: boolean): Footprint {
  const [lying] = lyings(part) as [Lying];
  const thickness = thicknessOf(part, wire);
  const pads = lying.legs.map(({ name, net, strip, hole }) => ({
    name,
    net,
    xMm: hole * PITCH_MM,
    yMm: strip * PITCH_MM,
    ...PADS[thickness],
  }));
  const { body, round } = bodyOf(part, lying, wire);
  return { pads, body, round };
}

function thicknessOf(part: NetPart, wire: boolean): keyof typeof PADS {
  if (wire || part.kind === 'fuse' || part.kind === 'bridge' || isFat(part)) return 'thick';
  if (part.kind === 'electrolytic') return (canOf(part)?.diameterMm ?? 6) > 6.5 ? 'can' : 'thin';
  if (part.pins.length > 2) return pinoutOf(part)?.housing === 'TO-247' ? 'thick' : 'row';
  return 'thin';
}

/** What it covers of the board, mm; typical. */
function bodyOf(part: NetPart, { legs, body }: Lying, wire: boolean): Pick<Footprint, 'body' | 'round'> {
  const last = Math.max(...legs.map((l) => l.strip)) * PITCH_MM;
  const across = (half: number, beyond: number): Rect => ({ x0: -half, x1: half, y0: -beyond, y1: last + beyond });
  if (wire) return { body: across(1.5, 1.5), round: true };
  if (part.kind === 'electrolytic') {
    const r = (canOf(part)?.diameterMm ?? 6) / 2;
    return { body: { x0: -r, x1: r, y0: last / 2 - r, y1: last / 2 + r }, round: true };
  }
  if (part.kind === 'capacitor') return { body: across(1.5, 1.1), round: false };
  if (part.kind === 'fuse') return { body: across(4.5, 2), round: false };
  if (legs.length === 2) {
    const [half, long] = isFat(part) ? [2.7, 9.5] : [1.3, 6.6];
    return { body: { x0: -half, x1: half, y0: (last - long) / 2, y1: (last + long) / 2 }, round: false };
  }
  return { body: { x0: -1.3, x1: body.holes[1] * PITCH_MM + 0.8, y0: -2.3, y1: last + 2.3 }, round: false };
}

/** A place turned against the clock about 0, 0, y downwards. */
export const quarterTurned = (x: number, y: number, turn: Turn): readonly [number, number] =>
  turn === 0 ? [x, y] : turn === 1 ? [y, -x] : turn === 2 ? [-x, -y] : [-y, x];

/** The rectangle between two corners. */
export const around = ([ax, ay]: readonly [number, number], [bx, by]: readonly [number, number]): Rect => ({
  x0: Math.min(ax, bx),
  y0: Math.min(ay, by),
  x1: Math.max(ax, bx),
  y1: Math.max(ay, by),
});

/** The same, turned against the clock about its first leg. */
export function turned({ pads, body, round }: Footprint, turn: Turn): Footprint {
  return {
    pads: pads.map((p) => {
      const [xMm, yMm] = quarterTurned(p.xMm, p.yMm, turn);
      return { ...p, xMm, yMm };
    }),
    body: around(quarterTurned(body.x0, body.y0, turn), quarterTurned(body.x1, body.y1, turn)),
    round,
  };
}

/** What no other part may stand on: body and pads together, mm. */
export function courtyard({ pads, body }: Pick<Footprint, 'pads' | 'body'>): Rect {
  return {
    x0: Math.min(body.x0, ...pads.map((p) => p.xMm - p.padMm / 2)),
    y0: Math.min(body.y0, ...pads.map((p) => p.yMm - p.padMm / 2)),
    x1: Math.max(body.x1, ...pads.map((p) => p.xMm + p.padMm / 2)),
    y1: Math.max(body.y1, ...pads.map((p) => p.yMm + p.padMm / 2)),
  };
}
