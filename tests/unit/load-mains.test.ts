import { blankDesign } from '@/core/design/defaults';
import { CONDITIONS } from '@/core/circuit/condition';
import { loadsOf } from '@/core/circuit/loads-of';
import { networkOf } from '@/core/circuit/network-of';
import { applyPatch, type Consumer, type Design } from '@/core/design/design';
import { bankF, bankRatedV } from '@/core/design/bank';
import { readDesign } from '@/core/design/schema';
import { consumersCsv, readConsumers } from '@/core/load/consumers-csv';
import { consumerFault, humBudget, railSums, startSurge } from '@/core/load/sums';
import { mainsSide } from '@/core/mains-side/mains-side';
import { inrush, primaryFuse, runningPrimary } from '@/core/parts/mains-current';
import { billCsv } from '@/core/study/bill-csv';
import { billOf } from '@/core/study/bill';
import { billSums } from '@/core/study/bill-sums';
import { bankOptions, canLife, holdUpCapacitance } from '@/core/study/can-choice';
import { operatingPoint } from '@/core/study/operating-point';
import { studyDesign } from '@/core/study/study';
import { demoDesigns } from '@/core/design/demo-designs';

const [clock, dome, , drum, tide] = demoDesigns() as [Design, Design, Design, Design, Design];
const consumer = (more: Partial<Consumer> = {}): Consumer => ({
  name: 'A',
  count: 1,
  on: null,
  output: 'main',
  kind: 'current',
  standingA: 0,
  typicalA: 0.2,
  peakA: 0.5,
  dutyPct: 100,
  startA: null,
  ...more,
});
const table = (consumers: Consumer[], togetherPct = 100, reservePct = 0) => ({ consumers, togetherPct, reservePct });

const surgeOf = (design: Design) => {
  const [load] = loadsOf(design, CONDITIONS.nominal);
  return load?.kind === 'current' ? load.surge : undefined;
};

describe('sums of a load', () => {
  test('peak, lasting and standing of what hangs on a rail', () => {
    const sums = railSums(
      table([consumer({ count: 2, standingA: 0.05, dutyPct: 25 }), consumer({ output: 'minus' })]),
      'main',
    );
    expect(sums.standingA).toBeCloseTo(0.1, 12);
    expect(sums.lastingA).toBeCloseTo(2 * (0.05 * 0.75 + 0.2 * 0.25), 12);
    expect(sums.peakA).toBeCloseTo(1, 12);
  });

  test('peaks that do not fall together count by their share, and the reserve on top of all', () => {
    const two = [consumer(), consumer()];
    expect(railSums(table(two, 50), 'main').peakA).toBeCloseTo(0.4 + 0.3, 12);
    expect(railSums(table(two, 50, 20), 'main').peakA).toBeCloseTo(1.2 * 0.7, 12);
  });

  test('the lasting load decides heat, the peak the valley, neither what it idles at', () => {
    const light = applyPatch(clock, { demand: { typicalA: 0.3 } });
    const at = (design: Design, id: 'low' | 'high' | 'idle') => operatingPoint(design, id);
    expect(at(light, 'low').rail.minV).toBeCloseTo(at(clock, 'low').rail.minV, 6);
    expect(at(light, 'idle').rail.maxV).toBeCloseTo(at(clock, 'idle').rail.maxV, 6);
    expect(at(light, 'high').regulatorW).toBeLessThan(0.5 * at(clock, 'high').regulatorW);
  });

  test('motors and lamps surge, plain loads do not, and an unregulated rail carries it', () => {
    expect(startSurge(table([consumer()]), 'main')).toBeNull();
    const surge = startSurge(table([consumer({ kind: 'lamp' }), consumer()]), 'main')!;
    expect(surge.factor).toBeCloseTo(1 + (0.2 * 9) / 0.4, 12);
    expect(surgeOf(dome)!.factor).toBeGreaterThan(3);
    expect(surgeOf(clock)).toBeUndefined();
  });

  test('a line that contradicts itself is named', () => {
    expect(consumerFault(consumer({ standingA: 1 }))).toMatch(/stands by at more/);
    expect(consumerFault(consumer({ peakA: 0.1 }))).toMatch(/peak is below/);
    expect(consumerFault(consumer())).toBeNull();
  });

  test('5 mV, hum 70 dB below it: 1.6 µV at the input, more by what the load rejects; gain changes neither', () => {
    const budget = humBudget({ sourceV: 5e-3, gainDb: 40, belowDb: 70, rejectionDb: 0 });
    expect(budget.railV).toBeCloseTo(1.58e-6, 8);
    expect(humBudget({ sourceV: 5e-3, gainDb: 0, belowDb: 70, rejectionDb: 60 }).railV).toBeCloseTo(1.58e-3, 5);
    expect(budget.signalOutV / budget.humOutV).toBeCloseTo(10 ** 3.5, 6);
  });
});

