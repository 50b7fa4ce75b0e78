import type { DrawnSymbol, SymbolKind } from '@/core/build/circuit/drawing';
import { strokesOf, type Convention, type Stroke } from '@/core/build/circuit/strokes';

type Spot = readonly [x: number, y: number];
interface Drawn {
  /** Straight strokes from end to end. */
  lines: { from: Spot; to: Spot }[];
  /** Where a pen comes to rest, and what pulls a curve. */
  spots: Spot[];
}

/** Reads a stroke by itself: letters and numbers, as anything that draws paths would. */
function readStroke({ d }: Stroke): Drawn {
  const lines: Drawn['lines'] = [];
  const spots: Spot[] = [];
  let at: Spot = [0, 0];
  let begun: Spot = at;
  const go = (to: Spot, straight: boolean) => {
    if (straight) lines.push({ from: at, to });
    spots.push(to);
    at = to;
  };
  for (const [, letter, rest] of d.matchAll(/([A-Za-z])([^A-Za-z]*)/g)) {
    const n =
      rest!.trim() === ''
        ? []
        : rest!
            .trim()
            .split(/[\s,]+/)
            .map(Number);
    expect(n.every(Number.isFinite)).toBe(true);
    const [x, y] = at;
    if (letter === 'M') {
      at = begun = [n[0]!, n[1]!];
      spots.push(at);
    } else if (letter === 'L') go([n[0]!, n[1]!], true);
    else if (letter === 'H') go([n[0]!, y], true);
    else if (letter === 'V') go([x, n[0]!], true);
    else if (letter === 'h') go([x + n[0]!, y], true);
    else if (letter === 'v') go([x, y + n[0]!], true);
    else if (letter === 'a') go([x + n[5]!, y + n[6]!], false);
    else if (letter === 'Z') go(begun, true);
    else if (letter === 'C' || letter === 'Q') for (let k = 0; k < n.length; k += 2) go([n[k]!, n[k + 1]!], false);
    else throw new Error(`a stroke with ${letter}`);
  }
  return { lines, spots };
}

const symbol = (kind: SymbolKind, length: number, breadth: number, more: Partial<DrawnSymbol> = {}): DrawnSymbol => ({
  kind,
  refs: [],
  x: 0,
  y: 0,
  turn: 0,
  mirrored: false,
  length,
  breadth,
  pins: [],
  negative: false,
  charging: false,
  ...more,
});

function drawn(of: DrawnSymbol, convention: Convention = 'rectangles'): Drawn {
  const read = strokesOf(of, convention).map(readStroke);
  return { lines: read.flatMap((r) => r.lines), spots: read.flatMap((r) => r.spots) };
}

const touches = ({ lines, spots }: Drawn, [x, y]: Spot): boolean =>
  spots.some((s) => Math.hypot(s[0] - x, s[1] - y) < 1e-9) ||
  lines.some(({ from: [ax, ay], to: [bx, by] }) => {
    const long = Math.hypot(bx - ax, by - ay);
    const off = Math.abs((bx - ax) * (y - ay) - (by - ay) * (x - ax)) / (long || 1);
    return off < 1e-9 && Math.hypot(x - ax, y - ay) <= long && Math.hypot(x - bx, y - by) <= long;
  });
const extent = ({ spots }: Drawn) => {
  const [xs, ys] = [spots.map((s) => s[0]), spots.map((s) => s[1])];
  return [Math.min(...xs), Math.max(...xs), Math.min(...ys), Math.max(...ys)];
};
const cornersOf = ({ spots }: Drawn, [fx, fy]: Spot) =>
  [
    ...new Set(
      spots.map(([x, y]) => `${(fx * x + 0).toFixed(6)} ${(fy * y + 0).toFixed(6)}`.replace(/-0\.0+\b/g, '0.000000')),
    ),
  ].sort();

const BOTH: Convention[] = ['rectangles', 'zigzags'];
const TWO_ENDED: [SymbolKind, number, number][] = [
  ['resistor', 40, 14],
  ['heater', 44, 16],
  ['pot', 42, 34],
  ['fuse', 36, 12],
  ['cutout', 36, 14],
  ['choke', 60, 20],
  ['coil', 84, 16],
  ['primary', 50, 16],
  ['capacitor', 9, 26],
  ['electrolytic', 11, 28],
  ['diode', 18, 20],
  ['zener', 18, 22],
  ['led', 18, 18],
  ['valve', 40, 40],
  ['source', 24, 30],
  ['switch', 44, 22],
  ['terminal', 9, 9],
];

