import { unbroken } from '@/core/quantity/unbroken';
import { rangeFault } from '@/core/design/limits';
import { formatForInput, formatNominal, formatQuantity, capitalised } from '@/core/quantity/format';
import { parseLoad } from '@/core/quantity/load';
import type { Unit } from '@/core/quantity/parse';
import {
  E12,
  E24,
  E6,
  E96,
  nearestInDecades,
  nearestInList,
  nextInList,
  stepInDecades,
  stepInList,
} from '@/core/quantity/preferred';
import { isSpan, parseSpan } from '@/core/quantity/span';

/** Numbers as they are shown and typed, each worked out by hand. */

describe('a figure on a screen', () => {
  test.each<[number, Unit, string]>([
    [0, 'V', '0 V'],
    [-1e-12, 'V', '0 V'],
    [5e-10, 'A', '0 A'],
    [1e-9, 'A', '1.00 nA'],
    [29.1e-9, 'V', '29.1 nV'],
    [12.345, 'V', '12.3 V'],
    [-12.345, 'V', '−12.3 V'],
    [999.6, 'V', '1.00 kV'],
    [0.0999, 'V', '99.9 mV'],
    [0.9996, 'A', '1.00 A'],
    [4.7e3, 'ohm', '4.70 kΩ'],
    [2.2e6, 'ohm', '2.20 MΩ'],
    [0.047, 'ohm', '47.0 mΩ'],
    [1e-5, 'ohm', '0.0100 mΩ'],
    [3e9, 'ohm', '3000 MΩ'],
    [0, 'ohm', '0 Ω'],
    [6.8e-3, 'F', '6800 µF'],
    [1.5, 'F', '1.5 F'],
    [1, 'F', '1 F'],
    [0.9999, 'F', '999900 µF'],
    [22e-9, 'F', '0.022 µF'],
    [4.7e-9, 'F', '4.7 nF'],
    [47e-12, 'F', '47 pF'],
    [0, 'F', '0 µF'],
    [9.96, 'K', '10.0 K'],
    [4.04, 'K', '4.0 K'],
    [12.4, 'K', '12 K'],
    [9.6, '°C', '10 °C'],
    [-0.3, '°C', '0 °C'],
    [-20.4, '°C', '−20 °C'],
    [54.4, '°', '54°'],
    [3.5, 'EUR', '3.50 EUR'],
    [12.5, '%', '12.5 %'],
    [100, '%', '100 %'],
    [0.0004, 'A²s', '< 0.001 A²s'],
    [0.001, 'A²s', '0.001 A²s'],
    [0, 'A²s', '0 A²s'],
    [82.56, 'A²s', '82.6 A²s'],
    [179, 's', '179 s'],
    [180, 's', '3 min'],
    [7199, 's', '120 min'],
    [7200, 's', '2 h'],
    [0.0125, 's', '12.5 ms'],
    [3e-6, 's', '3.00 µs'],
    [0, 's', '0 s'],
    [1.5, 'h', '1.5 h'],
    [20000, 'Hz', '20 kHz'],
    [2.5, 'K/W', '2.5 K/W'],
    [3, '', '3'],
    [NaN, 'V', '–'],
    [Infinity, 'W', '–'],
  ])('%d %s is %s', (value, unit, text) => expect(formatQuantity(value, unit)).toBe(text));

  test('as many figures as asked for', () => {
    expect(formatQuantity(0.8051, 'V', 2)).toBe('810 mV');
    expect(formatQuantity(1234.5, 'W', 2)).toBe('1.2 kW');
  });

  test.each<[number, Unit, string]>([
    [18, 'V', '18 V'],
    [1.8, 'V', '1.8 V'],
    [100, 'VA', '100 VA'],
    [-5.25, 'V', '−5.25 V'],
    [100000, 'ohm', '100 kΩ'],
  ])('chosen: %d %s is %s', (value, unit, text) => expect(formatNominal(value, unit)).toBe(text));

  test('in a field: short, and empty where there is no number', () => {
    expect(formatForInput(6.8e-3, 'F')).toBe('6800 µF');
    expect(formatForInput(4700, 'ohm')).toBe('4.7 kΩ');
    expect(formatForInput(0.25, 'A')).toBe('250 mA');
    expect(formatForInput(0.02, 'V')).toBe('20 mV');
    expect(formatForInput(0.005, 'V')).toBe('5 mV');
    expect(formatForInput(0.1, 'V')).toBe('0.1 V');
    expect(formatForInput(12.6, 'V')).toBe('12.6 V');
    expect(formatForInput(20000, 'Hz')).toBe('20 kHz');
    expect(rangeFault('demand.outputA', 100 * 1e-6)).toBeNull();
    expect(rangeFault('demand.outputA', 99e-6)).toMatch(/at least 100 µA/);
    expect(formatForInput(7, '')).toBe('7');
    expect(formatForInput(1 / 3, '%')).toBe('0.333333 %');
    expect(formatForInput(NaN, 'V')).toBe('');
  });

  test('words begin a sentence', () => expect(capitalised('free air')).toBe('Free air'));
});

