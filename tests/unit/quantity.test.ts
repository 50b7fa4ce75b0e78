import fc from 'fast-check';
import { formatForInput, formatNominal, formatQuantity } from '@/core/quantity/format';
import { parseQuantity, type Unit } from '@/core/quantity/parse';
import {
  E12,
  E6,
  nearestInDecades,
  nextInList,
  stepInDecades,
  stepInList,
  CAPACITOR_VOLTS,
} from '@/core/quantity/preferred';

const value = (text: string, unit: Unit) => {
  const result = parseQuantity(text, unit);
  if (!result.ok) throw new Error(result.error);
  return result.value;
};
const error = (text: string, unit: Unit) => {
  const result = parseQuantity(text, unit);
  return result.ok ? `read as ${result.value}` : result.error;
};

test.each<[string, Unit, number]>([
  ['4700u', 'F', 4700e-6],
  ['4700 µF', 'F', 4700e-6],
  ['4.7m', 'F', 4.7e-3],
  ['4u7', 'F', 4.7e-6],
  ['1n', 'F', 1e-9],
  ['2k2', 'ohm', 2200],
  ['4R7', 'ohm', 4.7],
  ['0R22', 'ohm', 0.22],
  ['2.2 kohm', 'ohm', 2200],
  ['12 V', 'V', 12],
  ['0.5A', 'A', 0.5],
  ['500mA', 'A', 0.5],
  ['600m', 'A', 0.6],
  ['0,5 A', 'A', 0.5],
  ['1e-3', 'A', 1e-3],
  ['5 K/W', 'K/W', 5],
  ['10 %', '%', 10],
  ['30VA', 'VA', 30],
  ['40 °C', '°C', 40],
  ['40C', '°C', 40],
  ['−3', 'V', -3],
  ['.5', 'V', 0.5],
])('reads %s in %s', (text, unit, expected) => {
  expect(value(text, unit)).toBeCloseTo(expected, 12);
});

test.each<[string, Unit, RegExp]>([
  ['', 'V', /type volts/],
  ['abc', 'V', /'abc' is not a number/],
  ['12 parsecs', 'V', /'parsecs' behind the number is not a unit of volts/],
  ['1.234,5', 'V', /both a point and a comma/],
  ['1,234,567', 'V', /mixes separators/],
  ['5 F', 'V', /not a unit of volts/],
  ['1e999', 'V', /too large/],
  ['NaN', 'A', /not a number/],
  ['Infinity', 'A', /not a number/],
  ['--3', 'A', /not a number/],
])('says what is wrong with %s', (text, unit, sentence) => {
  expect(error(text, unit)).toMatch(sentence);
});

test('capacitors are written in µF, never mF', () => {
  expect(formatQuantity(4700e-6, 'F')).toBe('4700 µF');
  expect(formatQuantity(0.22e-6, 'F')).toBe('0.22 µF');
  expect(formatQuantity(22000e-6, 'F')).toBe('22000 µF');
  expect(formatQuantity(1e-9, 'F')).toBe('1 nF');
});

test('measured values keep their figures, chosen ones drop trailing zeros, negatives carry a true minus', () => {
  expect(formatQuantity(2200, 'ohm')).toBe('2.20 kΩ');
  expect(formatNominal(2200, 'ohm')).toBe('2.2 kΩ');
  expect(formatNominal(18, 'V')).toBe('18 V');
  expect(formatNominal(100, 'V')).toBe('100 V');
  expect(formatQuantity(-0.31, 'V')).toBe('−310 mV');
  expect(formatQuantity(999.7, 'mV'.slice(1) as Unit)).toBe('1.00 kV');
  expect(formatQuantity(NaN, 'V')).toBe('–');
});

test('what a field shows reads back as the same value', () => {
  fc.assert(
    fc.property(
      fc.double({ min: 1e-6, max: 1e3, noNaN: true }),
      fc.constantFrom<Unit>('V', 'A', 'ohm', '%', 'K/W', '°C', 'VA', 'Hz'),
      (v, unit) => {
        const rounded = Number(v.toPrecision(3));
        if (unit === 'A' && rounded < 1e-5) return;
        if (unit === 'ohm' && rounded < 1e-2) return;
        expect(value(formatForInput(rounded, unit), unit)).toBeCloseTo(rounded, 9);
      },
    ),
  );
});

test('stepping walks the series, from between two members to the next one first', () => {
  expect(stepInDecades(2200e-6, E6, 1)).toBeCloseTo(3300e-6, 12);
  expect(stepInDecades(6800e-6, E6, 1)).toBeCloseTo(10000e-6, 12);
  expect(stepInDecades(1000e-6, E6, -1)).toBeCloseTo(680e-6, 12);
  expect(stepInDecades(2500e-6, E6, 1)).toBeCloseTo(3300e-6, 12);
  expect(stepInDecades(2500e-6, E6, -1)).toBeCloseTo(2200e-6, 12);
  expect(stepInList(25, CAPACITOR_VOLTS, 1)).toBe(35);
  expect(stepInList(450, CAPACITOR_VOLTS, 1)).toBe(450);
  expect(nextInList(36.1, CAPACITOR_VOLTS)).toBe(50);
});

test('a step up and a step down end where they began', () => {
  fc.assert(
    fc.property(fc.constantFrom(...E12), fc.integer({ min: -9, max: 4 }), (m, decade) => {
      const start = Number((m * 10 ** decade).toPrecision(6));
      expect(stepInDecades(stepInDecades(start, E12, 1), E12, -1)).toBeCloseTo(start, 12);
      expect(nearestInDecades(start * 1.04, E12)).toBeCloseTo(start, 12);
    }),
  );
});

test('times are read and written in minutes where they are long', () => {
  const read = (text: string) => parseQuantity(text, 's');
  expect(['90', '2 min', '1.5min', '2 h', '20 ms'].map(read)).toEqual(
    [90, 120, 90, 7200, 0.02].map((value) => ({ ok: true, value })),
  );
  for (const seconds of [0.02, 5, 60, 120, 95, 7200, 86_400]) {
    const again = parseQuantity(formatForInput(seconds, 's'), 's');
    expect(again.ok && again.value).toBeCloseTo(seconds, 2);
  }
  expect(formatForInput(120, 's')).toBe('2 min');
});
