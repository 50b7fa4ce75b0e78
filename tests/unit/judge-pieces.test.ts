import { CONDITIONS } from '@/core/circuit/condition';
import { applyPatch, type Design, type Patch } from '@/core/design/design';
import { outputsOf } from '@/core/design/outputs';
import { cornerGrid } from '@/core/judge/corners';
import { failedAt, givenUpFor } from '@/core/judge/early';
import { fixesByStep, simulateFixes } from '@/core/judge/fixes';
import { countFails, deciding, distress, judge, marginOf, tightest, type Found } from '@/core/judge/judge';
import { seenFrom } from '@/core/judge/looks';
import { moreOf } from '../support/changes';
import { earlyGroups, RULE_IDS, ruleOf, rulesDeciding, type RuleId } from '@/core/judge/rules';
import { singleChanges } from '../support/changes';
import { checksOf, drawnShares, marginsAt, solveBuilds, summarise } from '../support/builds';
import { planOf } from '@/core/judge/builds/plan';
import { spreadsOf } from '@/core/judge/builds/spreads';
import type { State, Verdict } from '@/core/judge/verdict';
import type { Build } from '@/core/picture/build-summary';
import { rankChanges } from '@/core/picture/changes';
import { typicalCost } from '@/core/study/cost';
import { mostOfOne } from '@/core/study/most';
import { studyDesign } from '@/core/study/study';
import { clock, dome, pen, drum, tide, physics, first, logger } from '../support/demos';

describe('what decides', () => {
  const found = (state: State, left: number, n = 0) => ({ state, left, finding: { value: n } }) as unknown as Found;
  test('what fails before what is tight, a caution before what holds, then what has least left; the first of equals', () => {
    const all = [found('holds', 0.1, 1), found('caution', -9, 2), found('tight', 0.5, 3), found('fails', -0.1, 4)];
    expect(deciding(all)).toBe(all[3]);
    expect(deciding(all.slice(0, 3))).toBe(all[2]);
    expect(deciding(all.slice(0, 2))).toBe(all[1]);
    expect(deciding([all[1]!, all[0]!])).toBe(all[1]);
    const equals = [found('holds', 2, 1), found('holds', 2 - 5e-7, 2), found('holds', 1.9, 3)];
    expect(deciding(equals.slice(0, 2))).toBe(equals[0]);
    expect(deciding(equals)).toBe(equals[2]);
    expect(deciding([])).toBeNull();
  });

  test('a margin is what is left to the limit, from whichever side', () => {
    expect(marginOf({ value: 3, limit: 5, relation: 'at most' })).toBe(2);
    expect(marginOf({ value: 3, limit: 5, relation: 'at least' })).toBe(-2);
  });

  const said = (state: State, left: number, caution = false) => ({ state, left, caution }) as Verdict;
  test('how bad it is: each failure counts one, and more the further it misses', () => {
    const list = [said('fails', -1), said('fails', 0), said('tight', 0.2), said('caution', -5, true)];
    expect(distress(list)).toBeCloseTo(2 + Math.log(2), 12);
    expect(countFails(list)).toBe(2);
    expect(tightest(list)).toBe(list[0]);
    expect(tightest([said('caution', -5, true), said('holds', 3), said('holds', 2)])!.left).toBe(2);
    expect(tightest([said('caution', -5, true)])).toBeNull();
    expect(tightest([])).toBeNull();
  });

  test('the list begins with what fails, hopeless ones in the order of cause and effect', () => {
    for (const d of [pen, first, dome]) {
      const list = judge(studyDesign(d));
      const rank = { fails: 0, tight: 1, holds: 2, caution: 3 };
      for (let n = 1; n < list.length; n++) {
        const [a, b] = [list[n - 1]!, list[n]!];
        expect(rank[a.state]).toBeLessThanOrEqual(rank[b.state]);
        const alike = a.state === b.state && Math.min(a.left, b.left) > -8;
        expect(!alike || a.left <= b.left).toBe(true);
      }
    }
    // Ten volts short, and a hundred times the ripple: both are hopeless, and the volts are the cause.
    const hopeless = judge(studyDesign(applyPatch(pen, { transformer: { ratedV: 7, regulationPct: 20 } })));
    const at = (id: string) => hopeless.findIndex((v) => v.id === id);
    expect(hopeless[at('headroom')]!.left).toBeLessThan(-8);
    expect(hopeless[at('output-ripple')]!.left).toBeLessThan(hopeless[at('headroom')]!.left);
    expect(at('headroom')).toBeLessThan(at('output-ripple'));
  });

  test('a point seen from an output is that output’s: its rail, its own volts and watts', () => {
    const [main, minus] = outputsOf(drum) as [ReturnType<typeof outputsOf>[0], ReturnType<typeof outputsOf>[0]];
    const { nominal } = studyDesign(drum);
    expect(seenFrom(nominal, main)).toBe(nominal);
    const seen = seenFrom(nominal, minus);
    expect(seen.rail).toEqual(nominal.rails[1]!.rail);
    expect(seen.outputMeanA).toBeCloseTo(0.18, 6);
    const battery = studyDesign(logger).nominal;
    const radio = outputsOf(logger).find((o) => o.place === 0)!;
    expect(seenFrom(battery, radio).outputMeanV).toBeCloseTo(8, 1);
    expect(seenFrom(battery, radio).rail).toEqual(battery.rail);
  });
});

