import { blankDesign, MAINS_PRESETS } from '@/core/design/defaults';
import { applyPatch } from '@/core/design/design';
import type { Battery } from '@/core/parts/dc-source';
import type { Part } from '@/core/drawer/part';
import { judge } from '@/core/judge/judge';
import { rulesDeciding } from '@/core/judge/rules';
import { triesOf } from '@/core/size/candidate';
import { feedPatch } from '@/core/size/feeds';
import { designFromReadings } from '@/core/size/from-readings';
import { designFromSource } from '@/core/size/from-source';
import { tryPart } from '@/core/size/picking';
import { propose } from '@/core/size/propose';
import { CONDITIONS } from '@/core/circuit/condition';
import { networkOf } from '@/core/circuit/network-of';
import { SolveError } from '@/core/solve/solve-error';
import { solveSteady } from '@/core/solve/steady';
import { studyDesign } from '@/core/study/study';
import { demoDrawer } from '@/server/demo-drawer';
import { clock, dome } from '../support/demos';

const { mains } = MAINS_PRESETS[0]!;

describe('a source in hand', () => {
  test('the mains is none; an AC adapter is a sealed transformer, kept', () => {
    expect(feedPatch('mains', 12, 1)).toBeNull();
    expect(feedPatch('ac-adapter', 12, 1.5)).toEqual({
      transformer: { ratedV: 12, ratedVA: 18, sealed: true },
      fixed: ['transformer'],
    });
  });

  test('a DC adapter is what its plate says; a regulated one gives up a fifth above it', () => {
    const plain = feedPatch('dc-adapter', 9, 0.5)!.source as unknown as Record<string, unknown>;
    expect(plain).toMatchObject({ kind: 'adapter', ratedV: 9, ratedA: 0.5 });
    expect(plain['idlePct']).toBeGreaterThan(20);
    const held = feedPatch('dc-regulated', 9, 0.5)!.source as unknown as Record<string, number>;
    expect([held['ratedV'], held['ratedA'], held['limitA']]).toEqual([9, 0.5, 0.6]);
    expect(held['idlePct']).toBeLessThan(5);
  });

  test('a battery of six volts has half the cells of one of twelve; twice the ampere-hours is half the ohms', () => {
    // Lead: 12.9 V fresh, 11 V empty, 35 mΩ at 12 V 7 Ah.
    expect(feedPatch('battery', 6, 7)!.source).toEqual({
      kind: 'battery',
      freshV: 6.45,
      emptyV: 5.5,
      resistanceOhm: 0.0175,
      capacityAh: 7,
      reverseDiode: true,
    });
    expect((feedPatch('battery', 12, 14)!.source as unknown as Battery).resistanceOhm).toBeCloseTo(0.0175, 9);
  });

  test('a first design around each: what it bears, at the volts its own resistance leaves', () => {
    const adapter = designFromSource('ac-adapter', 12, 1, mains);
    expect(adapter.name).toBe('12 V 1 A AC adapter');
    expect(adapter.transformer).toMatchObject({ ratedV: 12, ratedVA: 12, sealed: true });
    expect(adapter.source.kind).toBe('mains');
    const battery = designFromSource('battery', 12, 7, mains);
    expect(battery.name).toBe('12 V battery');
    expect(battery.demand.outputA).toBe(0.7);
    // Half used: 11.95 V less 0.7 A in 35 mΩ.
    expect(battery.demand.outputV).toBeCloseTo(11.9, 9);
    expect(battery.demand.rippleVpp).toBe(1.2);
    // 12.9 V over 0.85 is 15.2 V: the next can bears 16.
    expect(battery.reservoir).toMatchObject({ capacitanceF: 100e-6, ratedV: 16 });
    const plug = designFromSource('dc-regulated', 12, 2, mains);
    expect([plug.name, plug.demand.outputA]).toEqual(['12 V DC adapter', 2.4]);
    // The highest there is stays the highest there is.
    expect(designFromSource('dc-adapter', 900, 0.1, mains).reservoir.ratedV).toBeGreaterThan(400);
  });
});

describe('a box and a meter', () => {
  const read = { mainsV: 230, idleV: 36.5, loadedV: 30, loadA: 1.2, rippleVpp: 1.8, flatTopPct: 0 };

  test('its copper is such that the loaded reading comes out to a thousandth', () => {
    for (const loadedV of [33, 30, 27]) {
      const found = designFromReadings({ ...read, loadedV }, mains);
      const { meanV } = solveSteady(networkOf(found, CONDITIONS.nominal, { mainsV: 230 })).rails[0]!;
      expect(Math.abs(meanV / loadedV - 1)).toBeLessThan(1e-3);
    }
  });

  test('capacitance by what the ripple takes; where nobody read it, by six hundredths of the volts', () => {
    // 0.8 · 1.2 A / (100 Hz · 1.8 V) = 5.3 mF: 4.7 mF of E6.
    expect(designFromReadings(read, mains).reservoir.capacitanceF).toBeCloseTo(4700e-6, 9);
    // 0.06 · 30 V is the same 1.8 V.
    expect(designFromReadings({ ...read, rippleVpp: null }, mains).reservoir.capacitanceF).toBeCloseTo(4700e-6, 9);
    const little = designFromReadings({ ...read, rippleVpp: 0.8 }, mains);
    // 12 mF: 10 mF. What is allowed is half as much again as was read.
    expect(little.reservoir.capacitanceF).toBeCloseTo(10e-3, 9);
    expect(little.demand.rippleVpp).toBe(1.2);
  });

  test('the can for its idle volts at high line, the diodes for its load', () => {
    // 36.5 V · 1.1 / 0.85 = 47.2 V.
    expect(designFromReadings(read, mains).reservoir.ratedV).toBe(50);
    // Read at 253 V it idles lower on 230.
    expect(designFromReadings({ ...read, mainsV: 253, idleV: 36.5 }, mains).reservoir.ratedV).toBe(50);
    expect(designFromReadings({ ...read, mainsV: 280, loadedV: 31 }, mains).reservoir.ratedV).toBe(50);
    const diode = (loadA: number) => designFromReadings({ ...read, loadA }, mains).rectifier.diode;
    expect([0.5, 0.8, 0.9, 3, 3.2].map(diode)).toEqual(['si-1a', 'si-1a', 'si-3a', 'si-3a', 'si-25a']);
  });

  test('readings that ask for less than no copper are refused with a sentence', () => {
    expect(() => designFromReadings({ ...read, loadedV: 36.4 }, mains)).toThrow(SolveError);
    expect(() => designFromReadings({ ...read, loadedV: 36.4 }, mains)).toThrow(/without any copper/);
  });
});

