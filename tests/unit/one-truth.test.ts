import fc from 'fast-check';
import { conditionsOf } from '@/core/circuit/condition';
import type { Design } from '@/core/design/design';
import { outputsOf } from '@/core/design/outputs';
import { cornerGrid } from '@/core/judge/corners';
import { judge } from '@/core/judge/judge';
import { stationFigures } from '@/core/picture/station-figures';
import { pictureOf } from '@/core/judge/picture';
import { report } from '@/core/sheet/report';
import { SolveError } from '@/core/solve/solve-error';
import { heatView } from '@/core/study/heat-report';
import { studyDesign } from '@/core/study/study';
import { demoDesigns } from '@/core/design/demo-designs';
import { absurd, plausible } from '../support/designs';

/** Runs what has no answer past: it is told elsewhere that it says so. */
function solved(look: () => void): void {
  try {
    look();
  } catch (error) {
    if (!(error instanceof SolveError)) throw error;
    expect(error.message).toMatch(/^At /);
  }
}

/** Every figure that Supply, Worst case, Heat and sheet all show of one design. */
function agree(design: Design): void {
  const { picture } = pictureOf(design);
  const grid = cornerGrid(design);
  const sheet = report(picture, []);
  const failing = picture.verdicts.filter((v) => v.state === 'fails').map((v) => v.id);
  const inGrid = [
    ...grid.rows.filter((r) => r.values[r.worst]!.state === 'fails').map((r) => r.id),
    ...grid.events.filter((e) => e.state === 'fails').map((e) => e.id),
  ];
  expect([...inGrid].sort()).toEqual([...failing].sort());
  expect(picture.fails).toBe(failing.length);
  picture.verdicts.forEach((v, n) => {
    expect(sheet.margins[n]!.figure.value).toBe(v.figure.value);
    expect(sheet.margins[n]!.state).toBe(v.state);
    const row = grid.rows.find((r) => r.id === v.id);
    // What happens once has no cell.
    expect(row !== undefined).toBe(v.at !== null);
    expect(row ? row.values[row.worst]!.value : v.figure.value).toBeCloseTo(v.figure.value, 6);
  });
  // The headroom that is judged is the one the regulator's own figures show, and what the drawing is labelled with.
  const gap = picture.verdicts.find((v) => v.id === 'headroom' && v.at === 'low' && v.output === 'main');
  const shownGap = stationFigures(picture, 'regulator', 'low').find((f) => f.id === 'regulator-headroom');
  expect(gap && shownGap ? shownGap.value - gap.figure.value : 0).toBeCloseTo(0, 9);
  // The junction a verdict speaks of is the one Heat shows in that circumstance.
  for (const id of ['junction', 'rectifier-heat', 'winding-heat'] as const) {
    const v = picture.verdicts.find((x) => x.id === id);
    if (!v || v.at === null || v.figure.words) continue;
    const rowId = id === 'junction' ? v.output! : id === 'rectifier-heat' ? 'rectifier' : 'winding';
    const row = heatView(design, v.at, null)!.rows.find((r) => r.id === rowId)!;
    const shown = row.steps[row.steps.length - 1]!.tempC;
    expect([id, Math.abs(shown - v.figure.value) < 0.01 * Math.abs(v.figure.value) + 0.5]).toEqual([id, true]);
  }
}

/** No verdict says pass beyond its limit; cautions are told apart and never count. */
function nothingPassesBeyond(design: Design): void {
  const verdicts = judge(studyDesign(design));
  for (const v of verdicts) {
    const beyond = v.relation === 'at most' ? v.figure.value > v.limit : v.figure.value < v.limit;
    expect([v.id, v.state, beyond && (v.state === 'holds' || v.state === 'tight')]).toEqual([v.id, v.state, false]);
    expect([v.id, v.state !== 'caution' || v.caution, v.state !== 'tight' || v.left >= 0]).toEqual([v.id, true, true]);
    expect([null, ...conditionsOf(design).map((c) => c.id)]).toContain(v.at);
    expect([null, ...outputsOf(design).map((o) => o.id)]).toContain(v.output);
  }
  const states = verdicts.map((v) => v.state);
  expect(
    states.indexOf('caution') === -1 || states.slice(states.indexOf('caution')).every((s) => s === 'caution'),
  ).toBe(true);
}

describe('no two screens disagree on a figure that both show', () => {
  test.each(demoDesigns().map((d) => [d.name, d] as const))('%s', (_, design) => agree(design));

  test('supplies somebody might build, and absurd ones', () => {
    fc.assert(
      fc.property(fc.oneof(plausible, absurd), (design) => solved(() => agree(design))),
      { numRuns: 30 },
    );
  });
});

describe('no verdict passes beyond its limit', () => {
  test.each(demoDesigns().map((d) => [d.name, d] as const))('%s', (_, design) => nothingPassesBeyond(design));

  test('supplies somebody might build, and absurd ones', () => {
    fc.assert(
      fc.property(fc.oneof(plausible, absurd), (design) => solved(() => nothingPassesBeyond(design))),
      { numRuns: 40 },
    );
  });
});
