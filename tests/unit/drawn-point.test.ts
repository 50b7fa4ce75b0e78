import { demoDesigns } from '@/core/design/demo-designs';
import { applyPatch, type Design } from '@/core/design/design';
import { drawnPoint } from '@/core/study/drawn-point';
import { studyDesign } from '@/core/study/study';
import { dome, tide } from '../support/demos';

const mean = (list: readonly number[]) => list.reduce((sum, v) => sum + v, 0) / list.length;
const span = (list: readonly number[]) => Math.max(...list) - Math.min(...list);
const multiplied = applyPatch(dome, { rectifier: { kind: 'doubler' } });

test.each<[string, Design]>([...demoDesigns(), multiplied].map((d) => [`${d.name}, ${d.rectifier.kind}`, d]))(
  'what is drawn of a point is what was solved: %s',
  (_, design) => {
    const { low, nominal, high, idle } = studyDesign(design);
    for (const point of [low, nominal, high, idle]) {
      const drawn = drawnPoint(design, point);
      drawn.rails.forEach(({ wave, reservoir, rail }) => {
        const swing = Math.max(rail.ripplePeakToPeakV, 1e-4 * rail.meanV);
        // Its means and extremes by its own samples.
        expect(Math.abs(mean(wave.reservoirV) - reservoir.meanV)).toBeLessThan(
          0.01 * span(wave.reservoirV) + 1e-4 * swing,
        );
        expect(Math.max(...wave.reservoirV)).toBeLessThanOrEqual(reservoir.maxV + 1e-3 * swing);
        expect(Math.max(...wave.reservoirV)).toBeGreaterThan(
          reservoir.maxV - 0.02 * swing - 0.02 * span(wave.reservoirV) - 1e-4,
        );
        expect(Math.abs(mean(wave.railV) - rail.meanV)).toBeLessThan(0.01 * swing);
        expect(mean(wave.inputV)).toBeCloseTo(rail.inputMeanV, 1);
        wave.rectifierA.forEach((amps) => expect(amps).toBeGreaterThan(-1e-4));
      });
      // Charging, the terminals stand below the open winding.
      expect(drawn.terminalPeakV).toBeGreaterThan(drawn.rail.inputMaxV / 4);
      expect(drawn).toMatchObject({ watts: point.watts, condition: point.condition, wave: drawn.rails[0]!.wave });
    }
  },
);

test('ahead of a filter’s choke and resistor the reservoir stands by what their mean current loses there', () => {
  const { nominal } = studyDesign(tide);
  const { elements, rails } = nominal.solution;
  const chokes = elements[0]!.filter((e) => e.kind === 'inductor');
  expect(chokes.length).toBeGreaterThan(0);
  // Over a whole cycle a choke keeps nothing but what its copper loses.
  for (const choke of chokes) expect(choke.meanV / choke.meanA).toBeGreaterThan(1);
  const lost = elements[0]!
    .filter((e) => e.kind === 'inductor' || e.kind === 'resistor')
    .reduce((sum, e) => sum + e.meanV, 0);
  expect(rails[0]!.inputMeanV - rails[0]!.meanV).toBeCloseTo(lost, 2);
});
