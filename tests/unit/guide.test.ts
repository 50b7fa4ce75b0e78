import { exampleForFirstSteps } from '@/core/design/first-steps';
import { applyPatch } from '@/core/design/design';
import { readDesign } from '@/core/design/schema';
import { judge } from '@/core/judge/judge';
import { studyDesign } from '@/core/study/study';
import { NOTHING_SEEN, seenAfter, STEPS, stepAt, type Moment } from '@/ui/guide-steps';

const start: Moment = { band: 'nominal', opened: false, fails: 0, own: false };

test('the steps come one after the other; what is done early counts only when it is its turn', () => {
  let seen = seenAfter(NOTHING_SEEN, { ...start, opened: true, fails: 3, own: true });
  expect(stepAt(seen)).toBe(0);
  seen = seenAfter(seen, { ...start, band: 'low' });
  expect(stepAt(seen)).toBe(1);
  seen = seenAfter(seen, start);
  expect(stepAt(seen)).toBe(1);
  seen = seenAfter(seen, { ...start, opened: true });
  expect(stepAt(seen)).toBe(2);
  expect(stepAt(seenAfter(seen, { ...start, fails: null }))).toBe(2);
  seen = seenAfter(seen, { ...start, fails: 2 });
  expect(stepAt(seen)).toBe(3);
  expect(stepAt(seenAfter(seen, { ...start, fails: 1, own: true }))).toBe(3);
  seen = seenAfter(seen, start);
  expect(stepAt(seen)).toBe(4);
  seen = seenAfter(seen, { ...start, own: true });
  expect(stepAt(seen)).toBe(STEPS.length);
  expect(stepAt(seenAfter(seen, { ...start, fails: 5 }))).toBe(STEPS.length);
});

test('they are taken on a sound design that fails when it is told to, and has nobody’s story', () => {
  const design = exampleForFirstSteps();
  expect(readDesign(design)).toMatchObject({ ok: true });
  const fails = (d: typeof design) => judge(studyDesign(d)).filter((v) => v.state === 'fails');
  expect(fails(design)).toEqual([]);
  expect(STEPS.find((s) => s.key === 'failed')!.says).toContain('2200 uF');
  expect(fails(applyPatch(design, { reservoir: { capacitanceF: 2200e-6 } })).map((v) => v.id)).toContain('headroom');
  expect(design).toMatchObject({ log: [], note: '', stage: 'sketch', bench: { readings: [] }, build: { placed: [] } });
});