describe('a search gives up early', () => {
  const why = (d: Design, patch: Patch = {}) => givenUpFor(studyDesign(applyPatch(d, patch)));
  test('for what one circumstance of each group says, and for nothing that would hold', () => {
    for (const d of [clock, dome, drum, tide, physics, logger]) expect(why(d)).toBeNull();
    const short = why(pen)!;
    const verdict = judge(studyDesign(pen), ['headroom'])[0]!;
    expect(short).toMatchObject({ id: 'headroom', title: verdict.title, sentence: verdict.sentence });
    expect(short.left).toBeCloseTo(verdict.left, 6);
    // A can of 35 V idles at 37: the second group, without load at the highest input.
    expect(why(clock, { reservoir: { ratedV: 35 } })!.id).toBe('reservoir-voltage');
    // A can that bears half an ampere of ripple: the third, lasting load at the highest input.
    expect(why(clock, { reservoir: { rippleA: 0.5 } })!.id).toBe('ripple-current');
    // What only other rules say does not end a search: a sink too small.
    expect(why(clock, { heat: { sinkKPerW: 20 } })).toBeNull();
    expect(countFails(judge(studyDesign(applyPatch(clock, { heat: { sinkKPerW: 20 } }))))).toBeGreaterThan(0);
  });

  test('only circumstances that are asked for are looked at, and what happens once in none', () => {
    const study = studyDesign(applyPatch(clock, { reservoir: { ratedV: 35 } }));
    expect(failedAt(study, ['reservoir-voltage'], [CONDITIONS.low])).toBeNull();
    expect(failedAt(study, ['reservoir-voltage'], [CONDITIONS.low, CONDITIONS.idle])!.id).toBe('reservoir-voltage');
    expect(failedAt(study, ['headroom', 'reservoir-voltage'], [CONDITIONS.idle])!.id).toBe('reservoir-voltage');
    const surge = studyDesign(applyPatch(clock, { rectifier: { diode: 'si-1a' }, reservoir: { capacitanceF: 0.1 } }));
    expect(judge(surge, ['diode-surge'])[0]!.state).toBe('fails');
    expect(failedAt(surge, ['diode-surge'], [CONDITIONS.nominal])!.id).toBe('diode-surge');
  });

  test('rules are grouped as a builder would ask them: does it hold, does it bear, does it stay cool', () => {
    const groups = earlyGroups();
    expect(groups[0]).toContain('headroom');
    expect(groups[1]).toEqual(expect.arrayContaining(['output-window', 'reservoir-voltage', 'regulator-input']));
    expect(groups[2]).toEqual(expect.arrayContaining(['ripple-current', 'rectifier-heat']));
    expect(new Set(groups.flat()).size).toBe(groups.flat().length);
    expect(rulesDeciding('sink')).toEqual(expect.arrayContaining(['junction', 'rectifier-heat', 'pre-regulator-heat']));
    expect(rulesDeciding('sink')).not.toContain('headroom');
  });
});

