import fc from 'fast-check';
import { applyPatch, type Design, type Patch } from '@/core/design/design';
import { readDesign } from '@/core/design/schema';
import { judge } from '@/core/judge/judge';
import type { RuleId } from '@/core/judge/rules';
import { pictureOf } from '@/core/judge/picture';
import { summaryOf } from '@/core/picture/summary';
import type { Picture } from '@/core/picture/picture';
import { SolveError } from '@/core/solve/solve-error';
import { studyDesign } from '@/core/study/study';
import { absurd, plausible } from '../support/designs';

test('anything that can be typed is a valid file, and is judged in finite numbers or refused with the circumstance that has no solution', () => {
  let solved = 0;
  fc.assert(
    fc.property(absurd, (design) => {
      expect(readDesign(JSON.parse(JSON.stringify(design))).ok).toBe(true);
      let picture: Picture | null = null;
      let refusal = 'At none: solved.';
      try {
        picture = pictureOf(design).picture;
        solved++;
      } catch (error) {
        refusal = error instanceof SolveError ? error.message : String(error);
      }
      // A constant-power load on a supply that cannot feed it has no answer; that is said, with where.
      expect(refusal).toMatch(/^At .+: .+\.$/);
      if (!picture) return;
      for (const v of picture.verdicts) {
        expect(Number.isFinite(v.figure.value)).toBe(true);
        expect(Number.isFinite(v.left)).toBe(true);
      }
      const { low, nominal, high } = picture.points;
      for (const { wave } of [low, nominal, high]) expect(wave.reservoirV.every(Number.isFinite)).toBe(true);
      for (const { rail } of Object.values(picture.points)) expect(rail.minV).toBeLessThanOrEqual(rail.maxV);
      expect(JSON.stringify(summaryOf(picture))).not.toMatch(/null,null/);
    }),
    { numRuns: 60 },
  );
  expect(solved).toBeGreaterThan(30);
});

/** Value of a verdict's figure before and after a patch. */
function effect(design: Design, patch: Patch, id: RuleId): [number, number] {
  const value = (d: Design) => judge(studyDesign(d), [id])[0]!.figure.value;
  return [value(design), value(applyPatch(design, patch))];
}

describe('one change moves the figures the way a builder expects', () => {
  const runs = { numRuns: 40 };

  test('a bigger sink cools junction and metal', () => {
    fc.assert(
      fc.property(plausible, (d) => {
        for (const id of ['junction', 'sink-touch'] as const) {
          const [before, after] = effect(d, { heat: { sinkKPerW: 2.5 } }, id);
          expect(after).toBeLessThan(before);
        }
      }),
      runs,
    );
  });

  test('a higher winding lifts the headroom and burns more', () => {
    fc.assert(
      fc.property(plausible, (d) => {
        const patch = { transformer: { ratedV: d.transformer.ratedV * 1.1, ratedVA: d.transformer.ratedVA * 1.1 } };
        const headroom = effect(d, patch, 'headroom');
        expect(headroom[1]).toBeGreaterThan(headroom[0]);
        const junction = effect(d, patch, 'junction');
        expect(junction[1]).toBeGreaterThan(junction[0]);
      }),
      runs,
    );
  });

  test('a wider low line takes headroom away and leaves the idle voltage alone', () => {
    fc.assert(
      fc.property(plausible, (d) => {
        const headroom = effect(d, { mains: { lowPct: 15 } }, 'headroom');
        expect(headroom[1]).toBeLessThan(headroom[0]);
        const idle = effect(d, { mains: { lowPct: 15 } }, 'reservoir-voltage');
        expect(idle[1]).toBeCloseTo(idle[0], 9);
      }),
      runs,
    );
  });

  test('a Schottky bridge gives headroom back', () => {
    fc.assert(
      fc.property(plausible, (d) => {
        const [before, after] = effect(d, { rectifier: { diode: 'sk-5a-100' } }, 'headroom');
        expect(after).toBeGreaterThan(before);
      }),
      runs,
    );
  });

  test('a stiffer transformer draws a harder pulse and idles lower', () => {
    fc.assert(
      fc.property(plausible, (d) => {
        const patch = { transformer: { ratedVA: 3 * d.transformer.ratedVA } };
        const surge = effect(d, patch, 'diode-surge');
        expect(surge[1]).toBeGreaterThan(surge[0]);
        const idle = effect(d, patch, 'regulator-input');
        expect(idle[1]).toBeLessThanOrEqual(idle[0]);
      }),
      runs,
    );
  });

  test('half the load halves the winding current, about', () => {
    fc.assert(
      fc.property(plausible, (d) => {
        const [full, half] = effect(d, { demand: { outputA: d.demand.outputA / 2 } }, 'winding-current');
        expect(half / full).toBeGreaterThan(0.45);
        expect(half / full).toBeLessThan(0.75);
      }),
      runs,
    );
  });
});
