import fc from 'fast-check';
import { pinoutOf } from '@/core/build/pinouts';
import { hazardousNets } from '@/core/build/hazardous-nets';
import { valueEditOf } from '@/core/build/value-edit';
import { sectionFor } from '@/core/build/wire-size';
import { wiring } from '@/core/build/wiring';
import { wiringCsv } from '@/core/build/wiring-csv';
import { demoDesigns } from '@/core/design/demo-designs';
import { applyPatch, type Design } from '@/core/design/design';
import { mainModel } from '@/core/design/outputs';
import { readDesign } from '@/core/design/schema';
import { mainsSide } from '@/core/mains-side/mains-side';
import { netlistCsv, netlistJson } from '@/core/netlist/netlist-files';
import { netlistOf } from '@/core/netlist/netlist-of';
import { referencesIn, referencesOf } from '@/core/netlist/references';
import { studyDesign } from '@/core/study/study';
import { absurd } from '../support/designs';
import { clock, dome, drum, physics, tide } from '../support/demos';

const wires = (design: Design) => {
  const study = studyDesign(design);
  return wiring(study, netlistOf(design), mainsSide(study), () => null);
};

test('a can in a clamp is wired at both ends, and the pulses flow to both; a small one is soldered in', () => {
  const can = wires(dome).filter((r) => r.from.startsWith('C1'));
  expect(can.map((r) => [r.from, r.to])).toEqual(
    expect.arrayContaining([
      ['C1 plus', 'board, raw +'],
      ['C1 minus', 'board, 0 V'],
    ]),
  );
  // The output's ground leaves from the star.
  expect(wires(dome).find((r) => r.from === 'J2 0 V')!.to).toBe('C1 minus, the star');
  for (const r of can) {
    expect(r.peakA!.value).toBeGreaterThan(10);
    expect(r.hum).not.toBeNull();
  }
  // 2200 µF of 50 V: 18 mm across.
  expect(wires(drum).some((r) => r.from.startsWith('C1'))).toBe(false);
});

test('a choke’s wires carry what it carries: 45 mA and the ripple on it, not the pulses of a reservoir', () => {
  const choke = wires(tide).filter((r) => r.from.startsWith('L1'));
  expect(choke).toHaveLength(2);
  for (const r of choke) {
    expect(r.rmsA!.value).toBeGreaterThan(0.045);
    expect(r.rmsA!.value).toBeLessThan(0.08);
    expect(r.hum).toBeNull();
  }
});

test('where the box says how long a wire is, it is that long and as thick as that asks for', () => {
  const study = studyDesign(dome);
  const [near, far] = [0.1, 1].map((m) =>
    wiring(study, netlistOf(dome), mainsSide(study), (from) =>
      from === 'T1'
        ? {
            id: '',
            label: '',
            value: 1000 * m,
            unit: 'mm',
            origin: 'chosen',
            expression: '',
            inputs: [],
            source: '',
            assumes: [],
          }
        : null,
    ).find((r) => r.from === 'T1 winding 1, start')!,
  );
  expect([near!.length!.value, far!.length!.value]).toEqual([100, 1000]);
  // 17.2 mΩ·mm² a metre, 50 mV: at a metre the loss decides.
  expect(far!.section.value).toBeGreaterThanOrEqual((0.0172 * 1 * far!.rmsA!.value) / 0.05);
  expect(near!.section.value).toBeLessThan(far!.section.value);
});