describe('cures are ranked', () => {
  const troubled = applyPatch(pen, { heat: { sinkKPerW: 20 } });
  const study = studyDesign(troubled);
  const before = judge(study);
  const found = [...simulateFixes(study, before)];

  test('the three shown are of different kinds while there are any', () => {
    const kind = (label: string) => label.replace(/[\d.,]+/g, '').trim();
    const head = found.find((f) => f.verdict === 'headroom')!.fixes;
    expect(new Set(head.map((f) => kind(f.edit.label.split(' · ')[0]!))).size).toBe(head.length);
  });

  test('what it costs is what the changed design costs more', () => {
    for (const { fixes } of found)
      for (const f of fixes)
        expect(f.costChangeEur).toBeCloseTo(typicalCost(applyPatch(troubled, f.edit.patch)) - typicalCost(troubled), 9);
  });

  test('none is shown that makes more fail, or its own verdict no better; side effects are those of others', () => {
    const fails = countFails(before);
    for (const { verdict, fixes } of found)
      for (const f of fixes) {
        expect(f.failsAfter).toBeLessThanOrEqual(fails);
        expect(f.others.map((o) => o.verdict)).not.toContain(verdict);
        for (const o of f.others) expect(o.stateAfter).not.toBe(o.stateBefore);
        // Worsened ones are said first.
        const bad = { holds: 0, caution: 0.5, tight: 1, fails: 2 };
        const worse = f.others.map((o) => bad[o.stateAfter] - bad[o.stateBefore]);
        expect(worse).toEqual([...worse].sort((a, b) => b - a));
      }
  });

  test('a cure of everything takes nothing it does not need, and nothing twice', () => {
    const whole = found[0]!.fixes.find((f) => f.edit.label.includes(' · '))!;
    expect(whole.failsAfter).toBe(0);
    const labels = whole.edit.label.split(' · ');
    const kinds = labels.map((l) => l.split(' ')[0]);
    expect(new Set(kinds).size).toBe(kinds.length);
    for (const key of Object.keys(whole.edit.patch) as (keyof Patch)[]) {
      const rest = { ...whole.edit.patch };
      delete rest[key];
      expect([key, countFails(judge(studyDesign(applyPatch(troubled, rest)))) > 0]).toEqual([key, true]);
    }
  });

  test('a design that holds everywhere asks for none', () => {
    const good = studyDesign(clock);
    const verdicts = judge(good);
    const wanting = verdicts.filter((v) => v.state !== 'holds').map((v) => v.id);
    expect([...simulateFixes(good, verdicts)].map((f) => f.verdict)).toEqual(wanting);
    // The same edit is simulated once, however many verdicts ask for it.
    const looks = [...fixesByStep(good, [...verdicts, ...verdicts])].filter((s) => s === null).length;
    expect(looks).toBe([...fixesByStep(good, verdicts)].filter((s) => s === null).length);
  });
});

describe('single changes', () => {
  test('each is of its own, with what it costs, relieves and leaves worst', () => {
    const list = singleChanges(pen);
    expect(new Set(list.map((c) => JSON.stringify(c.edit.patch))).size).toBe(list.length);
    const [now] = [judge(studyDesign(pen))];
    for (const c of list.slice(0, 12)) {
      const changed = applyPatch(pen, c.edit.patch);
      const after = judge(studyDesign(changed));
      expect(c.failsAfter).toBe(countFails(after));
      expect(c.costEur).toBeCloseTo(typicalCost(changed) - typicalCost(pen), 9);
      expect(c.relief).toBeCloseTo(distress(now!) - distress(after), 3);
      expect(c.worstBefore).toBeCloseTo(tightest(now!)!.left, 9);
      expect(c.worstAfter).toBeCloseTo(tightest(after)!.left, 2);
      expect(c.worstTitle).toBe(tightest(after)!.title);
    }
  });

  test('where nothing is tight the tightest is asked', () => {
    const easy = applyPatch(dome, { demand: { tolerancePct: 60, rippleVpp: 20 }, transformer: { ratedVA: 500 } });
    const verdicts = judge(studyDesign(easy));
    const wanting = verdicts.filter((v) => v.state === 'fails' || v.state === 'tight');
    const list = singleChanges(easy);
    expect(wanting.length > 0 || list.length > 0).toBe(true);
  });

  test('ranked by what leaves least failing, then by margin for the euro', () => {
    const c = (failsAfter: number, relief: number, costEur: number, worstAfter = 1, worstBefore = 1) => ({
      edit: { label: `${failsAfter} ${relief} ${costEur}`, patch: {} },
      failsAfter,
      relief,
      costEur,
      worstBefore,
      worstAfter,
      worstTitle: '',
    });
    const cheap = c(0, 1, 2);
    const dear = c(0, 1.5, 10);
    const free = c(0, 0.5, -3);
    const failing = c(1, 5, 1);
    const none = c(0, 0.015, 1);
    // Half of a margin for nothing counts as for a tenth of a euro.
    expect(rankChanges([failing, none, dear, cheap, free])).toEqual([free, cheap, dear, failing]);
    // More than twice what is wanted is no gain.
    expect(rankChanges([c(0, 0, 1, 9, 2)])).toEqual([]);
    expect(rankChanges([c(0, 0, 1, 9, 1.9)])).toHaveLength(1);
  });
});

