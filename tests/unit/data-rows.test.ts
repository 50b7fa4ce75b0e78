import { diodeClass, VALVE_CLASSES } from '@/core/parts/diode';
import { INTERFACES, STANDARD_SINKS_K_PER_W, TOUCH_LIMIT_C } from '@/core/parts/heatsink';
import { PACKAGES } from '@/core/parts/packages';
import { ADJUSTABLE_PARTS, REFERENCE_V } from '@/core/parts/regulators/adjustable';
import { REGULATOR_JUNCTION_MAX_C, regulatorSize, type RegulatorSizeId } from '@/core/parts/regulators/fixed';
import { LOW_DROPOUT_PARTS } from '@/core/parts/regulators/low-dropout';
import { deratedBy, passTransistor, safeCurrent } from '@/core/parts/transistor';
import { CAPACITOR_VOLTS } from '@/core/quantity/preferred';

/** Class tables against rows copied from data sheets of their kind, and bands that hold for every maker's. */

test.each([
  // id, mean A, reverse V, one half cycle A
  ['si-1a', 1, 1000, 30],
  ['si-3a', 3, 400, 200],
  ['si-8a', 4, 600, 200],
  ['si-25a', 12.5, 400, 300],
  ['sk-1a', 1, 40, 25],
  ['sk-3a', 3, 40, 80],
  ['sk-5a-100', 5, 100, 150],
  ['sk-10a-200', 10, 200, 150],
  ['valve-soft', 0.135, 1550, 4.6],
  ['valve-stiff', 0.125, 1500, 3.7],
])('diode %s: %d A, %d V, %d A once', (id, averageA, reverseV, surgeA) => {
  expect(diodeClass(id)).toMatchObject({ averageA, reverseV, surgeA });
});

test('valves: peak current of an anode and what heats them', () => {
  expect(VALVE_CLASSES.map((v) => [v.peakA, v.heater.ratedV, v.heater.currentA])).toEqual([
    [1, 5, 3],
    [0.75, 5, 1.9],
  ]);
});

test.each([
  // id, rated A, input at most for 5 V and for 24 V, whether it takes a sink, its housing
  ['78L', 0.1, 30, 40, false, 'TO-92'],
  ['78M', 0.5, 35, 40, true, 'TO-220'],
  ['78', 1, 35, 40, true, 'TO-220'],
  ['78S', 2, 35, 40, true, 'TO-220'],
])('regulator %s: %d A, %d and %d V at its input', (id, ratedA, at5, at24, takesSink, housing) => {
  const size = regulatorSize(id as RegulatorSizeId);
  expect(size).toMatchObject({ ratedA, takesSink, package: housing });
  expect([size.inputMaxV(5), size.inputMaxV(24)]).toEqual([at5, at24]);
  // 2 V of dropout in the class; a few milliamperes for itself.
  expect(Math.abs(size.dropoutV - 2)).toBeLessThan(0.3);
  expect(size.quiescentA).toBeGreaterThanOrEqual(0.003);
  expect(size.quiescentA).toBeLessThanOrEqual(0.008);
  expect(REGULATOR_JUNCTION_MAX_C).toBe(125);
});

test('adjustable parts: amperes, 1.25 V of reference, and ten milliamperes at worst but for the small one', () => {
  expect(REFERENCE_V).toBe(1.25);
  const rows = Object.entries(ADJUSTABLE_PARTS).map(([id, p]) => [id, p.ratedA, p.minimumLoadA, p.package]);
  expect(Object.fromEntries(rows.map(([id, ...rest]) => [id, rest]))).toEqual({
    '317L': [0.1, 0.005, 'TO-92'],
    '317M': [0.5, 0.01, 'TO-220'],
    '317': [1.5, 0.01, 'TO-220'],
    '350': [3, 0.01, 'TO-220'],
    '338': [5, 0.01, 'TO-3'],
  });
});

