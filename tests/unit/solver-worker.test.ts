import { applyPatch } from '@/core/design/design';
import type { ComparedId } from '@/core/picture/comparison';
import { MAINS_PRESETS } from '@/core/design/defaults';
import { fitDesign } from '@/core/bench/fit-design';
import { cornerGrid } from '@/core/judge/corners';
import { judge } from '@/core/judge/judge';
import { simulateFixes } from '@/core/judge/fixes';
import { pictureOf } from '@/core/judge/picture';
import { singleChanges } from '../support/changes';
import { solveBuilds, summarise } from '../support/builds';
import { mainsSide } from '@/core/mains-side/mains-side';
import { billOf } from '@/core/study/bill';
import { mostOf } from '@/core/study/most';
import { operatingPoint } from '@/core/study/operating-point';
import { studyDesign } from '@/core/study/study';
import { demoDesigns } from '@/core/design/demo-designs';
import type { SchoolReport, Solver } from '@/workers/solver.worker';

import type { Edit, Design } from '@/core/design/design';
import type { Variation } from '@/core/study/variation';
import type { AboutOf, ItemOf, Kind, PartOf, SurveyOf } from '@/workers/long-work';
import { newWork, type Done } from '@/workers/piece';

jest.mock('comlink', () => ({ expose: jest.fn() }));
import { expose } from 'comlink';
import '@/workers/solver.worker';
import { clock, pen, physics, logger, tide } from '../support/demos';

const solver = (expose as unknown as jest.Mock<void, [Solver]>).mock.calls[0]![0];

/** Constant watts without a reservoir: no voltages fit. */
const hopeless = applyPatch(demoDesigns()[1]!, { demand: { kind: 'power' }, reservoir: { capacitanceF: 0 } });
const value = <T>(answer: { ok: true; value: T } | { ok: false; error: string }): T => {
  if (!answer.ok) throw new Error(answer.error);
  return answer.value;
};

/** All of a long work that one thread goes through. */
const gone = <K extends Kind>(
  kind: K,
  about: AboutOf<K>,
  items: readonly ItemOf<K>[] = [],
  tell?: (parts: PartOf<K>[]) => void,
) => solver.go<K>({ work: newWork(), kind, about, items, told: undefined as never }, tell);

test('an edit’s picture is that of the design, whatever was solved before it', () => {
  value(solver.evaluate(physics));
  const warm = value(solver.evaluate(clock));
  const cold = pictureOf(clock).picture;
  expect(warm.verdicts.map((v) => [v.id, v.state])).toEqual(cold.verdicts.map((v) => [v.id, v.state]));
  warm.verdicts.forEach((v, n) => expect(v.figure.value / cold.verdicts[n]!.figure.value).toBeCloseTo(1, 3));
  const refused = solver.evaluate(hopeless);
  expect(refused).toMatchObject({ ok: false, error: expect.stringMatching(/^At .+: .+\.$/) });
});

test('what has no solution is a sentence everywhere, and nobody’s crash', async () => {
  for (const answer of [
    await gone('corners', hopeless),
    solver.bill(hopeless),
    solver.mainsSide(hopeless),
    solver.sharesOf(hopeless, 3),
    await gone('fixes', hopeless),
    solver.survey({ work: newWork(), kind: 'changes', about: hopeless }),
    await gone('changes', hopeless),
  ])
    expect(answer).toMatchObject({ ok: false, error: expect.stringMatching(/\S{3}/) });
});

test('fixes are told verdict by verdict; a newer job ends an older one', async () => {
  const told: Record<string, string[]> = {};
  const into = (of: Record<string, string[]>) => (batches: PartOf<'fixes'>[]) =>
    batches.forEach((b) => b && (of[b.verdict] = b.fixes.map((f) => f.edit.label)));
  expect(await gone('fixes', pen, [], into(told))).toMatchObject({ ok: true, value: { parts: [] } });
  const study = studyDesign(pen);
  const expected = Object.fromEntries(
    [...simulateFixes(study, judge(study))].map((b) => [b.verdict, b.fixes.map((f) => f.edit.label)]),
  );
  expect(told).toEqual(expected);
  const late: Record<string, string[]> = {};
  const [older, newer] = await Promise.all([gone('fixes', pen, [], into(late)), gone('fixes', clock)]);
  expect([older, newer]).toEqual([
    { ok: true, value: 'dropped' },
    { ok: true, value: expect.objectContaining({ end: undefined }) },
  ]);
  expect(Object.keys(late).length).toBeLessThan(Object.keys(expected).length);
  const dropped = gone('fixes', pen);
  solver.lookUp('nothing');
  solver.lookUp('fixes');
  expect(await dropped).toEqual({ ok: true, value: 'dropped' });
});