test('a part tried says what is tightest of what it decides, its price for all its pieces, what all of it loses', () => {
  const parts = demoDrawer() as Part[];
  for (const role of ['transformer', 'reservoir', 'sink'] as const) {
    const tries = triesOf(clock, role, parts);
    expect(tries.length).toBeGreaterThan(0);
    for (const one of tries.slice(0, 3)) {
      const found = tryPart(clock, role, one)!;
      const study = studyDesign(applyPatch(clock, found.patch));
      const verdicts = judge(study);
      const own = verdicts.filter((v) => rulesDeciding(role).includes(v.id) && !v.caution);
      expect(found.tightest!.left).toBeCloseTo(Math.min(...own.map((v) => v.left)), 6);
      expect(own.find((v) => v.title === found.tightest!.title)!.left).toBeCloseTo(found.tightest!.left, 6);
      expect(found.fails).toBe(verdicts.filter((v) => v.state === 'fails').length);
      const { winding, rectifier, regulator } = study.nominal.watts;
      expect(found.lostW).toBeCloseTo(winding + rectifier + regulator, 6);
      expect(found.priceEur).toBe(one.part.priceEur === null ? null : one.part.priceEur * one.use.pieces);
    }
  }
  // What cannot be solved is no candidate.
  const hopeless = applyPatch(dome, { demand: { kind: 'power' }, reservoir: { capacitanceF: 0 } });
  const [any] = triesOf(clock, 'sink', parts);
  expect(tryPart(hopeless, 'sink', any!)).toBeNull();
});

test('a winding of half the load’s watts or less, or volts it could never reach, is not tried', () => {
  const winding = (demoDrawer() as Part[]).find((p) => p.kind === 'transformer' && p.ratings['windings'] !== 2)!;
  const ask = { outputV: 20, outputA: 1, tolerancePct: 5, rippleVpp: 0.01, kind: 'current' } as const;
  const tried = (volts: number, va: number) =>
    triesOf(blankDesign('n', ask, mains), 'transformer', [
      { ...winding, ratings: { ...winding.ratings, secondaryV: volts, sizeVA: va } },
    ]).length > 0;
  expect([10.9, 11.1, 57.9, 58.1].map((v) => tried(v, 60))).toEqual([false, true, true, false]);
  expect([9.9, 10.1].map((va) => tried(20, va))).toEqual([false, true]);
});

describe('what a proposal says of its parts', () => {
  const text = (
    outputV: number,
    outputA: number,
    tolerancePct: number,
    station: string,
    feed: Parameters<typeof propose>[3] = null,
  ) => {
    const { design, reasons } = propose(
      'n',
      { outputV, outputA, tolerancePct, rippleVpp: 0.05, kind: 'current' },
      mains,
      feed,
    );
    return { design, text: reasons.find((r) => r.station === station)!.text };
  };

  test('a junction that stands it without a sink, and one that is kept cool by one', () => {
    const cold = text(12, 0.05, 5, 'regulator');
    expect(cold.design.heat.sinkKPerW).toBeNull();
    expect(cold.text).toMatch(/, which it stands without a sink\.$/);
    const hot = text(12, 1, 5, 'regulator');
    expect(hot.design.heat.sinkKPerW).toBeGreaterThan(0);
    expect(hot.text).toMatch(new RegExp(`; a ${hot.design.heat.sinkKPerW} K/W sink keeps the junction at`));
  });

  test('diodes by their number and their class; a lead that needs none', () => {
    expect(text(12, 0.5, 5, 'rectifier').text).toMatch(/^Bridge of .+: each carries/);
    const bare = { source: { ...feedPatch('battery', 12, 7)!.source!, reverseDiode: false } };
    expect(text(9, 0.2, 5, 'rectifier', bare as never).text).toBe('None: swapped leads reach everything.');
    expect(text(9, 0.2, 5, 'rectifier', feedPatch('battery', 12, 7)).text).toMatch(
      /^In the lead, against swapped ones: a/,
    );
  });

  test('a winding says what the next lower one fails at', () => {
    const { text: said, design } = text(24, 0.4, 5, 'winding');
    expect(said).toMatch(/^22 V, \d+ VA: at low line the valley stays/);
    const lower = /([\d.]+) V was tried: (.+) fails\.$/.exec(said)!;
    expect(Number(lower[1])).toBeLessThan(design.transformer.ratedV);
    const worse = judge(studyDesign(applyPatch(design, { transformer: { ratedV: Number(lower[1]) } })));
    expect(worse.some((v) => v.state === 'fails')).toBe(true);
  });
});