const BOTH = [
  { id: 'main' as const, name: '+18 V' },
  { id: 'minus' as const, name: '−18 V' },
];

describe('a pasted load table', () => {
  test('cells of a spreadsheet without names: name, count, typical, peak', () => {
    const { consumers, errors } = readConsumers('Movement\t14\t60m\t80 mA\nChime\t1\t0,2\t1,5 A');
    expect(errors).toEqual([]);
    expect(consumers.map((c) => [c.name, c.count, c.typicalA, c.peakA])).toEqual([
      ['Movement', 14, 0.06, 0.08],
      ['Chime', 1, 0.2, 1.5],
    ]);
  });

  test('rows that cannot be read say so, the others come in', () => {
    const { consumers, errors } = readConsumers(
      'name,count,typical,kind\nA,2,0.1,current\nB,x,0.1,current\nC,1,lots,\nD,1,1,magic',
    );
    expect(consumers.map((c) => c.name)).toEqual(['A']);
    expect(errors.map((e) => e.slice(0, 5))).toEqual(['Row 3', 'Row 4', 'Row 5']);
  });

  test('what is written is read back the same', () => {
    const list = [consumer({ name: 'Pen, left', kind: 'motor' }), consumer({ output: 'minus', dutyPct: 12.5 })];
    expect(readConsumers(consumersCsv(list), BOTH).consumers).toEqual(list);
  });
});

describe('a bank of cans', () => {
  test('n in parallel are n·C and ESR/n, two in series half of C', () => {
    const filter = (design: Design) => networkOf(design, CONDITIONS.nominal).sections[0]!.rails[0]!.filter[0]!;
    const one = filter(clock);
    const three = filter(applyPatch(clock, { reservoir: { cans: 3 } }));
    const pair = filter(applyPatch(clock, { reservoir: { pair: true } }));
    if (one.kind !== 'capacitor' || three.kind !== 'capacitor' || pair.kind !== 'capacitor')
      throw new Error('a reservoir');
    expect(three.capacitanceF).toBeCloseTo(3 * one.capacitanceF, 12);
    expect(three.esrOhm).toBeCloseTo(one.esrOhm / 3, 12);
    expect(pair.capacitanceF).toBeCloseTo(one.capacitanceF / 2, 12);
    expect(pair.esrOhm).toBeCloseTo(2 * one.esrOhm, 12);
    expect(bankRatedV({ ...clock.reservoir, pair: true })).toBeLessThan(2 * clock.reservoir.ratedV);
  });

  test('banks offered hold about what the one can held', () => {
    for (const option of bankOptions(dome)) {
      expect(option.totalF / bankF(dome.reservoir)).toBeGreaterThan(0.7);
      expect(option.totalF / bankF(dome.reservoir)).toBeLessThan(1.45);
    }
  });

  test('ten kelvin less double a can’s life, ripple at its rating costs 5 K', () => {
    const grade = { hours: 2000, gradeC: 85 };
    expect(canLife(grade, 75, 0).hours).toBeCloseTo(4000, 6);
    expect(canLife(grade, 75, 1).coreC).toBe(80);
  });

  test('charge and energy agree for a small drop and part for a large one', () => {
    const power = applyPatch(dome, { demand: { kind: 'power' } });
    const small = holdUpCapacitance(power, 0.01, 33, 32.9);
    expect(small.energyF / small.chargeF).toBeCloseTo(32 / 32.95, 3);
    expect(small.school).toBe('energy');
    expect(holdUpCapacitance(clock, 0.01, 30, 26).school).toBe('charge');
    expect(holdUpCapacitance(clock, 0.01, 30, 26).chargeF).toBeCloseTo((1.2 * 0.01) / 4, 12);
  });
});