describe.each(BOTH)('symbols, %s', (convention) => {
  test.each(TWO_ENDED)('%s: its strokes meet the wires at both ends', (kind, length, breadth) => {
    for (const share of [1, 1.5]) {
      const l = kind === 'capacitor' || kind === 'electrolytic' ? length : share * length;
      const it = drawn(symbol(kind, l, breadth), convention);
      expect(extent(it)[1]).toBeGreaterThanOrEqual(l / 2);
      expect([kind, touches(it, [-l / 2, 0]), touches(it, [l / 2, 0])]).toEqual([kind, true, true]);
    }
  });

  test.each([
    ['resistor', 40, 14],
    ['fuse', 36, 12],
    ['capacitor', 9, 26],
    ['heater', 44, 16],
    ['core', 90, 6],
    ['flag', 10, 14],
    ['fan', 30, 30],
  ] as const)('%s: turned by half it looks the same', (kind, length, breadth) => {
    const it = drawn(symbol(kind, length, breadth), convention);
    expect(cornersOf(it, [-1, -1])).toEqual(cornersOf(it, [1, 1]));
  });

  test.each([
    ['resistor', 40, 14, [-20, 20, -7, 7]],
    ['heater', 44, 16, [-22, 22, -8, 8]],
    ['fuse', 36, 12, [-18, 18, -6, 6]],
    ['cutout', 36, 14, [-18, 18, -7, 7]],
    ['capacitor', 9, 26, [-4.5, 4.5, -13, 13]],
    ['diode', 18, 20, [-9, 9, -10, 10]],
    ['zener', 18, 22, [-9, 9, -11, 11]],
    ['regulator', 70, 44, [-35, 35, -22, 22]],
    ['control', 90, 60, [-45, 45, -30, 30]],
    ['flag', 10, 14, [-5, 5, -7, 7]],
    ['core', 90, 6, [-45, 45, -2, 2]],
    ['earth', 12, 18, [-6, 6, -9, 9]],
    // With the plus beside the plate it belongs to, the arrows of what shines, a wiper's lead.
    ['source', 24, 30, [-14, 12, -15, 15]],
    ['electrolytic', 11, 28, [-15.5, 5.5, -14, 14]],
    ['led', 18, 18, [-9, 11.5, -16, 9]],
    ['transistor', 34, 34, [-17, 17, -15, 15]],
    ['inlet', 40, 56, [-20, 20, -28, 28]],
  ] as const)('%s: fills the room its wires leave it, and no more', (kind, length, breadth, room) => {
    expect(extent(drawn(symbol(kind, length, breadth), convention))).toEqual(room);
  });
});

test('a zigzag has six teeth, one up, one down, equally far apart', () => {
  const { spots } = drawn(symbol('resistor', 42, 14), 'zigzags');
  const teeth = spots.slice(1, -1);
  expect(teeth.map((t) => t[1])).toEqual([-7, 7, -7, 7, -7, 7]);
  // Of 42 px a seventh is a step: half of one before the first tooth and behind the last.
  teeth.forEach(([x], n) => expect(x).toBeCloseTo(-18 + 7.2 * n, 9));
});

test.each([
  // One bump for every dozen of px, three at least and seven at most, each as wide as it is high.
  [30, 3, 5],
  [48, 4, 6],
  [60, 5, 6],
  [200, 7, 6],
])('a coil %d px long has %d bumps of radius %d in its middle', (length, turns, radius) => {
  for (const kind of ['coil', 'primary'] as const) {
    const [stroke] = strokesOf(symbol(kind, length, 16), 'rectangles');
    const arcs = [...stroke!.d.matchAll(/a(\S+) (\S+) 0 0 ([01]) (\S+) 0/g)];
    expect(arcs.map((a) => [Number(a[1]), Number(a[2]), Number(a[4])])).toEqual(
      Array.from({ length: turns }, () => [radius, radius, 2 * radius]),
    );
    // The primary bulges to the other side: both windings face the core.
    expect(new Set(arcs.map((a) => a[3]))).toEqual(new Set([kind === 'coil' ? '1' : '0']));
    const { lines } = readStroke(stroke!);
    expect(lines[0]).toEqual({ from: [-length / 2, 0], to: [-turns * radius, 0] });
    expect(lines[1]!.from[0]).toBeCloseTo(turns * radius, 9);
    expect(lines[1]!.to).toEqual([length / 2, 0]);
  }
});

test('a choke of the older habit has its bar along the bumps, short of both ends', () => {
  const [, bar] = strokesOf(symbol('choke', 60, 20), 'zigzags');
  expect(readStroke(bar!).lines).toEqual([{ from: [-26, -9], to: [26, -9] }]);
});

test('the plus of an electrolytic and of a battery stands outside, at the plate it belongs to, its strokes crossing', () => {
  for (const [kind, length, breadth] of [
    ['electrolytic', 11, 28],
    ['source', 24, 30],
  ] as const) {
    const strokes = strokesOf(symbol(kind, length, breadth), 'rectangles').map(readStroke);
    const mark = strokes.at(-1)!;
    const [across, down] = mark.lines;
    const [cx, cy] = [(across!.from[0] + across!.to[0]) / 2, (down!.from[1] + down!.to[1]) / 2];
    expect([across!.from[1], down!.from[0]]).toEqual([cy, cx]);
    expect([across!.to[0] - across!.from[0], down!.to[1] - down!.from[1]]).toEqual([6, 6]);
    // Beside the first pin's plate, above its wire and below its upper edge.
    expect(cx).toBeLessThan(-length / 2 + 6);
    expect(cx).toBeGreaterThan(-length / 2 - 8);
    expect(cy).toBeLessThan(-6);
    expect(cy).toBeGreaterThan(-breadth / 2 - 0.1);
  }
  const solid = strokesOf(symbol('electrolytic', 11, 28), 'rectangles').filter((s) => s.solid);
  expect(solid.map((s) => extent(readStroke(s)))).toEqual([[2, 5.5, -14, 14]]);
});

