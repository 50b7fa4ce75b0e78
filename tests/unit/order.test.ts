import Papa from 'papaparse';
import { orderEur, orderOf, sparesFor, type ToBuild } from '@/core/build/order';
import { orderCsv } from '@/core/build/order-csv';
import type { Design } from '@/core/design/design';
import type { Part } from '@/core/drawer/part';
import { startingDrawer } from '@/core/drawer/starting';
import type { BillLine } from '@/core/study/bill-sums';
import { clock, pen } from '../support/demos';

const line = (what: string, count: number, priceEachEur: number, more: Partial<BillLine> = {}): BillLine => ({
  references: 'R1',
  what,
  count,
  needed: '',
  bears: [],
  lossW: null,
  had: 'as bought',
  role: null,
  fromDrawer: null,
  priceEachEur,
  typicalPrice: true,
  ...more,
});
const build = (name: string, bill: BillLine[], more: Partial<Design> = {}): ToBuild => ({
  design: { ...clock, name, picked: [], ...more },
  bill,
});
const picked = (partId: string, name: string) =>
  [{ role: 'reservoir', partId, name, priceEur: 2, values: {} }] as unknown as ToBuild['design']['picked'];
const NONE: Part[] = [];
const having = (count: number): Part[] => [{ ...startingDrawer()[0]!, id: 'p1', count }];

test('spares: cents a fifth over and two at least, up to three euros one, above none, and none of nothing', () => {
  expect([sparesFor(1, 0.1), sparesFor(10, 0.1), sparesFor(11, 0.1), sparesFor(40, 0.29)]).toEqual([2, 2, 3, 8]);
  expect([sparesFor(4, 0.3), sparesFor(4, 2.99), sparesFor(4, 3), sparesFor(0, 0.1)]).toEqual([1, 1, 0, 0]);
});

test('two designs that want the same part want it together; of other volts it is another part', () => {
  const can = (count: number, had: string) => line('Electrolytic 4700 µF', count, 1.5, { had });
  const lines = orderOf([build('A', [can(1, '35 V')]), build('B', [can(2, '35 V'), can(1, '50 V')])], NONE, false);
  expect(lines.map((l) => [l.had, l.count, l.order])).toEqual([
    ['35 V', 3, 3],
    ['50 V', 1, 1],
  ]);
  expect(lines[0]!.wanted.map((w) => `${w.design} ${w.count}`)).toEqual(['A 1', 'B 2']);
  expect(orderEur(lines)).toBeCloseTo(6, 9);
});

test('what the drawer has is taken once though two designs want it, and only what lacks is ordered', () => {
  const can = line('Electrolytic', 2, 2, { fromDrawer: 'the blue one' });
  const both = [
    build('A', [can], { picked: picked('p1', 'the blue one') }),
    build('B', [can], { picked: picked('p1', 'the blue one') }),
  ];
  const [three] = orderOf(both, having(3), false);
  expect(three).toMatchObject({ what: 'the blue one', count: 4, fromDrawer: 3, order: 1 });
  expect(orderOf(both, having(9), true)[0]).toMatchObject({ fromDrawer: 4, spares: 0, order: 0 });
  expect(orderOf(both, NONE, false)[0]).toMatchObject({ fromDrawer: 0, order: 4 });
});

test('what came in the parcel is not ordered again, and more than was wanted is no credit', () => {
  const bill = [line('Resistor 1 kΩ', 5, 0.05), line('Bridge', 1, 1.2, { references: 'D1' })];
  const counted = {
    ...clock.build,
    kit: [
      { line: 'R1 Resistor 1 kΩ', came: 2 },
      { line: 'D1 Bridge', came: 3 },
    ],
  };
  const [resistors, bridge] = orderOf([build('A', bill, { build: counted })], NONE, true);
  // Three lack; a fifth of them is less than two.
  expect(resistors).toMatchObject({ came: 2, spares: 2, order: 5 });
  expect(bridge).toMatchObject({ came: 1, spares: 0, order: 0 });
});

test('the file says what for, and sums up to the same', () => {
  const lines = orderOf([build('A', [line('=1+1', 2, 0.5)]), build('B; C', [line('Bridge', 1, 1.2)])], NONE, true);
  const { data } = Papa.parse<Record<string, string>>(orderCsv(lines).trim(), { header: true });
  expect(data.map((r) => Number(r['price_eur'])).reduce((a, b) => a + b, 0)).toBeCloseTo(orderEur(lines), 2);
  expect(data[0]!['part']).not.toMatch(/^=/);
  expect(data[1]).toMatchObject({ order: '2', spares: '1', for: 'B; C: 1 (R1)' });
});

test('a part of the drawer that is just what a design has is taken without being chosen first; one of other volts is not', async () => {
  const { billOf } = await import('@/core/study/bill');
  const { studyDesign } = await import('@/core/study/study');
  const bill = billOf(studyDesign(clock));
  const can = (ratedV: number, count: number): Part => ({
    ...startingDrawer().find((p) => p.kind === 'capacitor')!,
    ratings: { capacitanceF: 6800e-6, ratedV },
    id: `c${ratedV}`,
    name: 'from the attic',
    count,
  });
  const cans = (drawer: Part[]) =>
    orderOf(
      [
        { design: clock, bill },
        { design: clock, bill },
      ],
      drawer,
      false,
    ).find((l) => /^Electrolytic/.test(l.what))!;
  expect(cans([can(50, 5)])).toMatchObject({ count: 2, fromDrawer: 2, order: 0 });
  expect(cans([can(50, 1)])).toMatchObject({ fromDrawer: 1, order: 1 });
  expect(cans([can(35, 5)])).toMatchObject({ fromDrawer: 0, order: 2 });
});

test('nothing of two real designs is dropped', async () => {
  const { billOf } = await import('@/core/study/bill');
  const { studyDesign } = await import('@/core/study/study');
  const builds = [clock, pen].map((design) => ({ design, bill: billOf(studyDesign(design)) }));
  const lines = orderOf(builds, NONE, false);
  const count = (list: readonly { count: number }[]) => list.reduce((sum, l) => sum + l.count, 0);
  expect(count(lines)).toBe(count(builds.flatMap((b) => b.bill)));
});
