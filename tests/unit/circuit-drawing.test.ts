import fc from 'fast-check';
import { circuitDrawing } from '@/core/build/circuit/circuit-drawing';
import { bodyOf, type Box, type CircuitDrawing, type Point, type Wire } from '@/core/build/circuit/drawing';
import { resistorRatings, soldFor } from '@/core/build/circuit/resistor-ratings';
import { demoDesigns } from '@/core/design/demo-designs';
import type { Design } from '@/core/design/design';
import { netlistOf } from '@/core/netlist/netlist-of';
import { billOf } from '@/core/study/bill';
import { studyDesign } from '@/core/study/study';
import { absurd } from '../support/designs';
import { clock, drum } from '../support/demos';
import { overBudget } from '../support/layout-budgets';

/** With the longest rating on every resistor: what is drawn once the bill is known. */
const drawn = (design: Design) => {
  const netlist = netlistOf(design);
  const rated = netlist.parts.filter((p) => p.kind === 'resistor').map((p) => [p.ref, '0.25 W'] as const);
  return circuitDrawing(netlist, new Map(), new Map(rated));
};

test.each(demoDesigns().map((d) => [d.name, d] as const))('%s: drawn without anything on anything', (_name, design) => {
  clean(drawn(design));
  joined(design);
  const { width, height, wires, hops } = drawn(design);
  const long = ({ from, to }: Wire) => Math.abs(to.x - from.x) + Math.abs(to.y - from.y);
  expect(
    overBudget(design, ({ circuit }) => ({
      width: [width, circuit[0]],
      height: [height, circuit[1]],
      wires: [wires.reduce((sum, w) => sum + long(w), 0), circuit[2]],
      crossings: [hops.length, circuit[3]],
    })),
  ).toEqual([]);
});

test('every power part says what its metal is joined to; a split supply’s two tabs differ', () => {
  const tabs = (design: Design) =>
    drawn(design).labels.flatMap((l) =>
      l.lines.filter((line) => line.startsWith('tab: ')).map((line) => `${l.lines[0]} ${line}`),
    );
  expect(tabs(clock)).toEqual(['U1 tab: 0 V']);
  expect(tabs(drum)).toEqual(['U1 tab: 0 V', 'U2 tab: raw −']);
});

test('a resistor says for how many watts it is to be bought: the next sold that is twice what it burns', () => {
  expect([0, 0.125, 0.1251, 0.9, 20, 60].map(soldFor)).toEqual([0.25, 0.25, 0.5, 2, 50, 120]);
  // 220 kΩ across some 40 V burn 7 mW; a lamp's dropper of 1 kΩ at 30 mA 0.9 W.
  const netlist = netlistOf(clock);
  const [bleeder] = netlist.parts.filter((p) => p.line === 'bleeder');
  const bought = resistorRatings(netlist, billOf(studyDesign(clock)));
  expect(bought.get(bleeder!.ref)).toBe('0.25 W');
  const lines = circuitDrawing(netlist, new Map(), bought).labels.find((l) => l.lines[0] === bleeder!.ref)!.lines;
  expect(lines).toContain('0.25 W');
  expect(resistorRatings(netlist, [{ references: bleeder!.ref, lossW: 0.9 }]).get(bleeder!.ref)).toBe('2 W');
});

test('500 random designs: nothing lies on anything, and the wires join what the netlist joins', () => {
  fc.assert(
    fc.property(absurd, (design) => {
      clean(drawn(design));
      joined(design);
    }),
    { numRuns: 500 },
  );
});

const inset = ({ x, y, width, height }: Box, by: number): Box => ({
  x: x + by,
  y: y + by,
  width: width - 2 * by,
  height: height - 2 * by,
});
const meet = (a: Box, b: Box) =>
  a.x < b.x + b.width && b.x < a.x + a.width && a.y < b.y + b.height && b.y < a.y + a.height;
const boxOf = (from: Point, to: Point): Box => ({
  x: Math.min(from.x, to.x) - 0.2,
  y: Math.min(from.y, to.y) - 0.2,
  width: Math.abs(from.x - to.x) + 0.4,
  height: Math.abs(from.y - to.y) + 0.4,
});

/** What stands on a wire of its own net. */
const MARKS = new Set(['test-point', 'terminal', 'flag']);