test('changes are simulated piece by piece as all at once; one that gains nothing is told as nothing', async () => {
  const work = newWork();
  const edits = value(solver.survey({ work, kind: 'changes', about: pen })) as SurveyOf<'changes'>;
  const piece = async (items: Edit[]) =>
    value(await solver.go({ work, kind: 'changes', about: null, items, told: undefined })) as Done<'changes'>;
  const pieces = [await piece(edits.slice(0, 5)), await piece(edits.slice(5))];
  expect(pieces.flatMap((p) => p.parts)).toEqual(singleChanges(pen));
  pieces.forEach(({ tookMs }) => expect(tookMs).toBeGreaterThan(0));
  const about = { design: clock, output: 'main' as const };
  const more = value(solver.survey({ work: newWork(), kind: 'more', about })) as SurveyOf<'more'>;
  const { parts: tried } = value(await gone('more', about, more)) as Done<'more'>;
  expect(tried).toHaveLength(more.length);
  expect(tried.filter((m) => m !== null).length).toBeGreaterThan(3);
  expect(tried).toContain(null);
  tried.forEach((m, n) => expect(m?.edit ?? more[n]).toEqual(more[n]));
});

test('a work is told once what it is about; one nobody told of, or forgotten for newer ones, is unknown', async () => {
  const item: Variation = { condition: 'nominal' };
  const piece = (work: number, about: Design | null) =>
    solver.go({ work, kind: 'variations', about, items: [item], told: undefined });
  const old = newWork();
  expect(await piece(old, null)).toEqual({ ok: true, value: 'unknown' });
  const first = value(await piece(old, clock)) as Done<'variations'>;
  expect(value(await piece(old, null))).toMatchObject({ parts: first.parts });
  // What one thread goes through in one go takes nobody's place.
  for (let n = 0; n < 6; n++) await gone('faults', clock);
  for (let n = 0; n < 3; n++) await piece(newWork(), pen);
  expect(value(await piece(old, null))).toMatchObject({ parts: first.parts });
  for (let n = 0; n < 4; n++) await piece(newWork(), pen);
  expect(await piece(old, null)).toEqual({ ok: true, value: 'unknown' });
});

test('a piece that takes longer than it should ends between two items where its work is dropped; others go on', async () => {
  const many: Variation[] = Array.from({ length: 20_000 }, () => ({ condition: 'low' }));
  const [dropped, other] = [newWork(), newWork()];
  const go = (work: number, items: Variation[]) =>
    solver.go({ work, kind: 'variations', about: tide, items, told: undefined });
  const both = Promise.all([go(dropped, many), go(other, many.slice(0, 40))]);
  solver.lookUp(dropped);
  const [first, second] = await both;
  expect(first).toEqual({ ok: true, value: 'dropped' });
  expect((value(second) as Done<'variations'>).parts).toHaveLength(40);
});

/** What a way comes to, by the figure's name. */
const valuesOf = (report: SchoolReport): Partial<Record<ComparedId, number>> =>
  Object.fromEntries(Object.entries(value(report.answer).figures).map(([id, f]) => [id, f.value]));

