import { CONDITIONS } from '@/core/circuit/condition';
import { networkOf } from '@/core/circuit/network-of';
import { NO_REGULATOR_SHEET } from '@/core/design/defaults';
import { applyPatch, type Consumer, type Design, type Patch, type Regulator } from '@/core/design/design';
import { readDesign } from '@/core/design/schema';
import { testPoints } from '@/core/bench/test-points';
import { judge } from '@/core/judge/judge';
import { levelsOf } from '@/core/picture/levels';
import { pictureOf } from '@/core/judge/picture';
import { stationFigures } from '@/core/picture/station-figures';
import { solveBuilds, summarise } from '../support/builds';
import { mainsSide } from '@/core/mains-side/mains-side';
import { regulatorModel, type SomeRegulator } from '@/core/parts/regulators';
import { inrush, inrushI2t, meltingI2t, primaryFuse } from '@/core/parts/mains-current';
import { solveSteady } from '@/core/solve/steady';
import { passTransistor } from '@/core/parts/transistor';
import { billOf } from '@/core/study/bill';
import { lossesOf } from '@/core/study/losses';
import { selfLimit } from '@/core/study/heat-report';
import { technologies } from '@/core/study/regulator-schools';
import { moreOf } from '../support/changes';
import { railSums } from '@/core/load/sums';
import { drawnPoint } from '@/core/study/drawn-point';
import { mostOf } from '@/core/study/most';
import { operatingPoint } from '@/core/study/operating-point';
import { storedEnergy } from '@/core/study/stored-energy';
import { studyDesign } from '@/core/study/study';
import { loadLineVariations } from '@/core/study/load-line';
import { solveVariations } from '@/core/study/variation';
import { demoDesigns } from '@/core/design/demo-designs';
import { radio } from '../support/demos';

/** What an audit from outside found wrong, each with the figure that is right and how it was worked out. */
const [clock, dome, pen, drum, tide, bench] = demoDesigns() as [Design, Design, Design, Design, Design, Design];
const rms = (values: readonly number[]) => Math.sqrt(values.reduce((s, v) => s + v * v, 0) / values.length);
const figureOf = (design: Design, id: string) => mainsSide(studyDesign(design)).figures.find((f) => f.id === id)!;
const verdict = (
  design: Design,
  id: Parameters<typeof judge>[1] extends readonly (infer R)[] | undefined ? R : never,
) => judge(studyDesign(design), [id])[0]!;

describe('two windings that conduct together', () => {
  const pair = applyPatch(drum, { rectifier: { kind: 'two-bridges' }, demand: { negativeA: null } });

  test('the primary carries the sum of both pulses, not the root of the sum of their squares', () => {
    const point = operatingPoint(pair, 'nominal');
    const { windingA } = solveSteady(point.network, { samples: 96 }).waveforms!;
    const together = rms(windingA[0]!.map((a, n) => Math.abs(a) + Math.abs(windingA[1]![n]!)));
    expect(point.solution.primary.rmsA / together).toBeCloseTo(1, 3);
    const apart = Math.hypot(rms(windingA[0]!), rms(windingA[1]!));
    expect(point.solution.primary.rmsA / apart).toBeCloseTo(Math.SQRT2, 2);
    // And the fuse is told so.
    const turns = point.winding.voltageRms / 230;
    expect(figureOf(pair, 'primary-full').value).toBeGreaterThan(0.98 * turns * together);
  });

  test('each sees twice the primary’s copper, and nobody says they take turns', () => {
    const { picture } = pictureOf(pair);
    const ohm = stationFigures(picture, 'winding', 'nominal').find((f) => f.id === 'winding-ohm')!;
    const plate = pair.transformer;
    const ratedA = plate.ratedVA / (2 * plate.ratedV);
    // Regulation of both halves loaded at once is the plate's: (open - rated)/rated current.
    expect(ohm.value / ((plate.ratedV * plate.regulationPct!) / 100 / ratedA)).toBeCloseTo(1, 1);
    expect(ohm.assumes.join(' ')).toMatch(/at the same time/);
    expect(ohm.assumes.join(' ')).not.toMatch(/Only one half/);
  });

  test('the crest is taken at the terminals: two drops and what the copper keeps, not twice that', () => {
    const { picture } = pictureOf(pair);
    const drop = stationFigures(picture, 'rectifier', 'nominal').find((f) => f.id === 'diode-drop')!;
    expect(drop.value).toBeGreaterThan(1.2);
    expect(drop.value).toBeLessThan(2.2);
    const loss = stationFigures(picture, 'rectifier', 'nominal').find((f) => f.id === 'diode-loss')!;
    // Two diodes in the way of each rail's 0.25 A.
    expect(loss.estimate!.value).toBeCloseTo(0.9 * 2 * (0.25 + 0.25), 1);
    expect(loss.value / loss.estimate!.value).toBeGreaterThan(0.7);
  });
});

