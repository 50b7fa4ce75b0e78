import Papa from 'papaparse';
import { demoDesigns } from '@/core/design/demo-designs';
import { readDesign } from '@/core/design/schema';
import type { Design } from '@/core/design/design';
import { logDays, logMarkdown } from '@/core/sheet/log';
import { logCsv } from '@/core/sheet/log-csv';
import { clock, dome } from '../support/demos';

test('the days come newest first, each with what was done and what was read then', () => {
  const days = logDays(clock);
  expect(days.map((d) => d.day)).toEqual(['2026-05-16', '2026-05-02', '2026-03-14', '2026-03-08']);
  expect(days[2]!.entries[0]!.entry.what).toContain('First power');
  expect(days[2]!.read).toContain('winding, open 26.5 V');
  expect(days[2]!.read).toContain('heatsink, warm 51 °C');
  expect(days[0]!.read).toEqual([]);
});

test('a load line stands with the day it was taken, without a word of the log', () => {
  const days = logDays({ ...dome, log: [] });
  expect(days.map((d) => d.day)).toEqual(['2026-04-18']);
  expect(days[0]!.read).toContain('at 2.00 A, reservoir 33.6 V');
});

test('words are looked for in all of a day, and all of them have to be there', () => {
  expect(logDays(clock, 'BLEEDER plug').map((d) => d.day)).toEqual(['2026-05-02']);
  expect(logDays(clock, 'bleeder lamp')).toEqual([]);
  expect(logDays(clock, '26.5').map((d) => d.day)).toEqual(['2026-03-14']);
});

test('CSV reads back, and no entry can act as a formula', () => {
  const odd: Design = {
    ...clock,
    log: [{ day: '2026-06-01', what: '=HYPERLINK("x")', why: 'a comma, a "quote"\nand a line', photos: [] }],
  };
  const [row] = Papa.parse<Record<string, string>>(logCsv(odd), { header: true }).data;
  expect(row).toEqual({ day: '2026-06-01', what: `'=HYPERLINK("x")`, why: 'a comma, a "quote"\nand a line' });
});

test('Markdown keeps to its lines, whatever was written', () => {
  const odd: Design = { ...clock, log: [{ day: '2026-06-01', what: '# not\n# a heading', why: '<b>', photos: [] }] };
  const text = logMarkdown(odd);
  expect(text.match(/^#+ .*$/gm)).toEqual(['# Slave-clock line, stairwell: log', '## 2026-06-01', '## 2026-03-14']);
  expect(text).toContain('*Why:* \\<b\\>');
});

test.each([
  ['a month that is none', { day: '2026-13-01', what: 'x', why: '', photos: [] }, 'log[0].day'],
  ['a day that is none', { day: '2026-02-31', what: 'x', why: '', photos: [] }, 'log[0].day'],
  ['nothing done', { day: '2026-01-01', what: '', why: '', photos: [] }, 'log[0].what'],
  ['a page of text', { day: '2026-01-01', what: 'x', why: 'y'.repeat(601), photos: [] }, 'log[0].why'],
])('an entry with %s is refused where it is wrong', (_, entry, path) => {
  const read = readDesign({ ...demoDesigns()[0], log: [entry] });
  expect(read.ok ? '' : read.fault.path).toBe(path);
});