test('schools are solved on the design’s own values', () => {
  for (const report of value(solver.schools(clock))) {
    const a = valuesOf(report);
    const picture = pictureOf(applyPatch(clock, report.patch)).picture;
    const { low, nominal, idle } = picture.points;
    expect(a.fails).toBe(picture.fails);
    expect(a.rail).toBeCloseTo(nominal.rail.meanV, 3);
    expect(a.rises).toBeCloseTo((100 * (idle.rail.meanV - low.rail.meanV)) / low.rail.meanV, 2);
    expect(a.winding).toBeCloseTo(nominal.solution.windings[0]!.rmsA, 4);
    expect(a.pulse).toBeGreaterThan(a.winding!);
    expect(a.headroom).toBeCloseTo(low.rail.minV - picture.neededV!, 3);
    expect(a.lasts).toBeUndefined();
    expect(a.diodes).toBeCloseTo(nominal.watts.rectifier, 3);
  }
  const { regulators, cooling, technology } = value(solver.regulatorSchools(clock));
  expect([regulators.length > 1, cooling.length > 0, technology !== null]).toEqual([true, true, true]);
  const hottest = valuesOf(cooling[0]!);
  expect(hottest.junction).toBeGreaterThan(hottest.sink!);
  const diodes = value(solver.reverseDiodes(logger));
  expect(diodes.map((d) => d.id)).toEqual(['none', 'Schottky', 'silicon']);
  const lasts = diodes.map((d) => valuesOf(d).lasts!);
  for (const h of lasts) expect(h).toBeGreaterThan(30);
  // The least of all outputs' headroom is what counts: the radio's.
  const schottky = valuesOf(diodes[1]!);
  const radio = operatingPoint(applyPatch(logger, diodes[1]!.patch), 'low').outputs[0]!.headroomV!;
  expect(schottky.headroom!).toBeLessThanOrEqual(radio + 1e-6);
});

test('what screens ask is what the core says', async () => {
  expect(value(solver.bill(clock))).toEqual(billOf(studyDesign(clock)));
  expect(value(solver.most(clock))).toEqual(mostOf(clock));
  expect(value(solver.mainsSide(clock)).primaryFuseA).toBe(mainsSide(studyDesign(clock)).primaryFuseA);
  expect(value(solver.heat(clock, 'high', null))!.rows.length).toBeGreaterThan(2);
  expect(value(solver.cooler(clock)).ways[0]!.label).toBe('as it is');
  expect(value(solver.letsGo(clock))).toBeNull();
  expect((value(await gone('corners', clock)) as Done<'corners'>).end).toEqual(cornerGrid(clock));
  expect(value(solver.bench(clock)).map((p) => p.id)).toContain('sink-warm');
  const scoped = value(await gone('scope', { design: clock, run: { kind: 'steady' }, band: 'nominal' }));
  expect((scoped as Done<'scope'>).end.traces.length).toBeGreaterThan(4);
  const fitted = value(await gone('fit', { design: clock, moving: ['open'] }));
  expect((fitted as Done<'fit'>).end).toEqual(fitDesign(clock, ['open']));
  const { plan, asks } = value(solver.beginBatch(1, clock, 3, 8));
  const solved = value(await gone('builds', { design: clock, plan, seed: 3 }, asks)) as Done<'builds'>;
  value(solver.takeAnswers(1, solved.parts));
  expect(value(solver.nextAsks(1))).toEqual([]);
  expect(value(solver.summariseBatch(1))).toEqual(summarise(clock, 3, solveBuilds(clock, 3, 0, 8)));
  value(solver.beginBatch(2, clock, 3, 8));
  expect(solver.takeAnswers(1, [])).toEqual({ ok: false, error: expect.stringMatching(/no longer being drawn/) });
  expect(Object.values(value(solver.sharesOf(clock, 5))).every((share) => share >= 0 && share <= 1)).toBe(true);
  const made = value(
    solver.fromReadings(
      { mainsV: 230, idleV: 36, loadedV: 31, loadA: 1.5, rippleVpp: 1.6, flatTopPct: 0 },
      MAINS_PRESETS[0]!.mains,
      [],
      '2026-05-03T19:00:00Z',
    ),
  );
  expect(made.demand.outputA).toBe(1.5);
  const { end } = value(await gone('board', clock)) as Done<'board'>;
  expect(end.volts.value).toBeGreaterThan(clock.demand.outputV);
  expect(end.loads.length).toBeGreaterThan(3);
});

test('a parts file is counted row by row', () => {
  const text = ['kind,name,count,kPerW', 'sink,Fin,2,5', 'sink,,1,5', 'knob,Knob,1,', 'sink,Bar,1,2.5'].join('\n');
  const read = value(solver.readParts(text));
  expect([read.total, read.refused, read.errors.length, read.first.length]).toEqual([4, 2, 2, 4]);
  const many = value(
    solver.readParts(['kind,name,count,kPerW', ...Array.from({ length: 300 }, () => 'knob,x,1,1')].join('\n')),
  );
  expect([many.total, many.refused, many.errors.length, many.first.length]).toEqual([300, 300, 200, 100]);
  expect(solver.readParts('').ok).toBe(false);
});