test('low-dropout parts: amperes, input at most, dropout at full current', () => {
  expect(Object.values(LOW_DROPOUT_PARTS).map((p) => [p.ratedA, p.inputMaxV, p.dropoutV])).toEqual([
    [0.25, 12, 0.4],
    [0.8, 15, 1.2],
    [1.5, 26, 0.5],
    [3, 20, 0.6],
  ]);
});

test.each([
  // id, A, V, K/W to the case, W with the case at 25 °C, hottest junction
  ['bd139', 1.5, 80, 10, 12.5, 150],
  ['tip122', 5, 100, 1.92, 65, 150],
  ['tip3055', 15, 60, 1.39, 90, 150],
  ['2n3055', 15, 60, 1.5, 115, 200],
  ['mj15003', 20, 140, 0.7, 250, 200],
])('transistor %s: %d A, %d V, %d K/W, %d W, %d °C', (id, maxA, maxV, jcKPerW, powerW, junctionMaxC) => {
  const t = passTransistor(id);
  expect(t).toMatchObject({ maxA, maxV, jcKPerW, powerW, junctionMaxC });
  // Its watts are what its junction bears above a case of 25 °C.
  expect(powerW * jcKPerW).toBeGreaterThan(0.95 * (junctionMaxC - 25));
  expect(powerW * jcKPerW).toBeLessThan(1.05 * (junctionMaxC - 25));
});

test('a warm case leaves a transistor its share of the safe area in a straight line, never less than a twentieth', () => {
  // Junction 200 °C at most: halfway from 25 °C is 112.5 °C; a twentieth is left at 191.25 °C.
  expect(deratedBy(25, 200).share).toBe(1);
  expect(deratedBy(112.5, 200)).toEqual({ share: 0.5, edge: expect.closeTo(0.45, 12) });
  expect(deratedBy(191.25, 200).edge).toBeCloseTo(0, 12);
  expect(deratedBy(230, 200).share).toBe(0.05);
  expect(deratedBy(230, 200).edge).toBeLessThan(0);
});

test('what a transistor bears: its amperes, then its watts, then less than that, then nothing', () => {
  const t = passTransistor('2n3055');
  expect(safeCurrent(t, 0)).toBe(15);
  expect(safeCurrent(t, 4)).toBe(15);
  expect(safeCurrent(t, 20)).toBeCloseTo(5.75, 9);
  // From 40 V on second breakdown: at 56 V the curve has fallen by 1.4^2.4 = 2.24 from 2.875 A.
  expect(safeCurrent(t, 40)).toBeCloseTo(2.875, 9);
  expect(safeCurrent(t, 56)).toBeCloseTo(2.875 / 2.242, 3);
  expect(safeCurrent(t, 61)).toBe(0);
});

test('housings and contacts in the order everybody finds them in', () => {
  const free = Object.fromEntries(PACKAGES.map((p) => [p.id, p.jaKPerW]));
  expect(free['TO-92']).toBeGreaterThan(free['TO-220']!);
  expect(free['TO-220']).toBeGreaterThan(free['TO-3']!);
  const of = Object.fromEntries(INTERFACES.map((i) => [i.id, i.kPerW]));
  // Paste halves what dry metal keeps; mica with paste stands between.
  expect(of['paste']).toBeLessThan(of['mica']!);
  expect(of['mica']).toBeLessThan(of['dry']!);
  expect(TOUCH_LIMIT_C).toBe(60);
});

test('what can be bought: can voltages and sinks, each in its order and once', () => {
  expect(CAPACITOR_VOLTS).toEqual([...new Set(CAPACITOR_VOLTS)].sort((a, b) => a - b));
  for (const v of [16, 25, 35, 50, 63, 100, 400, 450]) expect(CAPACITOR_VOLTS).toContain(v);
  expect(STANDARD_SINKS_K_PER_W).toEqual([...new Set(STANDARD_SINKS_K_PER_W)].sort((a, b) => b - a));
});
