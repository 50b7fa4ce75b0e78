import { applyPatch, type Design, type Patch } from '@/core/design/design';
import { hazard } from '@/core/judge/hazard';
import { studyDesign } from '@/core/study/study';
import { demoDesigns } from '@/core/design/demo-designs';

const [clock, dome, , drum, tide, , , logger] = demoDesigns() as Design[];
const said = (design: Design, patch: Patch = {}) => hazard(studyDesign(applyPatch(design, patch)));
/** Open volts stand above the plate's by the regulation: with this little, hardly. */
const stiff = { ratedVA: 400, regulationPct: 1, source: { kind: 'plate' } } as const;

describe('touch limits of the secondary side: 60 V DC, 25 V AC', () => {
  test('a winding under 25 V AC at the highest input is not marked, one above is', () => {
    // 22 V at 110 % are 24.2 V and the per cent of no load; 23 V are 25.3.
    expect(said(dome!, { transformer: { ...stiff, ratedV: 22 } })).toBeNull();
    expect(said(dome!, { transformer: { ...stiff, ratedV: 23 } })).toMatch(/25\.\d V AC across the winding/);
  });

  test('a centre tap counts end to end: both halves together', () => {
    const tapped = { rectifier: { kind: 'centre-tap' } } as const;
    expect(said(dome!, { ...tapped, transformer: { ...stiff, ratedV: 11 } })).toBeNull();
    // 13 V a half: 14.4 at the highest input, 28.9 end to end.
    expect(said(dome!, { ...tapped, transformer: { ...stiff, ratedV: 13 } })).toMatch(/28\.\d V AC across the winding/);
  });

  test('direct current over 60 V on a reservoir is named with its volts, and that it stays', () => {
    const found = said(tide!)!;
    const idle = studyDesign(tide!).idle;
    expect(found).toMatch(/DC on the reservoir, also after switching off/);
    const volts = Number(/([\d.]+) V DC/.exec(found)![1]);
    expect(volts).toBeGreaterThan(60);
    expect(Math.abs(volts / Math.max(idle.rail.maxV, idle.reservoir.maxV, idle.rail.inputMaxV) - 1)).toBeLessThan(0.02);
  });

  test('two rails of 35 V stand 70 V apart', () => {
    const split = studyDesign(drum!);
    const both = split.idle.rails.reduce((sum, p) => sum + Math.max(p.reservoir.maxV, p.rail.maxV), 0);
    const single = Math.max(...split.idle.rails.map((p) => p.reservoir.maxV));
    expect(single).toBeLessThan(60);
    expect(both).toBeGreaterThan(60);
    expect(hazard(split)).toMatch(/DC from rail to rail/);
    // With half the volts they stand under the limit together.
    const low = studyDesign(applyPatch(drum!, { transformer: { ...stiff, ratedV: 10 } }));
    const apart = low.idle.rails.reduce((sum, p) => sum + Math.max(p.reservoir.maxV, p.rail.maxV), 0);
    expect(apart).toBeLessThan(60);
    expect(hazard(low)).toBeNull();
  });

  test('a battery of 12 V is none; one of 72 V is', () => {
    expect(said(logger!)).toBeNull();
    const source = { kind: 'battery', freshV: 72, emptyV: 66, resistanceOhm: 0.2, capacityAh: 10, reverseDiode: true };
    expect(said(logger!, { source, regulator: { kind: 'none' }, outputs: [] } as Patch)).toMatch(
      /V DC on the reservoir/,
    );
  });

  test('the demo that idles at 28 V AC says so', () => {
    expect(said(clock!)).toMatch(/28\.8 V AC across the winding/);
  });
});