describe('what gives more', () => {
  test('each change is simulated alone: what it gives, what it costs, what fails at the load of today', () => {
    const now = mostOfOne(clock, outputsOf(clock)[0]!)!.amps!;
    const found = moreOf(clock, 'main');
    const gains = found.flatMap((m) => m ?? []);
    expect(found.length).toBeGreaterThan(gains.length);
    for (const m of gains.slice(0, 4)) {
      const changed = applyPatch(clock, m.edit.patch);
      expect(m.most.amps).toBeCloseTo(mostOfOne(changed, outputsOf(changed)[0]!)!.amps!, 9);
      expect(m.gainA).toBeCloseTo(m.most.amps! - now, 9);
      expect(m.gainA).toBeGreaterThan(0.01 * now);
      expect(m.costEur).toBeCloseTo(typicalCost(changed) - typicalCost(clock), 9);
      expect(m.fails).toBe(countFails(judge(studyDesign(changed))));
    }
    const labels = gains.map((m) => m.edit.label);
    expect(new Set(labels).size).toBe(labels.length);
    expect(labels.some((l) => l.startsWith('Winding'))).toBe(true);
    // Of an output that is not there nothing can be said.
    expect(moreOf(clock, 'out-7').every((m) => m === null)).toBe(true);
  });
});

