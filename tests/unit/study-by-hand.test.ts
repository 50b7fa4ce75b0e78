import Papa from 'papaparse';
import { applyPatch, type Design } from '@/core/design/design';
import { outputModel, outputsOf } from '@/core/design/outputs';
import { billOf } from '@/core/study/bill';
import { billCsv } from '@/core/study/bill-csv';
import { letsGoAt } from '@/core/study/cascade';
import { heatView, selfLimit } from '@/core/study/heat-report';
import { noiseLine, throughInstrument } from '@/core/study/instrument';
import { operatingPoint } from '@/core/study/operating-point';
import { storedEnergy } from '@/core/study/stored-energy';
import { studyDesign } from '@/core/study/study';
import { warmthAfter } from '@/core/study/warmth';
import { clock, drum, logger, pen, physics, tide, radio } from '../support/demos';

/** What is bought of a kind, and the watts its words say. */
const line = (d: Design, what: RegExp) => billOf(studyDesign(d)).find((l) => what.test(l.what))!;
const wattsSaid = (text: string) => Number(/([\d.]+) W to get rid of/.exec(text)![1]);
const hottest = (d: Design, of: (p: ReturnType<typeof operatingPoint>) => number) => {
  const study = studyDesign(d);
  return Math.max(...study.conditions.filter((c) => c.output !== 'shorted').map((c) => of(study.at(c))));
};

test.each([
  ['a sink each: the busier rail’s regulator and its half of the diodes', false],
  ['one for both: all of them', true],
])('what a sink has to get rid of: %s', (_, oneSink) => {
  const heat = { ...drum.heat, oneSink, sharedWithRectifier: true, rectifierSinkKPerW: null };
  const uneven = applyPatch(drum, { demand: { negativeA: 0.4 * drum.demand.outputA }, heat });
  const watts = hottest(uneven, ({ rails, watts: { rectifier } }) => {
    const [plus, minus] = rails.map((r) => r.regulatorW);
    return oneSink ? plus! + minus! + rectifier : plus! + rectifier / 2;
  });
  const said = wattsSaid(line(uneven, /^Heatsink/).needed);
  expect(Math.abs(said / watts - 1)).toBeLessThan(0.01);
});

test('two rails alike hold twice what one holds, unlike ones what each holds', () => {
  const idle = operatingPoint(drum, 'idle');
  const { capacitanceF } = drum.reservoir;
  const byHand = idle.rails.reduce((sum, r) => sum + 0.5 * capacitanceF * r.reservoir.maxV ** 2, 0);
  const { joule, held } = storedEnergy(drum, idle);
  expect(joule / byHand).toBeCloseTo(1, 3);
  expect(held.map((h) => [h.label, h.count])).toEqual([['reservoir', 2]]);
});

test('the bill as a file says of each part where it comes from and by what its price is known', () => {
  const base = billOf(studyDesign(clock))[0]!;
  const file = billCsv([
    { ...base, what: '=2+2', count: 3, priceEachEur: 1.25, fromDrawer: 'Blue, cans', typicalPrice: false },
    { ...base, fromDrawer: null, count: 1, priceEachEur: 2, typicalPrice: true },
  ]);
  const { data } = Papa.parse<Record<string, string>>(file, { header: true, skipEmptyLines: true });
  expect(data.map((r) => [r['source'], r['price_each_eur'], r['price_eur'], r['price_known_by']])).toEqual([
    ['drawer: Blue, cans', '1.25', '3.75', 'from the drawer'],
    ['to buy', '2.00', '2.00', 'rule of thumb'],
  ]);
  expect(data[0]!['part']!.startsWith('=')).toBe(false);
  expect(file.endsWith('\r\n')).toBe(true);
});