describe('the wiring list of the dome’s supply', () => {
  const rows = wires(dome);
  const row = (id: RegExp) => rows.find((r) => id.test(r.id))!;

  test('mains go from part to part, and end at the transformer', () => {
    const mains = rows.filter((r) => r.role === 'mains').map((r) => [r.from, r.to]);
    const ends = mains.flat();
    expect(ends.filter((e) => e.startsWith('T1'))).toHaveLength(2);
    expect(ends).toContain('J1 L');
    expect(mains.every(([from, to]) => !`${from}${to}`.includes('board'))).toBe(true);
    for (const r of rows.filter((w) => w.role === 'mains')) expect(r.size.mm2).toBeGreaterThanOrEqual(0.75);
  });

  test('the winding’s wire carries the pulses: thick enough, and it hums by its own resistance', () => {
    const winding = row(/^T1 winding 1, start/);
    const study = studyDesign(dome);
    const worst = Math.max(...study.conditions.map((c) => study.at(c).solution.windings[0]!.rmsA));
    expect(winding.rmsA!.value).toBeLessThan(1.001 * worst);
    expect(winding.rmsA!.value).toBeGreaterThan(0.9 * worst);
    expect(winding.peakA!.value).toBeGreaterThan(2 * winding.rmsA!.value);
    // 4 A a mm², whichever way it is looked at.
    expect(winding.rmsA!.value / winding.size.mm2).toBeLessThanOrEqual(4);
    // 17.2 mΩ a metre of a square millimetre: a tenth of that over the section, times the pulse.
    expect(winding.hum!.value).toBeCloseTo((0.00172 / winding.size.mm2) * winding.peakA!.value, 9);
  });

  test('the output takes its full load out and back, and drops no more than 50 mV on 300 mm', () => {
    const out = rows.filter((r) => r.from.startsWith('J2'));
    expect(out.map((r) => r.rmsA!.value)).toEqual([4, 4]);
    for (const r of out) expect((0.0172 * 0.3 * 4) / r.size.mm2).toBeLessThanOrEqual(0.05);
    expect(out.find((r) => r.net === '0 V')!.colour).toBe('black');
  });

  test('earth is green and yellow, goes to a screw of its own, and is as thick as the mains', () => {
    const earth = row(/^J1 PE/);
    expect(earth.to).toMatch(/its own screw/);
    expect(earth.colour).toMatch(/^green-yellow/);
    expect(earth.size.mm2).toBeGreaterThanOrEqual(0.75);
    // From 12 V the same watts are twenty times the amperes: both grow.
    const heavy = wires(applyPatch(clock, { mains: { voltageRms: 12 } }));
    const thick = (role: string) => heavy.filter((r) => r.role === role).map((r) => r.size.mm2);
    expect(Math.min(...thick('mains'))).toBeGreaterThan(0.75);
    expect(thick('earth')).toEqual([Math.max(...thick('mains'))]);
  });

  test('as a file it has a row a wire', () => {
    const [head, ...lines] = wiringCsv(rows).trim().split('\r\n');
    expect(head).toBe('from,to,net,A RMS,A peak,V to ground at most,mm long,mm2,AWG,colour,ends');
    expect(lines).toHaveLength(rows.length);
  });
});

test('a section is the least that is sold above what it has to carry, lose and be handled at', () => {
  const mm2 = (...asked: Parameters<typeof sectionFor>) => sectionFor(...asked).size.mm2;
  // 3 A: 0.75 by what it carries; over 0.3 m it loses 20 mV at that.
  expect(mm2('winding', 3, 24, 0.3)).toBe(0.75);
  expect(mm2('winding', 3.01, 24, 0.3)).toBe(1);
  // 5 V may lose 50 mV; 1 V only 10: 17.2 mΩ × 0.3 × 2 A / 10 mV = 1.03.
  expect(mm2('output', 2, 5, 0.3)).toBe(0.5);
  expect(mm2('output', 2, 1, 0.3)).toBe(1.5);
  expect(mm2('output', 0.01, 24, 0.3)).toBe(0.25);
  expect(mm2('mains', 0.1, 24, 0.3)).toBe(0.75);
  expect(sectionFor('mains', 0.1, 24, 0.3).size.awg).toBe(18);
});

test('every design that can be solved has its list, each wire with a section and no more than one of each', () => {
  fc.assert(
    fc.property(fc.constantFrom(...demoDesigns()), (design) => {
      const rows = wires(design);
      expect(new Set(rows.map((r) => r.id)).size).toBe(rows.length);
      for (const r of rows) {
        expect(r.size.mm2).toBeGreaterThan(0.2);
        expect(Number.isFinite(r.rmsA?.value ?? 0)).toBe(true);
      }
    }),
    { numRuns: 8 },
  );
});

describe('nets nobody touches', () => {
  const red = (design: Design) => hazardousNets(design, netlistOf(design), studyDesign(design).idle);
  test('the mains always; the raw rail of 180 V, never the ground', () => {
    const nets = red(tide);
    for (const net of ['L', 'N', 'raw +', 'AC 1']) expect(nets).toContain(net);
    expect(nets).not.toContain('0 V');
  });
  test('of 24 V only the mains side of it and a winding above 25 V', () => {
    const nets = red(clock);
    expect(nets).not.toContain('raw +');
    expect(nets).not.toContain('24 V');
  });
  test('two rails of 34 V stand 68 V apart', () => {
    expect(red(drum)).toContain('raw −');
    expect(red(drum)).not.toContain('+18 V');
  });
});

