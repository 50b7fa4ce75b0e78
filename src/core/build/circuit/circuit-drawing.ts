import { GROUND, type Netlist } from '@/core/netlist/netlist';
import type { Box, CircuitDrawing, DrawnLabel, DrawnSymbol, Point, Wire } from './drawing';
import { bodyOf } from './drawing';
import { drawnNetlist } from './groups';
import type { Ladder } from './ladder';
import { outputLane } from './output-lane';
import { sourceLane } from './source-lane';

/** Lanes stand side by side as long as both fit into so much, px. */
const WIDE = 1230;
const BETWEEN = 34;
const EDGE = 12;

interface Lane {
  symbols: DrawnSymbol[];
  wires: Wire[];
  labels: DrawnLabel[];
  box: Box;
}

/**
 * The schematic of a netlist: the source with its rectifier and filter in one ladder, every output in one of its own, in
 * rows as wide as a screen.
 * @param said what a probe should read at a test point, by its reference
 * @param bears what a part without a rating of its own is to be bought for, by its reference
 */
export function circuitDrawing(
  netlist: Netlist,
  said: ReadonlyMap<string, string> = new Map(),
  bears: ReadonlyMap<string, string> = new Map(),
): CircuitDrawing {
  const drawn = drawnNetlist(netlist, said, bears);
  const made = new Set(drawn.groups.filter(([p]) => p.block === 'regulator').map(([p]) => p.output!));
  const split = made.has('main') && made.has('minus');
  const outputs = [...made]
    .filter((o) => !(split && o === 'minus'))
    .map((o) => (split && o === 'main' ? ['main', 'minus'] : [o]));
  const source = sourceLane(drawn);
  const lanes = [finished(source), ...outputs.map((o) => finished(outputLane(drawn, o, 0)))];
  const placed: Lane[] = [];
  let [x, y, tallest, width] = [0, 0, 0, 0];
  for (const lane of lanes) {
    if (x > 0 && x + lane.box.width > WIDE) {
      [x, y] = [0, y + tallest + BETWEEN];
      tallest = 0;
    }
    placed.push(moved(lane, x - lane.box.x + EDGE, y - lane.box.y + EDGE));
    x += lane.box.width + BETWEEN;
    width = Math.max(width, x - BETWEEN);
    tallest = Math.max(tallest, lane.box.height);
  }
  const symbols = placed.flatMap((l) => l.symbols);
  const wires = placed.flatMap((l) => l.wires);
  const pulsing = (net: string) => net === GROUND || ['winding', 'charging'].includes(drawn.netOf(net).role);
  return {
    width: Math.ceil(width + 2 * EDGE),
    height: Math.ceil(y + tallest + 2 * EDGE),
    symbols,
    wires,
    loop: loopOf(placed[0]!, pulsing),
    labels: placed.flatMap((l) => l.labels),
    dots: dotsOf(wires, symbols),
    hops: hopsOf(wires),
  };
}

function finished(lane: Ladder): Lane {
  lane.finish();
  const { symbols, wires, labels } = lane;
  const boxes: Box[] = [
    ...symbols.map(bodyOf),
    ...labels,
    ...wires.map(({ from, to }) => ({
      x: Math.min(from.x, to.x),
      y: Math.min(from.y, to.y),
      width: Math.abs(from.x - to.x),
      height: Math.abs(from.y - to.y),
    })),
  ];
  const x = Math.min(...boxes.map((b) => b.x));
  const y = Math.min(...boxes.map((b) => b.y));
  return {
    symbols,
    wires,
    labels,
    box: {
      x,
      y,
      width: Math.max(...boxes.map((b) => b.x + b.width)) - x,
      height: Math.max(...boxes.map((b) => b.y + b.height)) - y,
    },
  };
}

function moved({ symbols, wires, labels, box }: Lane, dx: number, dy: number): Lane {
  const to = <T extends Point>(p: T): T => ({ ...p, x: p.x + dx, y: p.y + dy });
  return {
    symbols: symbols.map((s) => ({ ...to(s), pins: s.pins.map(to) })),
    wires: wires.map((w) => ({ ...w, from: to(w.from), to: to(w.to) })),
    labels: labels.map(to),
    box: to(box),
  };
}

/** What of a source's wires the pulses go through: up to the last can they charge. */
function loopOf({ wires, symbols }: Lane, pulsing: (net: string) => boolean): Wire[] {
  const cans = symbols.filter((s) => s.charging && s.kind === 'electrolytic').map((s) => s.x);
  const last = Math.max(...cans, ...(cans.length === 0 ? symbols.filter((s) => s.charging).map((s) => s.x) : []));
  return wires
    .filter((w) => pulsing(w.net) && Math.min(w.from.x, w.to.x) <= last + NEAR)
    .map((w) => ({
      ...w,
      from: { ...w.from, x: Math.min(w.from.x, last) },
      to: { ...w.to, x: Math.min(w.to.x, last) },
    }));
}

const on = (p: Point, { from, to }: Wire): boolean =>
  from.x === to.x
    ? near(p.x, from.x) && p.y >= Math.min(from.y, to.y) - NEAR && p.y <= Math.max(from.y, to.y) + NEAR
    : near(p.y, from.y) && p.x >= Math.min(from.x, to.x) - NEAR && p.x <= Math.max(from.x, to.x) + NEAR;
const NEAR = 0.01;
const near = (a: number, b: number) => Math.abs(a - b) < NEAR;

/** Where three ways or more of one net come together: ends of wires and pins, on others' ends or on their way. */
function dotsOf(wires: readonly Wire[], symbols: readonly DrawnSymbol[]): Point[] {
  const dots: Point[] = [];
  const nets = new Map<string, Wire[]>();
  for (const w of wires) nets.set(w.net, [...(nets.get(w.net) ?? []), w]);
  const pins = new Map<string, Point[]>();
  for (const s of symbols) for (const p of s.pins) pins.set(p.net, [...(pins.get(p.net) ?? []), p]);
  for (const [net, mine] of nets) {
    for (const p of mine.flatMap((w) => [w.from, w.to])) {
      const through = mine.filter((w) => on(p, w));
      const ways = through.reduce(
        (n, w) =>
          n + ((near(p.x, w.from.x) && near(p.y, w.from.y)) || (near(p.x, w.to.x) && near(p.y, w.to.y)) ? 1 : 2),
        (pins.get(net) ?? []).some((q) => near(p.x, q.x) && near(p.y, q.y)) ? 1 : 0,
      );
      if (ways >= 3 && !dots.some((d) => near(d.x, p.x) && near(d.y, p.y))) dots.push({ x: p.x, y: p.y });
    }
  }
  return dots;
}

/** Where an upright wire passes over a level one of another net. */
function hopsOf(wires: readonly Wire[]): Point[] {
  const upright = wires.filter((w) => near(w.from.x, w.to.x));
  const level = wires.filter((w) => near(w.from.y, w.to.y) && !near(w.from.x, w.to.x));
  const hops: Point[] = [];
  for (const u of upright) {
    const [top, bottom] = [Math.min(u.from.y, u.to.y), Math.max(u.from.y, u.to.y)];
    for (const l of level) {
      if (l.net === u.net) continue;
      const inside = l.from.y > top + NEAR && l.from.y < bottom - NEAR;
      const [a, b] = [Math.min(l.from.x, l.to.x), Math.max(l.from.x, l.to.x)];
      if (inside && u.from.x > a + NEAR && u.from.x < b - NEAR) hops.push({ x: u.from.x, y: l.from.y });
    }
  }
  return hops;
}