describe('heat on its way out', () => {
  const row = (d: Design, id: string, minutes: number | null = null) =>
    heatView(d, 'high', minutes)!.rows.find((r) => r.id === id)!;

  test('fins outside a box stand in the room; in the open, or without fins, there is no outside', () => {
    const boxed = (patch: Partial<Design['heat']>) =>
      applyPatch(clock, { heat: { ...clock.heat, box: 'closed', sinkOutside: true, ...patch } });
    const names = (d: Design) => row(d, 'main').steps.map((s) => s.name);
    expect(names(boxed({}))).toEqual(['room', 'sink', 'junction']);
    expect(row(boxed({}), 'main').touch).toBe(1);
    expect(names(boxed({ sinkOutside: false }))).toEqual(['room', 'inside air', 'sink', 'junction']);
    expect(row(boxed({ sinkOutside: false }), 'main').touch).toBe(2);
    expect(names(boxed({ box: 'open' }))).toEqual(['room', 'sink', 'junction']);
    // A part without a sink stands in the box, wherever fins would have been.
    expect(names(boxed({ sinkKPerW: null }))).toEqual(['room', 'inside air', 'case', 'junction']);
    // A minute in, the outside sink has risen over the room and not over the box.
    const soon = row(boxed({}), 'main', 1).steps;
    const end = row(boxed({}), 'main').steps;
    const share = 1 - Math.exp(-60 / 810);
    expect(soon[1]!.tempC - 35).toBeCloseTo((end[1]!.tempC - 35) * share, 3);
  });

  test('a case alone warms within a minute, on top of air that takes its own time', () => {
    const [room, air, body] = row(logger, 'main', 1).steps;
    const [, airEnd, bodyEnd] = row(logger, 'main').steps;
    expect(room!.tempC).toBe(logger.heat.ambientC);
    expect(body!.tempC - air!.tempC).toBeCloseTo((bodyEnd!.tempC - airEnd!.tempC) * (1 - 1 / Math.E), 6);
    expect(air!.tempC).toBeLessThan(airEnd!.tempC);
  });

  test('each sink warms at its own pace: a further output’s by its own metal, or by the one it shares', () => {
    const share = (d: Design, id: string, minutes: number) => {
      const metal = (m: number | null) => row(d, id, m).steps.find((s) => s.name === 'sink')!.tempC - d.heat.ambientC;
      return metal(minutes) / metal(null);
    };
    // 5 K/W: 0.486 × 50²/5 = 243 s; the main one's 1.5 K/W: 810 s.
    const own = applyPatch(clock, { outputs: [radio] });
    expect(share(own, 'out-1', 243 / 60)).toBeCloseTo(1 - 1 / Math.E, 6);
    expect(share(own, 'main', 810 / 60)).toBeCloseTo(1 - 1 / Math.E, 6);
    const shared = applyPatch(clock, {
      outputs: [{ ...radio, sinkKPerW: null }],
      heat: { ...clock.heat, oneSink: true },
    });
    expect(share(shared, 'out-1', 810 / 60)).toBeCloseTo(1 - 1 / Math.E, 6);
  });

  test('all the watts of a view are those of its operating point', () => {
    for (const d of [clock, pen, drum, tide, physics, logger]) {
      const point = operatingPoint(d, 'high');
      const view = heatView(d, 'high', null)!;
      const { rectifierW, copperW, ironW } = view.losses;
      const rowed = (id: string, watts: number) =>
        expect(view.rows.filter((r) => r.id === id && Math.abs(r.watts - watts) > 1e-9)).toEqual([]);
      rowed('main', point.regulatorW);
      rowed('rectifier', rectifierW);
      rowed('winding', copperW + ironW);
      expect(view.rows.length).toBeGreaterThan(2);
    }
  });

  test('what comes to rest is at rest: its own watts leave copper and diodes where they were solved', () => {
    for (const d of [clock, pen, drum, tide, physics]) {
      const warm = applyPatch(d, { heat: { ...d.heat, together: true } });
      for (const id of ['low', 'high'] as const) {
        const point = operatingPoint(warm, id);
        expect(point.settled).toBe(true);
        const again = warmthAfter(warm, point, point.warmth);
        expect(Math.abs(again.copperC - point.warmth.copperC)).toBeLessThan(0.5);
        expect(Math.abs(again.diodeC - point.warmth.diodeC)).toBeLessThan(0.5);
      }
    }
  });

  test('the current a junction bears: none where the supply lets go first', () => {
    // Plenty of sink: the rail falls out of regulation before anything is hot.
    const cool = applyPatch(clock, {
      heat: { ...clock.heat, sinkKPerW: 0.1, ambientC: 10 },
      transformer: { ratedVA: 30 },
    });
    expect(selfLimit(cool)!.amps).toBeNull();
  });
});