test('what rectifies points from its first pin to its bar', () => {
  for (const kind of ['diode', 'zener', 'led'] as const) {
    const [triangle, bar] = strokesOf(symbol(kind, 18, 20), 'rectangles').map(readStroke);
    expect(extent(triangle!).slice(0, 2)).toEqual([-9, 9]);
    const base = triangle!.spots.filter((s) => s[0] === -9).map((s) => s[1]);
    expect(Math.min(...base)).toBe(-Math.max(...base));
    expect(Math.max(...base)).toBeGreaterThan(6);
    expect(touches(triangle!, [9, 0])).toBe(true);
    expect(touches(bar!, [9, 0])).toBe(true);
  }
});

test('the arrow of a transistor lies on its emitter, out of an NPN and into a PNP', () => {
  const arrow = (negative: boolean) => {
    const strokes = strokesOf(symbol('transistor', 34, 34, { negative }), 'rectangles');
    const emitter = readStroke(strokes[1]!).lines.find((l) => l.from[1] === 3.5)!;
    const spots = readStroke(strokes.find((s) => s.solid)!).spots;
    // The tip is the spot farthest from the middle of the other two.
    const three = spots.slice(0, 3);
    const tip = three
      .map((s, n) => {
        const [a, b] = three.filter((_, k) => k !== n);
        return { s, far: Math.hypot(s[0] - (a![0] + b![0]) / 2, s[1] - (a![1] + b![1]) / 2) };
      })
      .sort((p, q) => q.far - p.far)[0]!.s;
    const middle: Spot = [three.reduce((x, s) => x + s[0] / 3, 0), three.reduce((y, s) => y + s[1] / 3, 0)];
    const along = (s: Spot) => {
      const [dx, dy] = [emitter.to[0] - emitter.from[0], emitter.to[1] - emitter.from[1]];
      return ((s[0] - emitter.from[0]) * dx + (s[1] - emitter.from[1]) * dy) / Math.hypot(dx, dy);
    };
    return { out: along(tip) - along(middle), at: along(middle) / Math.hypot(12, 9.1) };
  };
  expect(arrow(false).out).toBeGreaterThan(1);
  expect(arrow(true).out).toBeLessThan(-1);
  for (const negative of [true, false]) {
    expect(arrow(negative).at).toBeGreaterThan(0);
    expect(arrow(negative).at).toBeLessThan(1);
  }
});

test('a switch of two poles opens both alike, joined by a dashed line between its levers', () => {
  const strokes = strokesOf(symbol('switch', 44, 40, { mirrored: true }), 'rectangles');
  const [upper, lower, link] = strokes;
  expect(strokes.map((s) => s.dashed ?? false)).toEqual([false, false, true]);
  const [a, b] = [readStroke(upper!), readStroke(lower!)];
  // 40 px high: the poles 24 apart, each lever raised from the left.
  b.spots.forEach((s, n) => expect([s[0], s[1] - a.spots[n]![1]]).toEqual([a.spots[n]![0], 24]));
  expect(a.spots[0]).toEqual([-22, -12]);
  const levers = [a, b].map((p) => p.lines.find((l) => l.from[1] !== l.to[1])!);
  for (const end of readStroke(link!).spots) {
    expect(end[0]).toBe(0);
    const near = levers.map(({ from, to }) => {
      const share = (0 - from[0]) / (to[0] - from[0]);
      return Math.abs(from[1] + share * (to[1] - from[1]) - end[1]);
    });
    expect(Math.min(...near)).toBeLessThan(1);
  }
  expect(strokesOf(symbol('switch', 44, 22), 'rectangles')).toHaveLength(1);
});

test('an inlet has a blade for each of its pins; a pot’s arrow points at its track; round things are round', () => {
  const pins = [-16, 0, 16].map((y) => ({ name: 'x', net: 'n', x: 20, y }));
  const [, ...blades] = strokesOf(symbol('inlet', 40, 56, { pins }), 'rectangles');
  expect(blades.map((s) => readStroke(s).lines)).toEqual([-16, 0, 16].map((y) => [{ from: [4, y], to: [20, y] }]));
  const [track, lead, arrow] = strokesOf(symbol('pot', 42, 34), 'rectangles').map(readStroke);
  expect(lead!.lines).toEqual([{ from: [0, -17], to: [0, -7] }]);
  const [x0, x1, y0, y1] = extent(arrow!);
  expect([x0! + x1!, y1! < 0 && y0! > -17]).toEqual([0, true]);
  expect(Math.abs(y1! - extent(track!)[2]!)).toBeLessThan(1);
  for (const kind of ['terminal', 'test-point', 'fan', 'valve', 'transistor'] as const) {
    const [ring] = strokesOf(symbol(kind, 30, 30), 'rectangles');
    expect(ring!.d).toBe('M-15 0a15 15 0 1 0 30 0a15 15 0 1 0 -30 0');
  }
});