test('half of a centre-tapped nameplate used alone keeps its own copper and half the volt-amperes', () => {
  const plate: Patch = { transformer: { ratedV: 9, ratedVA: 27, regulationPct: 15, windingsOnPlate: 2 } };
  const half = applyPatch(clock, plate);
  const whole = applyPatch(clock, { transformer: { ...plate.transformer, windingsOnPlate: null } });
  const at = (d: Design) => networkOf(d, CONDITIONS.nominal).sections[0]!.winding;
  // 9 V plus 15 %: 10.35 V open either way; of the copper a half alone has its own and its share of the primary's.
  expect(at(half).voltageRms).toBeCloseTo(10.35, 2);
  // Rated 1.5 A a half: 1.35 V lost at it with both drawing, half of it in the primary that both load.
  const bothOhm = 1.35 / 1.5;
  const alone = operatingPoint(half, 'nominal').network.mains.sharedResistanceOhm + at(half).resistanceOhm;
  expect(alone / (bothOhm * 0.75)).toBeCloseTo(1, 1);
  expect(figureOf(half, 'inrush').value).toBeCloseTo(figureOf(whole, 'inrush').value, 9);
});

describe('fuses', () => {
  test('a 160 VA ring rushes with 42 A and 1 to 4.4 A²s: no 125 mA fuse lives, 1.6 A does', () => {
    const { worstA, usualA } = inrush(160, 230, 'toroid');
    expect(worstA).toBeCloseTo(41.7, 1);
    // Half a sine over 5 ms: peak²·5 ms/2.
    expect(inrushI2t(worstA, 50)).toBeCloseTo(41.7 ** 2 * 0.0025, 1);
    expect(inrushI2t(usualA, 50)).toBeCloseTo(1.09, 1);
    expect(meltingI2t(0.125)).toBeCloseTo(0.03, 2);
    const advice = primaryFuse({ runningA: 0.06, fullA: 0.06, inrushI2t: inrushI2t(worstA, 50) }, 'toroid');
    expect(advice).toMatchObject({ because: 'inrush', ratedA: 1.6 });
  });

  test('the lasting load alone does not choose it: a motor that runs a tenth of the time heats by the root of both', () => {
    const seldom = applyPatch(dome, { demand: { typicalA: 0.4 } });
    const always = applyPatch(dome, { demand: { typicalA: null } });
    const running = (d: Design) => figureOf(d, 'primary-running').value;
    expect(running(seldom)).toBeLessThan(0.75 * running(always));
    const mean = Number(figureOf(seldom, 'primary-running').inputs.find((i) => /lasting/.test(i.label))!.value);
    expect(running(seldom)).toBeGreaterThan(1.8 * mean);
    expect(figureOf(seldom, 'primary-fuse').value).toBeGreaterThanOrEqual(figureOf(seldom, 'primary-full').value);
  });

  test('a secondary fuse too big for its winding is wrong', () => {
    const state = (a: number) =>
      mainsSide(studyDesign(applyPatch(clock, { mainsSide: { primaryFuseA: 0.5, secondaryFuseA: a } }))).points.find(
        (p) => p.id === 'secondary-fuse',
      )!.state;
    expect(state(4)).toBe('done');
    expect(state(16)).toBe('wrong');
    expect(state(0.5)).toBe('wrong');
  });

  test('a sealed adapter gets no advice on primary fuse and earth', () => {
    const ids = mainsSide(studyDesign(applyPatch(clock, { transformer: { sealed: true } }))).points.map((p) => p.id);
    expect(ids).not.toContain('fuse');
    expect(ids).not.toContain('earth');
    expect(ids).toContain('adapter-approved');
  });
});