describe('a regulator ahead of another', () => {
  const pair = applyPatch(clock, {
    demand: { outputV: 12, outputA: 0.8 },
    regulator: { kind: 'fixed', size: '78', outputV: 12 },
    preRegulator: { kind: 'fixed', size: '78S', outputV: 18 },
  });

  test('while it holds it stands between the crest of the rail and what it holds', () => {
    const point = operatingPoint(pair, 'high');
    expect(point.ahead!.acrossV).toBeCloseTo(point.rail.maxV - 18, 6);
    expect(point.ahead!.headroomV).toBeGreaterThan(0);
    // All volts from rail to output are shared out between both, at the same current.
    const burnt = point.ahead!.watts + point.regulatorW;
    expect(burnt).toBeGreaterThan((point.rail.meanV - 12) * point.outputMeanA);
    expect(burnt).toBeLessThan((point.rail.meanV - 12) * point.outputMeanA + 0.02 * point.rail.meanV + 0.5);
  });

  test('where it has let go it only drops, and the second takes the rest', () => {
    const low = applyPatch(pair, {
      preRegulator: { kind: 'fixed', size: '78S', outputV: 24 },
      transformer: { ratedV: 17 },
    });
    const point = operatingPoint(low, 'low');
    expect(point.ahead!.headroomV).toBeLessThan(0);
    expect(point.ahead!.acrossV).toBeLessThan(4);
  });

  test('the load it lets go at keeps the share of a split supply’s other half', () => {
    const split = applyPatch(drum, {
      demand: { outputV: 12, negativeA: 0.5 * drum.demand.outputA },
      regulator: { kind: 'fixed', size: '78', outputV: 12 },
      preRegulator: { kind: 'fixed', size: '78', outputV: 18 },
    });
    const amps = letsGoAt(split);
    expect(amps).toBeGreaterThan(0);
    const headroom = (a: number) =>
      operatingPoint(applyPatch(split, { demand: { outputA: a, typicalA: null, negativeA: 0.5 * a } }), 'low').ahead!
        .headroomV;
    expect(headroom(0.98 * amps!)).toBeGreaterThan(0);
    expect(headroom(1.02 * amps!)).toBeLessThan(0);
  });
});

describe('an instrument', () => {
  test('a pole lets 1 − e^(−2πfτ) of a step through, from where it had settled', () => {
    const step = [0, ...new Array<number>(40).fill(1)];
    const stepS = 1e-4;
    const seen = throughInstrument(step, stepS, { bandwidthHz: 500, noiseRms: 0 }, 0, 1);
    const share = 1 - Math.exp(-2 * Math.PI * 500 * stepS);
    expect(seen[0]).toBe(0);
    expect(seen[1]).toBeCloseTo(share, 12);
    expect(seen[2]).toBeCloseTo(1 - (1 - share) ** 2, 12);
    // Having been through the whole of it beforehand it begins where that ended.
    const settled = throughInstrument(step, stepS, { bandwidthHz: 500, noiseRms: 0 }, step.length, 1);
    expect(settled[0]).toBeCloseTo((1 - (1 - share) ** 40) * (1 - share), 9);
  });

  test('noise has the RMS it is said to have, the same for a seed, and its line in the spectrum that of Rayleigh', () => {
    const flat = new Array<number>(4096).fill(5);
    const seen = throughInstrument(flat, 1e-5, { bandwidthHz: null, noiseRms: 0.2 }, 0, 7);
    const rms = Math.sqrt(seen.reduce((sum, v) => sum + (v - 5) ** 2, 0) / seen.length);
    expect(rms / 0.2).toBeCloseTo(1, 1);
    expect(throughInstrument(flat, 1e-5, { bandwidthHz: null, noiseRms: 0.2 }, 0, 7)).toEqual(seen);
    expect(throughInstrument(flat, 1e-5, { bandwidthHz: null, noiseRms: 0.2 }, 0, 8)).not.toEqual(seen);
    // One line measured: the mean over many lines of the amplitude a DFT finds.
    const n = 512;
    const amps: number[] = [];
    for (let run = 0; run < 8; run++) {
      const part = seen.slice(run * n, (run + 1) * n).map((v) => v - 5);
      for (let k = 3; k < 60; k++) {
        let [re, im] = [0, 0];
        part.forEach((v, m) => {
          re += v * Math.cos((2 * Math.PI * k * m) / n);
          im += v * Math.sin((2 * Math.PI * k * m) / n);
        });
        amps.push((2 / n) * Math.hypot(re, im));
      }
    }
    const mean = amps.reduce((a, b) => a + b, 0) / amps.length;
    expect(mean / noiseLine(0.2, n)).toBeCloseTo(1, 1);
  });
});

test('every regulated output’s heat follows from its own rail: what it draws times what falls across it', () => {
  let looked = 0;
  for (const d of [clock, drum, logger]) {
    const point = operatingPoint(d, 'nominal');
    for (const output of outputsOf(d)) {
      const at = output.place < 0 ? point.rails[output.rail]! : point.outputs[output.place]!;
      const { quiescentA } = outputModel(output)!;
      const { meanV } = point.rails[output.rail]!.rail;
      const small = at.small.filter((s) => s.label !== 'indicator').reduce((sum, s) => sum + s.watts, 0);
      const expected = (meanV - at.outputMeanV) * at.outputMeanA + meanV * quiescentA;
      expect((at.regulatorW + small) / expected).toBeCloseTo(1, 1);
      expect(at.loadW / (at.outputMeanV * at.outputMeanA)).toBeCloseTo(1, 2);
      looked++;
    }
  }
  expect(looked).toBeGreaterThan(4);
});