describe('legs', () => {
  const SHORT: Record<string, string> = { input: 'in', output: 'out', ADJ: 'adjust' };
  const REGULATORS = [
    { kind: 'fixed', size: '78', outputV: 12 },
    { kind: 'fixed', size: '78L', outputV: 12 },
    { kind: 'adjustable', part: '317', r1Ohm: 240, r2Ohm: 2000, potOhm: null, adjCapacitor: true },
    { kind: 'low-dropout', part: 'ldo-1a5', outputV: 12, boardCm2: 6 },
    { kind: 'low-dropout', part: 'ldo-800', outputV: 12, boardCm2: 6 },
    ...['bd139', 'tip122', 'tip3055'].map((transistor) => ({
      kind: 'follower',
      zenerV: 12,
      zenerW: 1,
      transistor,
      gain: null,
      seriesOhm: 470,
      limitOhm: null,
      passes: 1,
      emitterOhm: 0,
    })),
  ];
  test.each(REGULATORS)('$kind: the card and the class table name the same legs in the same order', (regulator) => {
    const design = applyPatch(clock, { regulator } as never);
    const { pass } = mainModel(design)!;
    const device = netlistOf(design).parts.find((p) => p.kind === 'regulator' || p.what === 'carries the load')!;
    const legs = pass.pins
      .split(';')[0]!
      .split(', ')
      .map((l) => SHORT[l] ?? l);
    const card = pinoutOf(device)!;
    expect(card.legs).toEqual(legs);
    expect(card.housing).toBe(pass.package);
    // Every leg that is a pin of the circuit is one by that name.
    for (const leg of card.legs) expect(device.pins.map((p) => p.name)).toContain(leg);
  });

  test('a twin’s legs lie otherwise, and its metal is at its input', () => {
    expect(pinoutOf({ kind: 'regulator', value: '7912' })).toMatchObject({ legs: ['ground', 'in', 'out'], tab: 'in' });
    expect(pinoutOf({ kind: 'regulator', value: '337' })).toMatchObject({ legs: ['adjust', 'in', 'out'], tab: 'in' });
  });

  test('what has no right way round has no card, and small transistors are to be measured', () => {
    expect(pinoutOf({ kind: 'resistor', value: '1 kΩ' })).toBeNull();
    expect(pinoutOf({ kind: 'transistor', value: 'small NPN' })!.told).toMatch(/^Measure it/);
    expect(pinoutOf({ kind: 'electrolytic', value: '4700 µF' })!.told).toMatch(/stripe is minus/);
  });
});

describe('a value typed where it is drawn', () => {
  test('is the design’s own: what comes back is what was put in, and the document takes it', () => {
    fc.assert(
      fc.property(absurd, (design) => {
        for (const part of netlistOf(design).parts) {
          const edit = valueEditOf(design, part);
          if (!edit || edit.value === null) continue;
          // Where the netlist has a number of its own it is this one.
          expect(part.si?.value ?? edit.value).toBeCloseTo(edit.value, 9);
          expect(applyPatch(design, edit.patch(edit.value))).toEqual(design);
        }
      }),
      { numRuns: 120 },
    );
  });

  test('a new one moves that part and no other', () => {
    const list = netlistOf(physics);
    const sense = list.parts.find((p) => p.what === 'senses the current')!;
    const after = applyPatch(physics, valueEditOf(physics, sense)!.patch(0.47));
    expect(readDesign(JSON.parse(JSON.stringify(after))).ok).toBe(true);
    const moved = netlistOf(after).parts.filter((p, n) => p.value !== list.parts[n]!.value);
    expect(moved.map((p) => p.ref)).toEqual([sense.ref]);
  });
});

describe('the netlist as a file', () => {
  const list = netlistOf(drum);
  test('one row a pin', () => {
    const rows = netlistCsv(list).trim().split('\r\n');
    expect(rows).toHaveLength(1 + list.parts.reduce((sum, p) => sum + p.pins.length, 0));
  });
  test('as JSON each net lists the pins on it', () => {
    const read = JSON.parse(netlistJson(list)) as {
      nets: { name: string; pins: string[] }[];
      parts: { ref: string }[];
    };
    const ground = read.nets.find((n) => n.name === '0 V')!;
    expect(ground.pins).toContain('U1 ground');
    expect(read.parts).toHaveLength(list.parts.length);
  });
});

test('references are run together and taken apart again', () => {
  const refs = ['C1', 'C2', 'C3', 'R1', 'R7', 'LED1'];
  const list = referencesOf(refs.map((ref) => ({ ref })));
  expect(list).toBe('C1–C3, R1, R7, LED1');
  expect(referencesIn(list)).toEqual(refs);
  expect(referencesIn('')).toEqual([]);
});