describe('charge left behind', () => {
  const valve = applyPatch(tide, {
    demand: { outputV: 360, tolerancePct: 60, outputA: 0.02 },
    transformer: { ratedV: 245, regulationPct: 0.5 },
    mains: { highPct: 9 },
    reservoir: { capacitanceF: 22e-6, ratedV: 450 },
    filter: {
      before: [],
      after: [
        { kind: 'choke', inductanceH: 10, resistanceOhm: 200, ratedA: 0.1, swinging: false },
        { kind: 'capacitor', capacitanceF: 220e-6, ratedV: 450 },
      ],
      bleederOhm: 470e3,
    },
  });

  test('22 µF, choke, 220 µF, 470 k: every capacitor counts', () => {
    const startV = studyDesign(valve).idle.reservoir.maxV;
    expect(startV).toBeGreaterThan(365);
    expect(startV).toBeLessThan(395);
    // R·C·ln(V/60 V), ½·C·V² with all 242 µF: 210 s and 17.5 J at 380 V.
    expect(figureOf(valve, 'discharge').value / (470e3 * 242e-6 * Math.log(startV / 60))).toBeCloseTo(1, 2);
    expect(figureOf(valve, 'stored').value / (0.5 * 242e-6 * startV ** 2)).toBeCloseTo(1, 2);
    expect((470e3 * 242e-6 * Math.log(380 / 60)).toFixed(0)).toBe('210');
  });

  test('of a bank and of a doubler every can holds its share, and a doubler’s can stands at half the volts', () => {
    const banked = applyPatch(clock, { reservoir: { cans: 3 } });
    const one = studyDesign(clock).idle;
    expect(storedEnergy(banked, studyDesign(banked).idle).joule / storedEnergy(clock, one).joule).toBeCloseTo(3, 1);
    const doubled = applyPatch(clock, { rectifier: { kind: 'doubler' }, transformer: { ratedV: 12 } });
    const { idle } = studyDesign(doubled);
    expect(idle.can!.maxV / idle.reservoir.maxV).toBeCloseTo(0.5, 1);
    // Two cans of 6800 µF, each at half: ½·C·(V/2)²·2.
    expect(storedEnergy(doubled, idle).joule / (0.25 * 6800e-6 * idle.reservoir.maxV ** 2)).toBeCloseTo(1, 1);
  });
});

