import fc from 'fast-check';
import { applyPatch, type Design } from '@/core/design/design';
import { mainModel } from '@/core/design/outputs';
import { judge } from '@/core/judge/judge';
import { copperHeat } from '@/core/study/copper-heat';
import { boxKPerW, insideAir, regulatorHeat, sinkRise } from '@/core/study/heat';
import { lossesOf } from '@/core/study/losses';
import { studyDesign } from '@/core/study/study';
import { demoDesigns } from '@/core/design/demo-designs';

const mounted = (d: Design) => ({ pass: mainModel(d)!.pass, sinkKPerW: d.heat.sinkKPerW, blown: true });
const [clock, dome] = demoDesigns() as [Design, Design];

describe('a chain solved by hand', () => {
  test('fan running, box closed, rectifier on the same sink', () => {
    const d = applyPatch(clock, {
      heat: {
        ambientC: 25,
        sinkKPerW: 2,
        interface: 'paste',
        box: 'closed',
        boxCm2: 2000,
        sinkOutside: false,
        sharedWithRectifier: true,
        fan: 'fixed',
      },
      mainsSide: { box: 'metal' },
    });
    // Box: 30 W / (5.5 W/m2K * 0.2 m2) = 27.27 K; sink: (12 + 3) W * 0.4 * 2 K/W; junction: 12 W * (3 + 0.4) K/W.
    const heat = regulatorHeat(d, mounted(d), { regulatorW: 12, othersW: 3, boxW: 30 })!;
    expect(heat.airC).toBeCloseTo(25 + 30 / (5.5 * 0.2), 9);
    expect(heat.sinkC).toBeCloseTo(heat.airC + 15 * 0.8, 9);
    expect(heat.junctionC).toBeCloseTo(heat.sinkC + 12 * 3.4, 9);
  });

  test('fins outside stand in the room’s air, whatever the box holds', () => {
    const d = applyPatch(clock, { heat: { box: 'closed', boxCm2: 500, sinkOutside: true } });
    expect(regulatorHeat(d, mounted(d), { regulatorW: 10, othersW: 0, boxW: 40 })!.airC).toBe(clock.heat.ambientC);
  });

  test('vents halve the rise, plastic makes it higher', () => {
    const k = (patch: Parameters<typeof applyPatch>[1]) => boxKPerW(applyPatch(clock, patch));
    const closed = k({ heat: { box: 'closed' } });
    expect(k({ heat: { box: 'vented' } })).toBeCloseTo(closed / 2, 12);
    expect(k({ heat: { box: 'closed' }, mainsSide: { box: 'plastic' } })).toBeGreaterThan(closed);
    expect(insideAir(clock, 100)).toBe(clock.heat.ambientC);
  });
});

describe('natural convection', () => {
  test('at the rise it is quoted for a sink is what it says', () => {
    const { riseK, kPerW } = sinkRise(3, 20, false);
    expect(riseK).toBeCloseTo(60, 9);
    expect(kPerW).toBeCloseTo(3, 9);
  });

  test('its rise satisfies its own law: R = R60·(60/rise)^¼', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0.3, max: 25, noNaN: true }),
        fc.double({ min: 0.5, max: 80, noNaN: true }),
        (k, w) => {
          const { riseK, kPerW } = sinkRise(k, w, false);
          expect(riseK).toBeCloseTo(w * kPerW, 6);
          // Below ten kelvin it conducts no worse than at ten.
          expect(kPerW).toBeCloseTo(k * (60 / Math.max(riseK, 10)) ** 0.25, 6);
        },
      ),
    );
  });

  test('a fan that is switched by temperature runs only where the sink would be hotter', () => {
    const d = applyPatch(clock, { heat: { fan: 'switched', fanOnC: 60 } });
    const label = (w: number) => regulatorHeat(d, mounted(d), { regulatorW: w, othersW: 0, boxW: w })!.chain[2]!.label;
    expect(label(2)).toMatch(/at this rise/);
    expect(label(40)).toMatch(/fan running/);
  });
});

describe('copper that warms itself', () => {
  test('comes to rest where its own loss keeps it', () => {
    const { high } = studyDesign(dome);
    const heat = copperHeat(dome, high);
    expect(heat.settles).toBe(true);
    const warm = heat.coldW * (1 + (heat.copperC - 20) / 254.5);
    expect(heat.copperC).toBeCloseTo(heat.airC + heat.kPerW * (heat.ironW + warm), 6);
  });

  test('three times its rating has no end, and the verdict says so instead of failing to answer', () => {
    const hopeless = applyPatch(clock, {
      demand: { outputA: 8 },
      transformer: { ratedVA: 40 },
      regulator: { kind: 'none' },
    });
    const study = studyDesign(hopeless);
    expect(copperHeat(hopeless, { outputs: [], watts: { ...study.high.watts, winding: 400 } }).settles).toBe(false);
    expect(judge(study, ['winding-heat'])[0]!.sentence.length).toBeGreaterThan(10);
  });
});

test('all watts are counted once: what stays inside and what fins outside give off', () => {
  const { high } = studyDesign(clock);
  const boxed = applyPatch(clock, { heat: { box: 'closed', sinkOutside: false } });
  const l = lossesOf(boxed, high);
  expect(l.totalW).toBeCloseTo(l.ironW + l.copperW + l.rectifierW + l.filterW + l.regulatorW, 9);
  expect(l.insideW).toBeCloseTo(l.totalW, 9);
  const outside = lossesOf(applyPatch(boxed, { heat: { sinkOutside: true } }), high);
  expect(outside.insideW).toBeCloseTo(l.totalW - l.regulatorW, 9);
});

test('a part that takes no sink warms the box, whatever the sink’s fields say', () => {
  const regulator = { kind: 'low-dropout' as const, part: 'ldo-800' as const, outputV: 12, boardCm2: 6 };
  const d = applyPatch(clock, { regulator, heat: { box: 'closed', sinkOutside: true, sinkKPerW: 2 } });
  const { high } = studyDesign(clock);
  expect(lossesOf(d, high).insideW).toBeCloseTo(lossesOf(d, high).totalW, 9);
});

test('a small closed box fails by its air, and a vent or an outside sink is a cure that was simulated', () => {
  const boxed = applyPatch(clock, { heat: { box: 'closed', boxCm2: 400, sinkOutside: false } });
  const [air] = judge(studyDesign(boxed), ['inside-air']);
  expect(air!.state).toBe('fails');
  const [vented] = judge(studyDesign(applyPatch(boxed, { heat: { box: 'vented', sinkOutside: true } })), [
    'inside-air',
  ]);
  expect(vented!.figure.value).toBeLessThan(air!.figure.value - 10);
});