describe('a load as builders know it, on 12 V', () => {
  test.each([
    ['2 A', 2],
    ['500mA', 0.5],
    ['24 W', 2],
    ['6 ohm', 2],
    ['47R', 12 / 47],
    // Amperes and watts are what they are at any volts; a resistor draws more at more.
    ['2 A at 5 V', 2],
    ['2A @ 24V', 2],
    ['10 W at 5 V', 2],
    ['5 ohm at 10 V', 2.4],
  ])('%s', (text, amps) => {
    const read = parseLoad(text, 12);
    expect(read.ok && read.value).toBeCloseTo(amps, 9);
  });

  test.each([
    ['0 ohm', /short/],
    ['-3 ohm', /short|less|negative/i],
    ['2 A at 0 V', /more than 0 V/],
    ['2 A at lots', /volts|number|read/i],
    ['plenty', /ohms and watts are read too/],
  ])('%s gets a sentence', (text, words) => {
    const read = parseLoad(text, 12);
    expect(read.ok ? '' : read.error).toMatch(words);
  });
});

describe('two ends', () => {
  test.each([
    ['58 to 70 V', 58, 70],
    ['58 V to 70 V', 58, 70],
    ['1.5..25', 1.5, 25],
    ['1,5 – 25 V', 1.5, 25],
    ['3V3 to 5 V', 3.3, 5],
    ['11-13', 11, 13],
  ])('%s', (text, low, high) => {
    expect(isSpan(text)).toBe(true);
    expect(parseSpan(text, 'V')).toEqual({ ok: true, value: { low, high } });
  });

  test.each([
    ['70 to 58 V', /below the second/],
    ['12 to 12 V', /below the second/],
    ['about 12', /not two ends/],
    ['twelve to 13x V', /./],
  ])('%s gets a sentence', (text, words) => {
    const read = parseSpan(text, 'V');
    expect(read.ok ? '' : read.error).toMatch(words);
  });

  test('one end is no span', () => {
    for (const text of ['5 %', '12 V', '-5', '']) expect(isSpan(text)).toBe(false);
  });
});

describe('what can be bought', () => {
  test('the 1 % series has its 96 values', () => {
    expect(E96).toHaveLength(96);
    expect([E96[0], E96[1], E96[48], E96[95]]).toEqual([1, 1.02, 3.16, 9.76]);
  });

  test.each([
    // from, series, steps, to
    [4700, E6, 1, 6800],
    [6800, E6, 1, 10000],
    [1000, E6, -1, 680],
    [1000, E6, 0, 1000],
    [1000, E12, 12, 10000],
    [1000, E12, -13, 82],
    // From between two: to the next one first.
    [5000, E6, 1, 6800],
    [5000, E6, -1, 4700],
    [9.5, E24, 1, 10],
    [9.5, E6, -1, 6.8],
    [-3, E6, 1, -3],
  ])('%d in its series, %# : %d steps', (from, series, steps, to) =>
    expect(stepInDecades(from, series, steps)).toBe(to),
  );

  const LIST = [5, 6, 9, 12];
  test.each([
    [6, 1, 9],
    [6, -1, 5],
    [12, 1, 12],
    [5, -3, 5],
    [7, 1, 9],
    [7, -1, 6],
    [99, -1, 12],
    [1, 1, 5],
    [7, 0, 7],
  ])('%d in a list, %d steps: %d', (from, steps, to) => expect(stepInList(from, LIST, steps)).toBe(to));
  test('an empty list moves nothing', () => expect(stepInList(7, [], 1)).toBe(7));

  test('the next that is enough, and the nearest', () => {
    expect([nextInList(6, LIST), nextInList(6.1, LIST), nextInList(50, LIST)]).toEqual([6, 9, 12]);
    expect([nearestInList(7.4, LIST), nearestInList(7.6, LIST), nearestInList(-9, LIST)]).toEqual([6, 9, 5]);
    // The geometric middle of 4.7 and 6.8 is 5.65.
    expect([nearestInDecades(5.6, E6), nearestInDecades(5.7, E6), nearestInDecades(4.7, E6)]).toEqual([4.7, 6.8, 4.7]);
  });
});

test('a number keeps its unit with it where a line ends', () => {
  expect(unbroken('118 °C, 4.7 kΩ and 5 % at 230 V.')).toBe('118\u00a0°C, 4.7\u00a0kΩ and 5\u00a0% at 230\u00a0V.');
  expect(unbroken('type 7812, then the next')).toBe('type 7812, then the next');
});