describe('what burns beside the pass transistor', () => {
  const follower = applyPatch(dome, {
    demand: { outputV: 12, outputA: 5, tolerancePct: 20, rippleVpp: 1 },
    transformer: { ratedV: 20, ratedVA: 300 },
    regulator: {
      kind: 'follower',
      zenerV: 12.7,
      zenerW: 1.3,
      transistor: '2n3055',
      seriesOhm: 18,
      limitOhm: null,
      passes: 1,
      emitterOhm: 0,
      gain: null,
    },
  });

  test('a 12 V 5 A zener follower with 18 ohm: its zener and its resistor burn more than ten watts each', () => {
    const study = studyDesign(follower);
    const unloaded = study.idle;
    const railV = unloaded.rail.meanV;
    const amps = (railV - 12.7) / 18;
    const of = (label: RegExp) => unloaded.small.find((s) => label.test(s.label))!.watts;
    // Without load all of the resistor's current goes through the zener.
    expect(of(/zener/i) / (12.7 * amps)).toBeCloseTo(1, 1);
    expect(of(/resistor/i) / (amps ** 2 * 18)).toBeCloseTo(1, 1);
    expect(of(/zener/i)).toBeGreaterThan(8);
    expect(verdict(follower, 'small-heat').state).toBe('fails');
    // They draw from the rail, and stand in bill and losses.
    expect(unloaded.rail.loadMeanA).toBeGreaterThan(0.95 * amps);
    expect(lossesOf(follower, unloaded).smallW).toBeGreaterThan(20);
    expect(
      billOf(study)
        .map((l) => l.what)
        .join(),
    ).toMatch(/zener/i);
  });

  test('safe area goes by the case, not by the sink: a hot case leaves less of it', () => {
    const t = passTransistor('2n3055');
    const cold = verdict(applyPatch(bench, { heat: { sinkKPerW: 0.5, interface: 'paste' } }), 'safe-area').figure.value;
    const hot = verdict(applyPatch(bench, { heat: { sinkKPerW: 2.2, interface: 'dry' } }), 'safe-area').figure.value;
    expect(hot).toBeGreaterThan(1.15 * cold);
    expect(t.powerW).toBe(115);
  });

  test('several transistors without emitter resistors do not share: one carries it all', () => {
    const shared = (emitterOhm: number): number =>
      regulatorModel({ ...(bench.regulator as SomeRegulator), emitterOhm } as SomeRegulator).pass.count;
    expect(shared(0)).toBe(1);
    expect(shared(0.15)).toBe(3);
    const bare = applyPatch(bench, { regulator: { ...bench.regulator, emitterOhm: 0 } as Regulator });
    expect(verdict(bare, 'pass-sharing').state).toBe('fails');
  });

  test('a pre-regulator’s own current and safe area are judged', () => {
    const cascade = applyPatch(bench, {
      preRegulator: { kind: 'tracking', aboveV: 4, transistor: 'bd139' },
    });
    expect(verdict(cascade, 'pre-regulator-area').state).toBe('fails');
  });
});

describe('data sheets', () => {
  const adjustable: SomeRegulator = {
    kind: 'adjustable',
    part: '317',
    r1Ohm: 240,
    r2Ohm: 2000,
    potOhm: null,
    adjCapacitor: true,
  };

  test('a 317 holds 2.2 A into a short at 12 V, far less at 35; needs 10 mA at worst and 3.5 as a rule', () => {
    const model = regulatorModel(adjustable);
    expect(model.shortA(12)).toBeCloseTo(2.2, 1);
    expect(model.shortA(38)).toBeLessThan(0.6);
    expect(model.minimumLoadA).toBe(0.01);
    expect(model.minimumTypicalA).toBe(0.0035);
    expect(model.rejectionDb(120)).toBeCloseTo(80, -1);
    expect(regulatorModel({ ...adjustable, adjCapacitor: false }).rejectionDb(120)).toBeCloseTo(65, -1);
  });

  test('a 1117 class part drops 1.1 V at 100 mA, a 78L 1.7 V at 40 mA', () => {
    const at = (r: SomeRegulator, amps: number) => {
      const m = regulatorModel(r);
      return m.dropoutV + m.dropoutOhm * amps;
    };
    expect(at({ kind: 'low-dropout', part: 'ldo-800', outputV: 5, boardCm2: 6 }, 0.1)).toBeCloseTo(1.1, 2);
    expect(at({ kind: 'fixed', size: '78L', outputV: 5 }, 0.04)).toBeCloseTo(1.7, 1);
  });

  test('a small TO-126 power transistor has emitter, collector, base', () => {
    const model = regulatorModel({ ...(bench.regulator as object), transistor: 'bd139', passes: 1 } as SomeRegulator);
    expect(model.pass.pins).toMatch(/emitter, collector.*, base/i);
  });

  test('a bench supply is no more exact than its reference', () => {
    const spread = (referencePct: number) =>
      regulatorModel({ ...(bench.regulator as object), referencePct } as SomeRegulator).spread;
    expect(spread(5) - spread(1)).toBeCloseTo(0.04, 3);
  });

  test('figures of one’s own data sheet overrule the class and are marked', () => {
    const own = applyPatch(clock, {
      regulatorSheet: { ...NO_REGULATOR_SHEET, inputMaxV: 35 },
    });
    const input = verdict(own, 'regulator-input');
    expect(input.limit).toBe(35);
    expect(input.state).toBe('fails');
    expect(input.limitSource).toMatch(/your data sheet/);
  });
});

