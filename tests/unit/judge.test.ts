import type { FilterCapacitor } from '@/core/circuit/network';
import { applyPatch, type Design, type Patch } from '@/core/design/design';
import { fixesByStep, simulateFixes } from '@/core/judge/fixes';
import { blankDesign, MAINS_PRESETS } from '@/core/design/defaults';
import { judge, tightest } from '@/core/judge/judge';
import { conditionsOf } from '@/core/circuit/condition';
import { pictureOf } from '@/core/judge/picture';
import { levelsOf } from '@/core/picture/levels';
import { BANDS } from '@/core/picture/picture';
import { RULE_IDS, ruleOf, type RuleId } from '@/core/judge/rules';
import { stationFigures } from '@/core/picture/station-figures';
import { studyDesign } from '@/core/study/study';

const base = (patch: Patch = {}): Design =>
  applyPatch(
    {
      ...blankDesign(
        'Test',
        { outputV: 15, outputA: 0.6, tolerancePct: 5, rippleVpp: 0.005, kind: 'current' },
        MAINS_PRESETS[0]!.mains,
      ),
      transformer: {
        ratedV: 18,
        ratedVA: 30,
        regulationPct: null,
        hotC: 75,
        leakageH: 0,
        windingsOnPlate: null,
        sealed: false,
        core: 'laminated',
        source: { kind: 'plate' },
      },
      regulator: { kind: 'fixed', size: '78', outputV: 15 },
      reservoir: {
        cans: 1,
        pair: false,
        capacitanceF: 3300e-6,
        ratedV: 50,
        esrOhm: null,
        rippleA: null,
        tolerancePct: 20,
        agedPct: 20,
        gradeC: 105,
        balanceOhm: null,
      },
      heat: {
        ...blankDesign(
          '',
          { outputV: 1, outputA: 1, tolerancePct: 1, rippleVpp: 1, kind: 'current' },
          MAINS_PRESETS[0]!.mains,
        ).heat,
        ambientC: 40,
        sinkKPerW: 5,
        interface: 'paste',
      },
    },
    patch,
  );
const verdicts = (patch: Patch = {}) => judge(studyDesign(base(patch)));
const verdict = (id: RuleId, patch: Patch = {}) => verdicts(patch).find((v) => v.id === id);

test('a sound supply passes everything', () => {
  expect(verdicts().filter((v) => v.state === 'fails')).toEqual([]);
});

test.each<[RuleId, Patch]>([
  ['headroom', { transformer: { ratedV: 15 } }],
  ['reservoir-voltage', { reservoir: { ratedV: 25 } }],
  ['ripple-current', { reservoir: { rippleA: 0.3 } }],
  ['regulator-input', { transformer: { ratedV: 25 } }],
  ['regulator-current', { demand: { outputA: 1.2 } }],
  ['junction', { heat: { sinkKPerW: 25 } }],
  ['winding-current', { transformer: { ratedVA: 10 } }],
  ['diode-average', { demand: { outputA: 2.5 } }],
  ['diode-reverse', { rectifier: { kind: 'centre-tap', diode: 'sk-1a' } }],
  ['diode-surge', { transformer: { ratedVA: 300 }, rectifier: { diode: 'si-1a' } }],
  ['output-ripple', { transformer: { ratedV: 12 } }],
  ['output-window', { demand: { outputV: 14 } }],
])('%s fails where it should', (id, patch) => {
  expect(verdict(id, patch)!.state).toBe('fails');
});

test('a hot sink, a short the part survives and a lost half cycle are cautions: they never fail, and never count as a margin', () => {
  const touch = verdict('sink-touch', { heat: { sinkKPerW: 25 } })!;
  expect(touch.state).toBe('caution');
  const short = verdict('short-circuit')!;
  expect(short.caution).toBe(true);
  const list = verdicts({ heat: { sinkKPerW: 25 } });
  expect(tightest(list)!.caution).toBe(false);
  expect(list.slice(-1)[0]!.state).toBe('caution');
});

test('every rule says what it is called, where it is looked at, and in which circumstances it has a meaning', () => {
  for (const id of RULE_IDS) {
    const rule = ruleOf(id);
    expect(rule.title.length).toBeGreaterThan(3);
    const somewhere = rule.occasion === 'once' || conditionsOf(base()).some(rule.occasion);
    expect(somewhere || id === 'reverse-polarity').toBe(true);
  }
});