/** No symbol on a symbol, no label on either, no wire through one or the other. */
function clean({ symbols, wires, labels, width, height }: CircuitDrawing): void {
  const bodies = symbols.map((s) => ({ name: s.refs.join() || s.kind, box: inset(bodyOf(s), 1.2) }));
  // What is written inside a box is inside it.
  const boxed = (refs: readonly string[]) =>
    symbols.some((s) => (s.kind === 'regulator' || s.kind === 'control') && s.refs[0] === refs[0]);
  const texts = labels.map((l) => ({ name: l.lines.join(' '), box: l as Box, inside: boxed(l.refs) }));
  const faults: string[] = [];
  bodies.forEach((a, n) =>
    bodies.slice(n + 1).forEach((b) => meet(a.box, b.box) && faults.push(`${a.name} on ${b.name}`)),
  );
  texts.forEach((a, n) =>
    texts.slice(n + 1).forEach((b) => meet(a.box, b.box) && faults.push(`'${a.name}' on '${b.name}'`)),
  );
  for (const t of texts)
    for (const [n, b] of bodies.entries()) {
      const own = t.inside && symbols[n]!.refs[0] === labels[texts.indexOf(t)]!.refs[0];
      if (!own && meet(t.box, b.box)) faults.push(`'${t.name}' on ${b.name}`);
    }
  for (const { from, to, net } of wires) {
    const wire = boxOf(from, to);
    for (const [n, b] of bodies.entries()) {
      const marks = MARKS.has(symbols[n]!.kind) && symbols[n]!.pins.some((p) => p.net === net);
      if (!marks && meet(wire, b.box)) faults.push(`wire of ${net} through ${b.name}`);
    }
    for (const t of texts) if (meet(wire, t.box)) faults.push(`wire of ${net} through '${t.name}'`);
    if (from.x !== to.x && from.y !== to.y) faults.push(`wire of ${net} askew`);
  }
  for (const b of [...bodies, ...texts])
    if (b.box.x < 0 || b.box.y < 0 || b.box.x + b.box.width > width || b.box.y + b.box.height > height)
      faults.push(`${b.name} outside`);
  expect(faults).toEqual([]);
}

/** Follows the wires from end to end, without looking at what they are called, and compares with the netlist. */
function joined(design: Design): void {
  const list = netlistOf(design);
  const { wires, symbols } = drawn(design);
  const group = wires.map((_, n) => n);
  const root = (n: number): number => (group[n] === n ? n : (group[n] = root(group[n]!)));
  const on = (p: Point, n: number) => {
    const { from, to } = wires[n]!;
    return from.x === to.x
      ? Math.abs(p.x - from.x) < 0.01 && p.y > Math.min(from.y, to.y) - 0.01 && p.y < Math.max(from.y, to.y) + 0.01
      : Math.abs(p.y - from.y) < 0.01 && p.x > Math.min(from.x, to.x) - 0.01 && p.x < Math.max(from.x, to.x) + 0.01;
  };
  wires.forEach((w, n) =>
    wires.forEach((_, m) => {
      if (m !== n && (on(w.from, m) || on(w.to, m))) group[root(n)] = root(m);
    }),
  );
  const reached = new Map<string, Set<number>>();
  for (const s of symbols)
    for (const pin of s.pins) {
      const at = wires.findIndex((_, n) => on(pin, n));
      if (at < 0) throw new Error(`${s.refs.join() || s.kind} ${pin.name} (${pin.net}) hangs in the air`);
      reached.set(pin.net, (reached.get(pin.net) ?? new Set()).add(root(at)));
    }
  // A net may be led on by name; two nets never share a wire.
  const owner = new Map<number, string>();
  for (const [net, pieces] of reached)
    for (const piece of pieces) {
      const other = owner.get(piece);
      if (other !== undefined && other !== net) throw new Error(`${net} touches ${other}`);
      owner.set(piece, net);
    }
  for (const [net, pieces] of reached) {
    if (pieces.size === 1) continue;
    const flags = symbols.filter((s) => s.kind === 'flag' && s.pins.some((p) => p.net === net));
    expect([net, flags.length + 1]).toEqual([net, Math.max(pieces.size, flags.length + 1)]);
  }
  // Every pin of the netlist is drawn.
  const alike = new Map(list.nets.map((n) => [n.name, n.alike ?? n.name]));
  for (const part of list.parts) {
    const mine = symbols.filter((s) => s.refs.includes(part.ref));
    const nets = new Set(mine.flatMap((s) => s.pins.map((p) => p.net)));
    for (const pin of part.pins)
      if (!nets.has(alike.get(pin.net)!)) throw new Error(`${part.ref} ${pin.name} is not drawn on ${pin.net}`);
  }
}