test('a window is checked on both of its sides in every build', () => {
  const follower = applyPatch(clock, {
    demand: { outputV: 12, outputA: 0.3, tolerancePct: 4, rippleVpp: 0.2 },
    transformer: { ratedV: 15 },
    regulator: {
      kind: 'follower',
      zenerV: 12.7,
      zenerW: 1.3,
      transistor: 'tip3055',
      seriesOhm: 220,
      limitOhm: null,
      passes: 1,
      emitterOhm: 0,
      gain: 100,
    },
  });
  const middle = operatingPoint(follower, 'nominal').outputMeanV;
  const share = (lowV: number, highV: number) => {
    const windowed = applyPatch(follower, { demand: { window: { lowV, highV } } });
    const found = summarise(windowed, 1, solveBuilds(windowed, 1, 0, 60)).checks;
    return found.find((c) => c.check.id === 'output-window')!.pass;
  };
  // A zener lies on either side of its volts: a window that ends in the middle loses about half, whichever end it is.
  for (const half of [share(middle - 2, middle), share(middle, middle + 2)]) {
    expect(half).toBeGreaterThan(0.2);
    expect(half).toBeLessThan(0.8);
  }
  expect(share(middle - 2, middle + 2)).toBe(1);
});

describe('outputs and loads', () => {
  test('a load line without load has no load at all', () => {
    const both = applyPatch(clock, { outputs: [radio] });
    const [none] = solveVariations(both, loadLineVariations(both).slice(0, 1));
    const idle = operatingPoint(both, { ...CONDITIONS.low, load: 'none', capacitor: 'new' });
    if (!none!.ok) throw new Error(none!.error);
    expect(none!.loadMeanA).toBeLessThan(0.03);
    expect(none!.railMeanV / idle.rail.meanV).toBeCloseTo(1, 2);
  });

  test('each half of a split supply is solved and named by itself', () => {
    const heavy = applyPatch(drum, { demand: { negativeA: 0.4 } });
    const point = operatingPoint(heavy, 'high');
    expect(point.rails[1]!.regulatorW).toBeGreaterThan(1.3 * point.rails[0]!.regulatorW);
    expect(verdict(heavy, 'junction').sentence).toMatch(/^Minus rail/);
  });

  test('each regulator of a split supply has its own sink in bill and cost', () => {
    const sinks = billOf(studyDesign(drum)).filter((l) => /Heatsink/.test(l.what));
    expect(sinks.reduce((sum, l) => sum + l.count, 0)).toBe(2);
    const shared = applyPatch(drum, { heat: { oneSink: true } });
    expect(billOf(studyDesign(shared)).find((l) => /Heatsink/.test(l.what))!.count).toBe(1);
  });

  test('the most it gives is where the headroom ends', () => {
    const [most] = mostOf(clock);
    expect(most!.because).toBe('drops out');
    const at = (share: number) =>
      operatingPoint(applyPatch(clock, { demand: { outputA: share * most!.amps! } }), 'low').headroomV!;
    expect(at(0.98)).toBeGreaterThan(0);
    expect(at(1.02)).toBeLessThan(0);
  });

  test('a resistor ahead of the reservoir is rated by its RMS current', () => {
    const with1 = applyPatch(clock, { filter: { before: [{ kind: 'resistor', resistanceOhm: 1 }] } });
    const line = billOf(studyDesign(with1)).find((l) => /^Resistor 1 /.test(l.what))!;
    const watts = Number(/([\d.]+) W/.exec(line.needed)![1]);
    // Twice its loss; by the mean alone it would be 2·1.2².
    expect(watts).toBeGreaterThan(1.5 * 2 * 1.2 ** 2);
    const point = operatingPoint(with1, 'high');
    expect(watts / (2 * point.solution.elements[0]![0]!.rmsA ** 2)).toBeCloseTo(1, 1);
  });

  test('across the reservoir is across the reservoir, also where a resistor follows it', () => {
    const crc = applyPatch(clock, {
      filter: {
        after: [
          { kind: 'resistor', resistanceOhm: 1 },
          { kind: 'capacitor', capacitanceF: 2200e-6, ratedV: 50 },
        ],
      },
    });
    const point = testPoints(crc, () => 230).find((p) => p.id === 'reservoir-loaded')!;
    const solved = operatingPoint(crc, 'nominal');
    expect(point.expected.value).toBeCloseTo(solved.reservoir.meanV, 3);
    expect(point.expected.value - solved.rail.meanV).toBeCloseTo(1.2, 1);
  });

  test('an adapter that cuts off never gives more at the start than it gives', () => {
    const limited = applyPatch(clock, {
      source: {
        kind: 'adapter',
        ratedV: 30,
        ratedA: 2,
        idlePct: 2,
        spreadPct: 5,
        rippleVpp: 0.1,
        limitA: 2.4,
        reverseDiode: true,
      },
    });
    expect(studyDesign(limited).surge.peakA).toBeLessThanOrEqual(2.4 + 1e-9);
  });

  test('fins outside the box do not warm it', () => {
    const boxed = applyPatch(clock, { heat: { box: 'closed', boxCm2: 1500, sinkOutside: false } });
    const out = applyPatch(boxed, { heat: { sinkOutside: true } });
    const air = (d: Design) => verdict(d, 'inside-air').figure.value;
    expect(air(out)).toBeLessThan(air(boxed) - 10);
  });

  test('a consumer on an output that is not there keeps its line and is told', () => {
    const lost = applyPatch(clock, {
      load: {
        consumers: [
          {
            name: 'Relay',
            count: 1,
            on: null,
            output: 'minus',
            kind: 'current',
            standingA: 0,
            typicalA: 0.1,
            peakA: 0.1,
            dutyPct: 100,
            startA: null,
          },
        ],
      },
    });
    const read = readDesign(JSON.parse(JSON.stringify(lost)));
    expect(read.ok && read.design.load.consumers[0]!.output).toBe('minus');
    expect(operatingPoint(lost, 'low').rail.minV).toBeCloseTo(operatingPoint(clock, 'low').rail.minV, 9);
  });
});