test('rules without a subject stay silent', () => {
  const bare = verdicts({ regulator: { kind: 'none' } }).map((v) => v.id);
  for (const id of ['headroom', 'regulator-input', 'regulator-current', 'junction', 'sink-touch'])
    expect(bare).not.toContain(id);
  const none = verdicts({ reservoir: { capacitanceF: 0 } }).map((v) => v.id);
  for (const id of ['reservoir-voltage', 'ripple-current', 'diode-surge']) expect(none).not.toContain(id);
});

test('verdicts are ranked by how little is left, failures first', () => {
  const list = verdicts({ transformer: { ratedV: 12, ratedVA: 10 }, reservoir: { ratedV: 16 } });
  const rank = { fails: 0, tight: 1, holds: 2, caution: 3 };
  for (let n = 1; n < list.length; n++) {
    const a = list[n - 1]!,
      b = list[n]!;
    expect(rank[a.state]).toBeLessThanOrEqual(rank[b.state]);
    expect(a.state !== b.state || a.left <= Math.max(b.left, -8)).toBe(true);
  }
});

test('headroom is counted at low line with the reservoir at the end of its life', () => {
  const study = studyDesign(base());
  const found = verdict('headroom')!;
  expect((study.low.network.sections[0]!.rails[0]!.filter[0] as FilterCapacitor).capacitanceF).toBeCloseTo(
    3300e-6 * 0.64,
    9,
  );
  expect(study.low.winding.voltageRms / study.nominal.winding.voltageRms).toBeCloseTo(0.9, 9);
  expect(found.figure.value).toBeCloseTo(study.low.rail.minV - (15 + 2 * (0.65 + 0.35 * 0.6)), 9);
});

test('warm copper decides dropout, cold copper the surge', () => {
  const study = studyDesign(base());
  expect(study.low.winding.resistanceOhm).toBeGreaterThan(study.surge.network.sections[0]!.winding.resistanceOhm);
});

test('winding current runs at 1.6 to 2 times the load under a bridge, 1.1 to 1.4 times in each half of a tap, 2 to 2.8 half-wave', () => {
  const ratio = (patch: Patch) => {
    const v = verdict('winding-current', patch)!;
    return v.figure.value / 0.606;
  };
  expect(ratio({})).toBeGreaterThan(1.5);
  expect(ratio({})).toBeLessThan(2.1);
  expect(ratio({ rectifier: { kind: 'centre-tap' }, transformer: { ratedVA: 40 } })).toBeGreaterThan(1.05);
  expect(ratio({ rectifier: { kind: 'centre-tap' }, transformer: { ratedVA: 40 } })).toBeLessThan(1.45);
  expect(ratio({ rectifier: { kind: 'half-wave' } })).toBeGreaterThan(1.9);
  expect(ratio({ rectifier: { kind: 'half-wave' } })).toBeLessThan(2.9);
});

test('the watts add up: what leaves the EMF is burnt somewhere or reaches the load', () => {
  for (const patch of [{}, { transformer: { ratedV: 12 } }, { regulator: { kind: 'none' as const } }]) {
    const { nominal } = studyDesign(base(patch));
    const { winding, rectifier, reservoir, regulator, load } = nominal.watts;
    const sum = winding + rectifier + reservoir + regulator + load;
    expect(sum / nominal.solution.energyBalance.sourceW).toBeCloseTo(1, 2);
  }
});

describe('fixes', () => {
  const troubled = base({
    transformer: { ratedV: 15, ratedVA: 16 },
    reservoir: { capacitanceF: 680e-6, ratedV: 25 },
    heat: { sinkKPerW: 20 },
  });
  const study = studyDesign(troubled);
  const before = judge(study);
  const found = [...simulateFixes(study, before)];

  test('every verdict that does not hold gets some, none more than three', () => {
    expect(found.map((f) => f.verdict)).toEqual(before.filter((v) => v.state !== 'holds').map((v) => v.id));
    for (const f of found) expect(f.fixes.length).toBeLessThanOrEqual(3);
    expect(found.find((f) => f.verdict === 'headroom')!.fixes.length).toBeGreaterThan(0);
  });

  test('whoever asks may look up after every simulated edit', () => {
    const steps = [...fixesByStep(study, before)];
    const looks = steps.filter((s) => s === null).length;
    // More edits are simulated than are shown; each of them is a step of its own.
    expect(looks).toBeGreaterThan(found.reduce((sum, f) => sum + f.fixes.length, 0));
    expect(steps.filter((s) => s !== null)).toEqual(found);
  });

  test('what a fix promises is what the fixed design then shows, side effects included', () => {
    for (const { verdict: id, fixes } of found) {
      for (const fix of fixes) {
        const after = judge(studyDesign(applyPatch(troubled, fix.edit.patch)));
        // What has no meaning any more is cured.
        const self = after.find((v) => v.id === id) ?? { figure: { value: fix.self.after }, left: Infinity };
        expect(Math.abs(self.figure.value - fix.self.after)).toBeLessThan(
          1e-3 * Math.max(1e-3, Math.abs(self.figure.value)),
        );
        expect(self.left).toBeGreaterThan(before.find((v) => v.id === id)!.left);
        expect(after.filter((v) => v.state === 'fails').length).toBe(fix.failsAfter);
        for (const other of fix.others) expect(after.find((v) => v.id === other.verdict)!.state).toBe(other.stateAfter);
      }
    }
  });

  test('the worst verdict is offered a cure of everything, simulated as one', () => {
    const first = found[0]!.fixes[0]!;
    expect(first.failsAfter).toBe(0);
    expect(judge(studyDesign(applyPatch(troubled, first.edit.patch))).filter((v) => v.state === 'fails')).toEqual([]);
  });

  test('taking the first fix of the worst verdict again and again ends with nothing failing', () => {
    let design = troubled;
    for (let n = 0; n < 8; n++) {
      const now = studyDesign(design);
      const list = judge(now);
      if (list[0]!.state !== 'fails') break;
      const first = simulateFixes(now, list).next().value!;
      if (!first || first.fixes.length === 0) break;
      design = applyPatch(design, first.fixes[0]!.edit.patch);
    }
    expect(
      judge(studyDesign(design))
        .filter((v) => v.state === 'fails')
        .map((v) => v.id),
    ).toEqual([]);
  });
});