describe('spreads of a build', () => {
  const spread = (d: Design, id: string) => spreadsOf(d).find((s) => s.id === id);
  test('of each part as well as it is known', () => {
    expect(spread(clock, 'open')).toMatchObject({ low: 0.97, high: 1.03 });
    // A nameplate tells copper to a fifth, a wound one to a tenth, a load test to 4 %; a source’s own to 30 %.
    expect(spread(clock, 'copper')!.high).toBeCloseTo(1.2, 9);
    expect(spread(dome, 'copper')).toMatchObject({ low: 0.9, label: 'copper resistance, ±10 %' });
    expect(spread(logger, 'copper')).toMatchObject({ low: 0.7, label: 'its resistance, ±30 %' });
    expect(spread(applyPatch(clock, { reservoir: { tolerancePct: 10 } }), 'capacitance')).toMatchObject({
      low: 0.9,
      high: 1.1,
    });
    expect(spread(clock, 'load')).toMatchObject({ low: 0.95, high: 1.05 });
    expect(spread(clock, 'dropout')).toMatchObject({ low: 0.8, high: 1.2 });
    expect(spread(clock, 'output')).toMatchObject({ low: 0.96, high: 1.04, label: 'output set, ±4.0 %' });
    expect(spread(clock, 'sink')).toMatchObject({ low: 0.85, high: 1.15 });
    expect(spread(clock, 'diode')).toMatchObject({ low: 0.35, high: 2.8 });
  });

  test('none of what is not there', () => {
    const bare = applyPatch(logger, { source: { ...logger.source, reverseDiode: false } as Design['source'] });
    expect(spread(bare, 'diode')).toBeUndefined();
    for (const id of ['dropout', 'output', 'sink']) expect(spread(dome, id)).toBeUndefined();
    expect(spread(logger, 'sink')).toBeUndefined();
    expect(spread(applyPatch(clock, { heat: { sinkKPerW: null } }), 'sink')).toBeUndefined();
  });

  /** Margins of a design as printed but for one spread. */
  const shifted = (d: Design, id: string, factor: number) =>
    new Map(
      marginsAt(
        d,
        spreadsOf(d).map((s) => (s.id === id ? factor : 1)),
      ).map((m, n) => [checksOf(d)[n]!.id as string, m]),
    );
  const printed = (d: Design) => shifted(d, 'none', 1);

  test('a load 5 % up is that load: of every output, most, usual and least', () => {
    const d = applyPatch(dome, { demand: { leastA: 1, typicalA: 3 } });
    const by5 = applyPatch(dome, { demand: { outputA: 4.2, leastA: 1.05, typicalA: 3.15 } });
    const up = shifted(d, 'load', 1.05);
    const real = printed(by5);
    for (const [id, m] of up)
      expect([id, Math.abs(m - real.get(id)!) < 1e-3 * Math.max(1, Math.abs(m))]).toEqual([id, true]);
    // The window’s upper end is the least load’s: had that not moved, it would stand higher.
    const left = printed(applyPatch(dome, { demand: { outputA: 4.2, leastA: 1, typicalA: 3.15 } }));
    expect(up.get('output-window')! - left.get('output-window')!).toBeGreaterThan(0.005);
    const split = shifted(drum, 'load', 1.05);
    const both = printed(applyPatch(drum, { demand: { outputA: 0.2625, negativeA: 0.189 } }));
    for (const id of ['headroom', 'winding-current']) expect(split.get(id)! / both.get(id)!).toBeCloseTo(1, 3);
    const battery = shifted(logger, 'load', 1.05);
    const scaled = printed(
      applyPatch(logger, {
        demand: { outputA: 0.189, typicalA: 0.126 },
        outputs: logger.outputs.map((o) => ({ ...o, demand: { ...o.demand, outputA: 0.0525 } })),
      }),
    );
    for (const [id, m] of battery) expect([id, m]).toEqual([id, expect.closeTo(scaled.get(id)!, 3)]);
  });

  test('a sink 15 % worse is that sink; a drier dropout is less headroom, volt for volt', () => {
    const worse = shifted(clock, 'sink', 1.15);
    const real = printed(applyPatch(clock, { heat: { sinkKPerW: 1.5 * 1.15 } }));
    expect(worse.get('junction')!).toBeCloseTo(real.get('junction')!, 3);
    // 1.892 V at 1.2 A, a fifth more of it.
    const dry = shifted(clock, 'dropout', 1.2);
    expect(printed(clock).get('headroom')! - dry.get('headroom')!).toBeCloseTo(0.2 * 1.892, 2);
    const high = shifted(clock, 'output', 1.04);
    expect(printed(clock).get('headroom')! - high.get('headroom')!).toBeCloseTo(0.96, 1);
  });

  test('more volts at the winding: more headroom, less room under what cans and regulator bear', () => {
    const up = shifted(clock, 'open', 1.03);
    const now = printed(clock);
    expect(up.get('headroom')!).toBeGreaterThan(now.get('headroom')! + 0.5);
    // 3 % of the 39.6 V it idles at.
    expect(now.get('regulator-input')! - up.get('regulator-input')!).toBeCloseTo(1.2, 1);
    const ohms = shifted(clock, 'copper', 1.2);
    expect(ohms.get('headroom')!).toBeLessThan(now.get('headroom')!);
    expect(ohms.get('regulator-input')!).toBeCloseTo(now.get('regulator-input')!, 1);
    expect(shifted(clock, 'diode', 2.8).get('headroom')!).toBeGreaterThan(now.get('headroom')!);
  });

  test('a can 20 % short is what the aged corner has already: there only its age is taken off', () => {
    // The verdict’s own headroom is that of a can at its lower tolerance.
    const low = shifted(clock, 'capacitance', 0.8).get('headroom')!;
    expect(low).toBeCloseTo(judge(studyDesign(clock), ['headroom'])[0]!.margin, 2);
    expect(printed(clock).get('headroom')!).toBeGreaterThan(low + 0.1);
  });

  test('what happens once is not drawn, nor what is only a caution', () => {
    const ids = checksOf(clock).map((c) => c.id as string);
    for (const id of ['diode-surge', 'surge-heating', 'hold-up', 'sink-touch', 'short-circuit'])
      expect(ids).not.toContain(id);
    expect(ids).toEqual(expect.arrayContaining(['headroom', 'junction', 'winding-current']));
    expect(planOf(clock).resting).toEqual({});
    const { resting, conditions } = planOf(physics);
    expect(Object.keys(resting).sort()).toEqual(conditions.map((c) => c.id as string).sort());
  });
});