describe('in the circumstance it speaks of', () => {
  test('a flat top takes its share off every crest that is named, as it does off the rail', () => {
    const flat = applyPatch(clock, { mains: { flatTopPct: 5 } });
    const of = (design: Design) => {
      const study = studyDesign(design);
      const surge = judge(study).find((v) => v.id === 'diode-surge')!.figure;
      const can = judge(study).find((v) => v.id === 'reservoir-voltage')!.figure;
      return {
        crest: levelsOf(drawnPoint(study.design, study.high)).openPeakV,
        surge: surge.inputs.find((i) => i.label === 'peak of the winding')!.value,
        can: can.estimate!.value,
        idle: study.idle.rail.maxV,
      };
    };
    const [pure, clipped] = [of(clock), of(flat)];
    for (const key of ['crest', 'surge', 'can'] as const) expect(clipped[key] / pure[key]).toBeCloseTo(0.95, 6);
    // The rail follows, less what a longer crest charges with a smaller drop.
    expect((pure.idle - clipped.idle) / (0.05 * pure.can)).toBeGreaterThan(0.8);
    expect((pure.idle - clipped.idle) / (0.05 * pure.can)).toBeLessThan(1);
  });

  test('headroom without load uses the dropout without load', () => {
    const { idle, low } = studyDesign(clock);
    // 78 class at 25 °C: two volts at full current, less without.
    const needed = (p: typeof idle) => p.rail.minV - p.headroomV!;
    expect(needed(low)).toBeGreaterThan(needed(idle) + 0.2);
    expect(needed(idle)).toBeGreaterThan(clock.demand.outputV + 0.5);
  });

  test('a load that stands by at more than it typically draws counts with the more', () => {
    const line = (standingA: number, typicalA: number): Consumer => ({
      name: 'relay',
      on: null,
      output: 'main',
      kind: 'current',
      startA: null,
      count: 2,
      standingA,
      typicalA,
      peakA: 0.2,
      dutyPct: 50,
    });
    const sums = (c: ReturnType<typeof line>) => railSums({ consumers: [c], togetherPct: 100, reservePct: 0 }, 'main');
    // Two of them: 0.1 A standing whatever the typical says.
    expect(sums(line(0.1, 0.02))).toEqual({ standingA: 0.2, lastingA: 0.2, peakA: 0.4 });
    expect(sums(line(0.02, 0.1)).lastingA).toBeCloseTo(2 * (0.5 * 0.02 + 0.5 * 0.1), 9);
  });

  test('linear or switching is asked with the ripple this load allows', () => {
    const allowing = (rippleVpp: number) => technologies(applyPatch(clock, { demand: { rippleVpp } }), 40).verdict;
    expect(allowing(0.005)).toMatch(/Linear is right/);
    expect(allowing(0.2)).not.toMatch(/Linear is right/);
  });

  test('the current that brings a junction to its limit is only named where that current can flow', () => {
    // The bench supply's knob holds 1.65 A: nothing it lets through overheats it.
    expect(selfLimit(bench)!.amps).toBeNull();
    // A cold sink: what ends the clock line is its dropout, not heat.
    const cold = applyPatch(clock, {
      transformer: { ratedVA: 25 },
      heat: { sinkKPerW: 0.5, box: 'open', ambientC: 20, interface: 'paste' },
    });
    expect(selfLimit(cold)!.amps).toBeNull();
    const { amps } = selfLimit(applyPatch(clock, { heat: { sinkKPerW: 5 } }))!;
    expect(operatingPoint(applyPatch(clock, { demand: { outputA: amps! } }), 'high').headroomV).toBeGreaterThan(0);
  });

  test('a further output in dropout is not within its window, whichever half wave feeds it', () => {
    const starved = applyPatch(pen, {
      rectifier: { kind: 'half-wave' },
      outputs: [
        {
          ...radio,
          regulator: { kind: 'fixed', size: '78', outputV: 18 },
          demand: { ...radio.demand, outputV: 18, outputA: 0.6 },
        },
      ],
    });
    const point = operatingPoint(starved, 'low').outputs[0]!;
    expect(point.headroomV!).toBeLessThan(0);
    // The 18 V decide both, not the 12 V of the pen.
    for (const id of ['headroom', 'output-window'] as const)
      expect(verdict(starved, id)).toMatchObject({ state: 'fails', output: 'out-1' });
  });
});

