import type { Point, SymbolKind } from './drawing';

interface Shape {
  /** Along and across the symbol, px. */
  length: number;
  breadth: number;
  /** Where its pins are, its first one to the left; others than 'a' and 'b' by name. */
  pins: Readonly<Record<string, Point>>;
}

const ends = (length: number, a = 'a', b = 'b') => ({ [a]: { x: -length / 2, y: 0 }, [b]: { x: length / 2, y: 0 } });
const two = (length: number, breadth: number, a = 'a', b = 'b'): Shape => ({
  length,
  breadth,
  pins: ends(length, a, b),
});

/** How large each symbol is and where its leads end, lying with its first pin to the left. */
export const SHAPES: Readonly<Partial<Record<SymbolKind, Shape>>> = {
  fuse: two(30, 11),
  cutout: two(30, 14),
  resistor: two(34, 12),
  choke: two(44, 14),
  heater: two(34, 14),
  capacitor: two(8, 24, 'plus', 'minus'),
  electrolytic: two(10, 26, 'plus', 'minus'),
  diode: two(16, 18, 'anode', 'cathode'),
  valve: two(26, 26, 'anode', 'cathode'),
  zener: two(16, 20, 'anode', 'cathode'),
  led: two(16, 26, 'anode', 'cathode'),
  fan: two(28, 28, 'plus', 'minus'),
  source: two(22, 30, 'plus', 'minus'),
  pot: { length: 34, breadth: 30, pins: { ...ends(34), wiper: { x: 0, y: -15 } } },
  // The base to the left, the collector up.
  transistor: {
    length: 30,
    breadth: 30,
    pins: { base: { x: -15, y: 0 }, collector: { x: 8, y: -15 }, emitter: { x: 8, y: 15 } },
  },
};

export function shapeOf(kind: SymbolKind): Shape {
  const shape = SHAPES[kind];
  if (!shape) throw new RangeError(`no shape for ${kind}`);
  return shape;
}

/** A point of a symbol as it lies, where it comes to once it is turned over and turned. */
export function turned({ x, y }: Point, turn: 0 | 1 | 2 | 3, mirrored: boolean): Point {
  let at = { x, y: mirrored ? -y : y };
  for (let n = 0; n < turn; n++) at = { x: -at.y || 0, y: at.x };
  return at;
}