describe('builds added up', () => {
  const checks = checksOf(dome);
  const spreads = spreadsOf(dome);
  /** The first check’s margin follows the first spread up and the second’s follows it down; the others stand still. */
  const build = (x: number): Build => ({
    factors: spreads.map((_, s) => (s === 0 ? x : 1 + ((x * 7919) % 1) * 1e-3)),
    margins: checks.map((_, c) => (c === 0 ? x : c === 1 ? -x : 5)),
  });
  const xs = Array.from({ length: 25 }, (_, n) => n - 4);
  const builds: Build[] = [...xs.map(build), { factors: spreads.map(() => 1), margins: null }];
  const summary = summarise(dome, 9, builds);

  test('shares count every build, also those without an answer', () => {
    expect([summary.seed, summary.builds, summary.unsolved]).toEqual([9, 26, 1]);
    // x runs from -4 to 20: 21 hold the first, 5 the second, and one, zero, both.
    expect(summary.checks[0]!.pass).toBeCloseTo(21 / 26, 12);
    expect(summary.checks[1]!.pass).toBeCloseTo(5 / 26, 12);
    expect(summary.checks[2]!.pass).toBeCloseTo(25 / 26, 12);
    expect(summary.pass).toBeCloseTo(1 / 26, 12);
    const shares = drawnShares(dome, builds);
    expect(shares[checks[0]!.id]).toBeCloseTo(21 / 26, 12);
    expect(summarise(dome, 1, []).pass).toBe(0);
    expect(summarise(dome, 1, []).checks[0]).toMatchObject({ pass: 0, least: 0, median: 0, most: 0 });
    expect(drawnShares(dome, [])[checks[0]!.id]).toBe(0);
  });

  test('ends, middle and a histogram with every build in it', () => {
    const [one, , still] = summary.checks;
    expect([one!.least, one!.median, one!.most]).toEqual([-4, 8, 20]);
    expect(one!.histogram).toHaveLength(24);
    // 25 even steps in 24 bins: one in each, the last two in the last.
    expect(one!.histogram).toEqual([...new Array<number>(23).fill(1), 2]);
    expect(still!.histogram[0]).toBe(25);
  });

  test('causes are named with the end that hurts', () => {
    const [one, two, still] = summary.checks;
    expect(one!.causes[0]).toMatchObject({ label: spreads[0]!.label, hurts: 'low' });
    expect(one!.causes[0]!.share).toBeCloseTo(1, 9);
    expect(two!.causes[0]).toMatchObject({ label: spreads[0]!.label, hurts: 'high' });
    expect(still!.causes).toEqual([]);
    for (const c of summary.checks)
      for (let n = 1; n < c.causes.length; n++) expect(c.causes[n]!.share).toBeLessThanOrEqual(c.causes[n - 1]!.share);
  });

  test('a real run names the same builds whoever draws them', () => {
    const all = solveBuilds(dome, 3, 0, 6);
    expect(solveBuilds(dome, 3, 4, 2).map((b) => b.factors)).toEqual(all.slice(4).map((b) => b.factors));
  });
});

describe('the grid', () => {
  test('cells hold the figure, its share of the margin and its state; events their sentence', () => {
    const grid = cornerGrid(pen);
    const study = studyDesign(pen);
    for (const row of grid.rows) {
      const verdict = judge(study, [row.id])[0]!;
      expect([row.title, row.unit, row.limit, row.relation]).toEqual([
        verdict.title,
        verdict.figure.unit,
        verdict.limit,
        verdict.relation,
      ]);
      expect(row.values).toHaveLength(grid.cells.length);
      expect(row.values[row.worst]!.left).toBeCloseTo(verdict.left, 5);
      const shown = row.values[row.worst]!.figure;
      expect(shown.value).toBeCloseTo(verdict.figure.value, 4);
      expect([shown.words, shown.condition, shown.expression, shown.inputs.map((i) => i.label)]).toEqual([
        verdict.figure.words,
        verdict.figure.condition,
        verdict.figure.expression,
        verdict.figure.inputs.map((i) => i.label),
      ]);
    }
    for (const e of grid.events) {
      const verdict = judge(study, [e.id])[0]!;
      expect([e.title, e.sentence, e.state, e.condition]).toEqual([
        verdict.title,
        verdict.sentence,
        verdict.state,
        verdict.figure.condition ?? '',
      ]);
    }
    // A figure that has no meaning without load has an empty cell there, not a nought.
    const idle = grid.cells.findIndex((c) => c.load === 'none');
    expect(grid.rows.find((r) => r.id === 'headroom')!.values[idle]).toBeNull();
    const cell = grid.cells[idle]!;
    expect(cell.words).toContain(cell.state);
    expect(cell.mains).toBe('high');
  });
});