describe('how much more with each change', () => {
  const found = moreOf(clock, 'main').flatMap((m) => m ?? []);

  test('what is promised holds just below and lets go just above', () => {
    expect(found.length).toBeGreaterThan(3);
    expect(found.every((m) => m.gainA > 0)).toBe(true);
    for (const { edit, most } of found.filter((m) => m.most.because === 'drops out').slice(0, 4)) {
      const at = (share: number) =>
        operatingPoint(applyPatch(applyPatch(clock, edit.patch), { demand: { outputA: share * most.amps! } }), 'low')
          .headroomV!;
      expect(at(0.97)).toBeGreaterThan(0);
      expect(at(1.05)).toBeLessThan(0);
    }
  });

  test('a winding two steps higher gives more than one a step higher; a fixed transformer offers neither', () => {
    const windings = found.filter((m) => /^Winding/.test(m.edit.label));
    expect(windings.length).toBeGreaterThan(1);
    expect(Math.max(...windings.map((w) => w.most.amps!))).toBe(windings.at(-1)!.most.amps!);
    const kept = moreOf(applyPatch(clock, { fixed: ['transformer'] }), 'main').flatMap((m) => m ?? []);
    expect(kept.some((m) => /^(Winding|Transformer)/.test(m.edit.label))).toBe(false);
  });
});
