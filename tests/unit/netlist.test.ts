import fc from 'fast-check';
import { demoDesigns } from '@/core/design/demo-designs';
import { applyPatch, type Design } from '@/core/design/design';
import { arrangementOf, hasDiodes } from '@/core/design/source';
import { diodeCount } from '@/core/parts/arrangement';
import { canCount } from '@/core/design/bank';
import { arrangementFacts } from '@/core/design/source';
import { stagesOf } from '@/core/bench/stages';
import { GROUND, netAt, type Netlist, type NetPart } from '@/core/netlist/netlist';
import { netlistOf } from '@/core/netlist/netlist-of';
import { absurd } from '../support/designs';
import { clock, dome, drum, logger, physics } from '../support/demos';

const of = (list: Netlist, kind: NetPart['kind']) => list.parts.filter((p) => p.kind === kind);
const joined = (part: NetPart) => Object.fromEntries(part.pins.map((p) => [p.name, p.net]));

/** Nets that are reached from one another through parts that carry current. */
function reach(list: Netlist, from: string): Set<string> {
  const seen = new Set([from]);
  for (let grown = true; grown;) {
    grown = false;
    for (const part of list.parts) {
      if (part.kind === 'transformer') continue;
      const nets = part.pins.map((p) => p.net);
      if (!nets.some((n) => seen.has(n))) continue;
      for (const n of nets) if (!seen.has(n)) grown = Boolean(seen.add(n));
    }
  }
  return seen;
}

test.each(demoDesigns().map((d) => [d.name, d] as const))('%s: every net joins two pins or more', (_name, design) => {
  sound(netlistOf(design));
});

test('every design the program can hold has a netlist without loose ends', () => {
  fc.assert(
    fc.property(absurd, (design) => {
      sound(netlistOf(design));
      counted(design);
    }),
    { numRuns: 300 },
  );
});

function sound(list: Netlist): void {
  expect(new Set(list.parts.map((p) => p.ref)).size).toBe(list.parts.length);
  const pins = list.parts.flatMap((p) => p.pins.map((pin) => pin.net));
  for (const net of list.nets) {
    // The earth ends at the chassis, which is no part of it.
    const joins = pins.filter((p) => p === net.name).length;
    if (joins < (net.role === 'earth' ? 1 : 2)) throw new Error(`${net.name} joins ${joins}`);
  }
  expect(pins.filter((p) => !list.nets.some((n) => n.name === p))).toEqual([]);
  // Nothing on the mains is joined to what is touched but through the transformer.
  const mains = list.nets.find((n) => n.name === 'L');
  if (mains) expect(reach(list, 'L').has(GROUND)).toBe(false);
}

function counted(design: Design): void {
  const list = netlistOf(design);
  const anodes = list.parts
    .filter((p) => p.line === 'rectifier')
    .reduce((sum, p) => sum + (p.kind === 'bridge' ? 4 : p.pins.filter((x) => x.name.startsWith('anode')).length), 0);
  expect(anodes).toBe(hasDiodes(design) ? diodeCount(arrangementOf(design)) : 0);
  // A multiplier has its cans, chosen or not.
  const { ownCans, cans: places } = arrangementFacts(design);
  const cans = design.reservoir.capacitanceF > 0 || ownCans ? canCount(design.reservoir) * places : 0;
  expect(list.parts.filter((p) => p.line === 'reservoir')).toHaveLength(cans);
  // What the bench reads has a place to be read at.
  const read = list.tests.flatMap((t) => t.points);
  const wanted = stagesOf(design)
    .flatMap((s) => [...s.points, ...s.more])
    .filter((p) => !['mains', 'sink-warm', 'load-current'].includes(p));
  expect(wanted.filter((p) => !read.includes(p))).toEqual([]);
}