test('each rule stands where a builder looks, sees what it speaks of, and decides about the parts that would change it', () => {
  /** Station, what it looks at, how early a search asks it, the parts it decides. */
  const EXPECTED: Record<RuleId, [string, string, number | null, string]> = {
    'choke-critical': ['before', 'rail', null, 'choke'],
    headroom: ['regulator', 'output', 1, 'transformer reservoir choke regulator transistor'],
    'output-range': ['regulator', 'output', null, 'regulator'],
    'output-window': ['load', 'output', 2, 'transformer choke regulator'],
    'output-ripple': ['load', 'output', 1, 'reservoir'],
    'lost-load': ['reservoir', 'supply', 4, 'transformer choke reservoir'],
    'reservoir-voltage': ['reservoir', 'rail', 2, 'transformer reservoir'],
    'filter-voltage': ['after', 'rail', null, ''],
    'filter-resonance': ['before', 'supply', null, 'choke'],
    'ripple-current': ['reservoir', 'rail', 3, 'reservoir'],
    'regulator-input': ['regulator', 'output', 2, 'transformer regulator'],
    'regulator-current': ['regulator', 'output', null, 'regulator'],
    junction: ['regulator', 'output', null, 'regulator transistor sink'],
    'pre-regulator-heat': ['regulator', 'output', null, 'sink'],
    'pass-sharing': ['regulator', 'output', null, 'transistor'],
    'safe-area': ['regulator', 'output', null, 'transistor'],
    'pre-regulator-area': ['regulator', 'output', null, 'transistor'],
    'small-heat': ['regulator', 'output', null, 'regulator'],
    'inside-air': ['regulator', 'supply', null, ''],
    'source-current': ['mains', 'supply', null, 'transformer'],
    'winding-current': ['winding', 'supply', 3, 'transformer'],
    'winding-heat': ['winding', 'supply', null, 'transformer'],
    'winding-dc': ['winding', 'supply', null, ''],
    'choke-rating': ['before', 'rail', null, 'choke'],
    'diode-average': ['rectifier', 'supply', null, 'rectifier'],
    'anode-peak': ['rectifier', 'supply', null, 'rectifier'],
    'rectifier-heat': ['rectifier', 'supply', 3, 'rectifier sink'],
    'diode-reverse': ['rectifier', 'supply', null, 'rectifier'],
    'diode-surge': ['rectifier', 'supply', null, 'rectifier'],
    'surge-heating': ['rectifier', 'supply', null, 'rectifier'],
    'reverse-polarity': ['rectifier', 'supply', null, ''],
    'short-circuit': ['regulator', 'output', null, 'transistor'],
    'minimum-load': ['regulator', 'output', null, 'regulator'],
    'sink-touch': ['regulator', 'output', null, ''],
    'pre-regulator': ['regulator', 'output', null, ''],
    'hold-up': ['reservoir', 'output', null, ''],
    'choke-idle': ['before', 'rail', null, ''],
  };
  const found = Object.fromEntries(
    RULE_IDS.map((id) => {
      const { station, scope, early, decides } = ruleOf(id);
      return [id, [station, scope, early ?? null, decides.join(' ')]];
    }),
  );
  expect(found).toEqual(EXPECTED);
});

test('of a split supply a diode is judged with the current of the rail that draws more', () => {
  const find = (negativeA: number) => {
    const [v] = judge(studyDesign(applyPatch(drum, { demand: { outputA: 0.1, negativeA } })), ['diode-average']);
    return v!.figure.inputs.find((i) => i.label === 'rail current')!.value;
  };
  expect(find(0.4)).toBeGreaterThan(0.4);
  expect(find(0.01)).toBeGreaterThan(0.1);
  expect(find(0.01)).toBeLessThan(0.12);
});