describe('the picture', () => {
  test('steps down from the winding to the output, low line below high line', () => {
    const { picture } = pictureOf(base());
    for (const band of BANDS) {
      const l = levelsOf(picture.points[band]);
      expect(l.openPeakV).toBeGreaterThan(l.terminalPeakV);
      expect(l.terminalPeakV - l.reservoirMaxV).toBeGreaterThan(1.4);
      expect(l.terminalPeakV - l.reservoirMaxV).toBeLessThan(2.4);
      expect(l.reservoirMaxV).toBeGreaterThan(l.reservoirMinV);
    }
    expect(levelsOf(picture.points.low).reservoirMinV).toBeLessThan(levelsOf(picture.points.high).reservoirMinV);
  });

  test('a winding under the output is drawn, not refused: the output sags with the valleys', () => {
    const { picture } = pictureOf(base({ transformer: { ratedV: 9 } }));
    expect(picture.fails).toBeGreaterThan(2);
    expect(picture.points.nominal.outputMaxV).toBeLessThan(15);
    expect(picture.points.nominal.outputMinV).toBeLessThan(picture.points.nominal.outputMaxV);
  });

  test('marks hazardous voltage over 60 V DC or 25 V AC, and only then', () => {
    expect(pictureOf(base({ transformer: { ratedV: 12 } })).picture.hazard).toBeNull();
    expect(pictureOf(base({ transformer: { ratedV: 26 } })).picture.hazard).toMatch(/V AC across the winding/);
    expect(pictureOf(base({ transformer: { ratedV: 60 } })).picture.hazard).toMatch(/V DC on the reservoir/);
  });

  test('every figure of every station carries its working', () => {
    const { picture } = pictureOf(base());
    for (const station of ['mains', 'winding', 'rectifier', 'reservoir', 'regulator', 'load'] as const) {
      const figures = stationFigures(picture, station, 'nominal');
      expect(figures.length).toBeGreaterThan(2);
      for (const f of [...figures, ...picture.verdicts.map((v) => v.figure)]) {
        expect(Number.isFinite(f.value)).toBe(true);
        expect(f.expression.length).toBeGreaterThan(2);
        expect(f.source.length).toBeGreaterThan(4);
        for (const input of f.inputs) expect(Number.isFinite(input.value)).toBe(true);
      }
    }
  });

  test('the rule of thumb for ripple over-estimates, since it lets the reservoir feed the load all the time', () => {
    const { picture } = pictureOf(base());
    const ripple = stationFigures(picture, 'reservoir', 'nominal')[0]!;
    expect(ripple.estimate!.value / ripple.value).toBeGreaterThan(1.05);
    expect(ripple.estimate!.value / ripple.value).toBeLessThan(1.6);
  });
});

test('half-wave doubles the ripple of a bridge', () => {
  const ripple = (kind: 'bridge' | 'half-wave') =>
    studyDesign(base({ regulator: { kind: 'none' }, rectifier: { kind }, reservoir: { capacitanceF: 10000e-6 } }))
      .nominal.rail.ripplePeakToPeakV;
  expect(ripple('half-wave') / ripple('bridge')).toBeGreaterThan(1.9);
});