describe('the mains side', () => {
  const report = (design: Design) => mainsSide(studyDesign(design));
  const state = (design: Design, id: string) => report(design).points.find((p) => p.id === id)?.state;

  test('running current stands between what the load takes and the nameplate', () => {
    const running = report(clock).figures.find((f) => f.id === 'primary-running')!.value;
    expect(running).toBeGreaterThan((24 * 1.2) / 230);
    expect(running).toBeLessThan(100 / 230);
    expect(runningPrimary(3, 4)).toBe(5);
  });

  test('a ring core rushes harder and gets the larger fuse', () => {
    expect(inrush(100, 230, 'toroid').worstA).toBeCloseTo(3 * inrush(100, 230, 'laminated').worstA, 9);
    const running = { runningA: 0.3, fullA: 0.3, inrushI2t: 0 };
    expect(primaryFuse(running, 'toroid').ratedA).toBeGreaterThan(primaryFuse(running, 'laminated').ratedA);
    expect(primaryFuse(running, 'laminated').ratedA).toBe(0.5);
  });

  test('no fuse, too large a fuse and a fitting one', () => {
    const fitting = report(clock).primaryFuseA!;
    const fused = (a: number) => applyPatch(clock, { mainsSide: { primaryFuseA: a } });
    expect(state(applyPatch(clock, { mainsSide: { primaryFuseA: null } }), 'fuse')).toBe('wrong');
    expect(state(fused(10), 'fuse')).toBe('wrong');
    expect(state(fused(0.05), 'fuse')).toBe('wrong');
    expect(state(fused(fitting), 'fuse')).toBe('done');
  });

  test('a small soft transformer never blows its primary fuse: a secondary one is asked for', () => {
    const small = applyPatch(clock, {
      demand: { outputA: 0.05 },
      transformer: { ratedVA: 3, regulationPct: 60 },
      mainsSide: { primaryFuseA: 0.1 },
    });
    expect(report(small).secondaryFuseA).not.toBeNull();
    expect(state(small, 'secondary-fuse')).toBe('wrong');
    const fused = applyPatch(small, { mainsSide: { secondaryFuseA: 0.16 } });
    // 4.3 V of it at rated current lost: a short drives too little for any fuse that carries the load.
    expect(state(fused, 'secondary-fuse')).toBe('look');
    expect(state(applyPatch(fused, { mainsSide: { thermalCutout: true } }), 'secondary-fuse')).toBe('done');
    expect(state(applyPatch(small, { mainsSide: { secondaryFuseA: 2 } }), 'secondary-fuse')).toBe('wrong');
  });

  test('one pole is enough only where the plug goes in one way', () => {
    const one = applyPatch(clock, { mainsSide: { switchPoles: 1 } });
    expect(state(one, 'switch')).toBe('wrong');
    expect(state(applyPatch(one, { mainsSide: { polarised: true } }), 'switch')).toBe('done');
  });

  test('class II stands against home-wound parts and a metal box', () => {
    const two = applyPatch(dome, { mainsSide: { insulation: 'class II' } });
    expect(state(two, 'class-two')).toBe('wrong');
    expect(state(two, 'class-two-metal')).toBe('wrong');
    expect(state(two, 'earth')).toBeUndefined();
  });

  test('the bleeder that is proposed empties the reservoir in the thirty seconds it is for', () => {
    const none = applyPatch(tide, { filter: { bleederOhm: null } });
    const ohm = report(none).bleederOhm!;
    expect(state(none, 'bleeder')).toBe('wrong');
    const fitted = applyPatch(none, { filter: { bleederOhm: ohm } });
    const seconds = report(fitted).figures.find((f) => f.id === 'discharge')!.value;
    expect(seconds).toBeGreaterThan(27);
    expect(seconds).toBeLessThan(31.5);
  });

  test('a big ring core wants a soft start', () => {
    const ring = applyPatch(dome, { transformer: { core: 'toroid', ratedVA: 500, source: { kind: 'plate' } } });
    expect(state(ring, 'soft-start')).toBe('wrong');
    expect(state(applyPatch(ring, { mainsSide: { softStart: true } }), 'soft-start')).toBe('done');
  });

  test('every figure carries its working', () => {
    for (const f of report(tide).figures) {
      expect(f.expression.length).toBeGreaterThan(4);
      expect(f.source.length).toBeGreaterThan(10);
      expect(Number.isFinite(f.value)).toBe(true);
    }
  });
});