describe('the clock’s supply', () => {
  const list = netlistOf(clock);

  test('a bridge charges the reservoir between the raw rail and ground', () => {
    expect(
      of(list, 'diode')
        .filter((d) => d.line === 'rectifier')
        .map(joined),
    ).toEqual([
      { anode: 'AC 1', cathode: 'raw +' },
      { anode: GROUND, cathode: 'AC 2' },
      { anode: 'AC 2', cathode: 'raw +' },
      { anode: GROUND, cathode: 'AC 1' },
    ]);
    for (const can of list.parts.filter((p) => p.line === 'reservoir'))
      expect(joined(can)).toEqual({ plus: 'raw +', minus: GROUND });
  });

  test('mains come by fuse and switch to the primary, and the output leaves the regulator', () => {
    const [fuse] = of(list, 'fuse');
    const [sw] = of(list, 'switch');
    const [core] = of(list, 'transformer');
    expect(netAt(fuse!, 'a')).toBe('L');
    expect(netAt(sw!, 'a1')).toBe(netAt(fuse!, 'b'));
    expect(netAt(core!, 'primary L')).toBe(netAt(sw!, 'b1'));
    const out = of(list, 'terminal')[0]!;
    expect(list.parts.some((p) => p.block === 'regulator' && p.pins.some((x) => x.net === netAt(out, 'plus')))).toBe(
      true,
    );
    expect(() => netAt(out, 'minus')).toThrow(/no pin/);
  });

  test('a switch of two poles opens both leads; class II has no earth', () => {
    const two = netlistOf(applyPatch(clock, { mainsSide: { switchPoles: 2, insulation: 'class II' } }));
    const core = of(two, 'transformer')[0]!;
    expect(netAt(core, 'primary N')).toBe('N switched');
    expect(two.nets.some((n) => n.role === 'earth')).toBe(false);
  });

  test('what lies behind a fuse of the winding is another net than the winding', () => {
    const fused = netlistOf(applyPatch(clock, { mainsSide: { secondaryFuseA: 2 } }));
    const fuse = of(fused, 'fuse').find((f) => f.block === 'rectifier')!;
    expect(netAt(of(fused, 'transformer')[0]!, 'winding 1, start')).toBe(netAt(fuse, 'a'));
    expect(netAt(of(fused, 'diode')[0]!, 'anode')).toBe(netAt(fuse, 'b'));
  });
});

test('below ground everything polarised stands the other way round, and the regulator is its twin', () => {
  const list = netlistOf(drum);
  const minus = list.parts.filter((p) => p.rail === 1);
  for (const p of minus.filter((x) => x.kind === 'electrolytic')) expect(netAt(p, 'plus')).toBe(GROUND);
  const [plusU, minusU] = of(list, 'regulator');
  expect(minusU!.negative).toBe(true);
  expect(minusU!.value).not.toBe(plusU!.value);
  // The diode across each points from what stands higher behind it to its input, by magnitude.
  const [a, z] = list.parts.filter((p) => p.kind === 'diode' && p.what.includes('output to input'));
  expect(netAt(a!, 'cathode')).toBe(netAt(plusU!, 'in'));
  expect(netAt(z!, 'anode')).toBe(netAt(minusU!, 'in'));
});

test('a classic regulator’s twin wants larger capacitors at its pins', () => {
  const fixed = netlistOf(applyPatch(drum, { regulator: { kind: 'fixed', size: '78', outputV: 18 } } as never));
  const at = (rail: 0 | 1) =>
    fixed.parts.filter((p) => p.rail === rail && p.what.startsWith('Capacitor')).map((p) => p.value);
  expect(at(0)).toEqual(['0.33 µF', '0.1 µF']);
  expect(at(1)).toEqual(['2.2 µF', '1 µF']);
  expect(of(fixed, 'regulator').map((u) => u.value)).toEqual(['7818', '7918']);
});

test('pass transistors side by side each have an emitter and a resistor of their own', () => {
  const list = netlistOf(physics);
  const passes = list.parts.filter((p) => p.what === 'carries the load');
  const shares = list.parts.filter((p) => p.what === 'makes them share');
  expect(passes.length).toBeGreaterThan(1);
  expect(passes.map((p) => netAt(p, 'emitter'))).toEqual(shares.map((p) => netAt(p, 'a')));
  expect(new Set(passes.map((p) => netAt(p, 'emitter'))).size).toBe(passes.length);
  expect(new Set(shares.map((p) => netAt(p, 'b'))).size).toBe(1);
});

test('without a regulator reservoir and output are one place to read', () => {
  const raw = netlistOf(dome).tests;
  expect(raw.filter((t) => t.points.includes('output-loaded'))).toEqual(
    raw.filter((t) => t.points.includes('reservoir-loaded')),
  );
});

test('a battery has its fuse in the lead and no mains', () => {
  const list = netlistOf(applyPatch(logger, { mainsSide: { secondaryFuseA: 1 } }));
  expect(of(list, 'inlet')).toEqual([]);
  expect(netAt(of(list, 'fuse')[0]!, 'a')).toBe(netAt(of(list, 'source')[0]!, 'plus'));
});