describe('the bill', () => {
  test('counts diodes, cans and regulators of both rails, and adds up', () => {
    const lines = billOf(studyDesign(drum));
    const count = (what: RegExp) => lines.find((l) => what.test(l.what))!.count;
    expect(count(/Silicon/)).toBe(4);
    expect(count(/Electrolytic/)).toBe(2);
    expect(count(/78M18/)).toBe(2);
    const sums = billSums(lines);
    expect(sums.allEur).toBeCloseTo(
      lines.reduce((a, l) => a + l.count * l.priceEachEur, 0),
      9,
    );
    expect(sums.toBuyEur).toBe(sums.allEur);
  });

  test('what comes out of the drawer is not bought', () => {
    const pick = {
      role: 'transformer' as const,
      partId: 'x',
      name: 'Old one',
      priceEur: 0,
      heightMm: null,
      values: { transformer: { ratedVA: 100 } },
    };
    const lines = billOf(studyDesign(applyPatch(clock, { picked: [pick] })));
    expect(lines[0]!.fromDrawer).toBe('Old one');
    expect(billSums(lines).toBuyEur).toBeCloseTo(billSums(lines).allEur, 9);
    const changed = billOf(studyDesign(applyPatch(clock, { picked: [pick], transformer: { ratedVA: 120 } })));
    expect(changed[0]!.fromDrawer).toBeNull();
  });

  test('as a file it has a line a part and no formula in it', () => {
    const csv = billCsv(billOf(studyDesign(tide)));
    expect(csv.split('\r\n')[0]).toMatch(/^references,part,count/);
    expect(csv).not.toMatch(/(^|,)"?[=@]/m);
  });
});

test('a design of version 2 is read, with what it did not know set to nothing', () => {
  const { load, mainsSide, build } = blankDesign('', clock.demand, clock.mains);
  const plain: Design = { ...clock, load, mainsSide, build };
  const old = JSON.parse(JSON.stringify(plain)) as Record<string, unknown>;
  old['version'] = 2;
  for (const key of ['load', 'mainsSide', 'picked']) delete old[key];
  delete (old['demand'] as Record<string, unknown>)['typicalA'];
  delete (old['rectifier'] as Record<string, unknown>)['rated'];
  for (const key of ['cans', 'pair']) delete (old['reservoir'] as Record<string, unknown>)[key];
  for (const key of ['core', 'source']) delete (old['transformer'] as Record<string, unknown>)[key];
  const read = readDesign(old);
  expect(read.ok ? read.design : read.fault).toEqual(plain);
});
