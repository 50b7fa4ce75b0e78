import fc from 'fast-check';
import { csvColumns, harmless, partsCsv, readPartsCsv } from '@/core/drawer/csv';
import { ratingLine } from '@/core/drawer/rating-line';
import { partsIn, stillIn, usesOf, withPart } from '@/core/drawer/fit';
import { KINDS, PART_KINDS, type Part, type PartDraft } from '@/core/drawer/part';
import { startingDrawer } from '@/core/drawer/starting';
import { applyPatch } from '@/core/design/design';
import { openDatabase } from '@/server/database';
import { demoDesigns } from '@/core/design/demo-designs';
import { demoDrawer } from '@/server/demo-drawer';
import { designStore } from '@/server/designs';
import { partStore } from '@/server/parts';
import { partFault, partFaults, readPart } from '@/core/drawer/part-schema';

const [clock, , pen, drum] = demoDesigns();
const can = (more: Partial<PartDraft> = {}): PartDraft => ({
  kind: 'capacitor',
  name: '4700 µF 50 V',
  ratings: { capacitanceF: 4700e-6, ratedV: 50 },
  known: 'measured',
  condition: 'salvaged',
  count: 3,
  priceEur: 1.5,
  place: 'box 7',
  note: '',
  ...more,
});
const rows = (text: string) => {
  const read = readPartsCsv(text);
  if (!read.ok) throw new Error(read.error);
  return read.rows;
};
const errors = (text: string) => rows(text).flatMap((r) => ('error' in r ? [r.error] : []));
const parts = (text: string) => rows(text).flatMap((r) => ('part' in r ? [r.part] : []));

describe('a parts file', () => {
  test('commas, semicolons with decimal commas, tabs and a byte-order mark all give the same part', () => {
    const comma = parts('kind,name,count,capacitanceF,ratedV\ncapacitor,Big one,2,4700u,25 V\n');
    const semicolon = parts('\uFEFFkind;name;count;capacitanceF;ratedV\r\ncapacitor;Big one;2;4,7m;25\r\n');
    const tab = parts('kind\tname\tcount\tcapacitanceF\tratedV\ncapacitor\tBig one\t2\t4700u\t25V');
    expect(comma[0]).toMatchObject({ kind: 'capacitor', name: 'Big one', count: 2 });
    expect(comma[0]!.ratings['capacitanceF']).toBeCloseTo(4.7e-3, 12);
    expect(semicolon[0]!.ratings['capacitanceF']).toBeCloseTo(4.7e-3, 12);
    expect(semicolon[0]!.ratings['ratedV']).toBe(25);
    expect(tab).toEqual(comma);
  });

  test.each([
    ['an unknown kind', 'kind,name\nvalve,EL\n', /Row 2: 'valve' is no kind of part/],
    ['a missing rating', 'kind,name,capacitanceF\ncapacitor,X,1u\n', /Row 2: Rated volts is missing/],
    ['text for a number', 'kind,name,kPerW\nsink,X,cold\n', /Row 2: To air: /],
    ['a negative price', 'kind,name,price,kPerW\nsink,X,-3,5\n', /Row 2: .*[Pp]rice/],
    ['a negative count', 'kind,name,count,kPerW\nsink,X,-1,5\n', /Row 2: The count/],
    ['a rating of another kind', 'kind,name,kPerW,ratedV\nsink,X,5,50\n', /Row 2: a sink has no 'ratedV'/],
    ['an absurd value', 'kind,name,kPerW\nsink,X,0\n', /Row 2: To air of 0 is outside/],
    ['no name', 'kind,name,kPerW\nsink,,5\n', /Row 2: The part has no name/],
  ])('%s is refused with its row', (_, text, sentence) => {
    expect(parts(text)).toEqual([]);
    expect(errors(text)[0]).toMatch(sentence);
  });

  test.each([
    ['wrong columns', 'a,b,c\n1,2,3\n', /column 'kind' is missing/],
    ['a strange column', 'kind,name,colour\nsink,X,red\n', /'colour' is none of a parts file/],
    ['nothing', '', /No columns/],
  ])('%s: the whole file is refused', (_, text, sentence) => {
    const read = readPartsCsv(text);
    expect(read.ok ? '' : read.error).toMatch(sentence);
  });

  test('good rows stand beside refused ones, each with its own row', () => {
    const text = 'kind,name,kPerW\nsink,A,5\nsink,B,x\nsink,C,7\n';
    expect(parts(text).map((p) => p.name)).toEqual(['A', 'C']);
    expect(errors(text)).toHaveLength(1);
    expect(errors(text)[0]).toMatch(/^Row 3/);
  });

  test('what is written is read back the same', () => {
    const all: Part[] = [...startingDrawer(), ...demoDrawer()].map((p, n) => ({ ...p, id: `p${n}` }));
    expect(parts(partsCsv(all))).toEqual(all.map(({ id: _, ...p }) => (void _, p)));
  });

  test.each(['=1+1', '+A1', '-2', '@x', '\tcmd'])('%s is never left for a spreadsheet to run', (text) => {
    expect(harmless(text).startsWith("'")).toBe(true);
    const csv = partsCsv([{ ...can({ name: text, note: text }), id: 'x' }]);
    for (const line of csv.split('\r\n').slice(1)) expect(line).not.toMatch(/(^|,)"?[=+@-][^,]*[A-Za-z(+]/);
  });

  test('fifty thousand rows are read', () => {
    const text = `kind,name,kPerW\n${Array.from({ length: 50_000 }, (_, n) => `sink,Sink ${n},${1 + (n % 20)}`).join('\n')}`;
    expect(rows(text)).toHaveLength(50_000);
  });

  test('too many rows are refused, not cut off', () => {
    const read = readPartsCsv(`kind,name\n${'sink,x\n'.repeat(60_001)}`);
    expect(read.ok ? '' : read.error).toMatch(/60001 rows/);
  });

  test('no text whatever makes the reader throw', () => {
    fc.assert(
      fc.property(fc.string({ maxLength: 300 }), (text) => {
        const read = readPartsCsv(`kind,name,${csvColumns().slice(8, 12).join(',')}\n${text}`);
        expect(typeof read.ok).toBe('boolean');
      }),
      { numRuns: 200 },
    );
  });
});

describe('a part', () => {
  test('every starting part and every demo part is one that could be typed in', () => {
    for (const part of [...startingDrawer(), ...demoDrawer()])
      expect([part.name, partFault(part)]).toEqual([part.name, null]);
  });

  test('its ratings in a line carry units and leave out what is not known', () => {
    expect(ratingLine(can())).toBe('4700 µF, 50.0 V');
  });

  test('a value of unknown origin is refused with a sentence', () => {
    for (const value of [
      null,
      [],
      7,
      {},
      { ...can(), kind: 'valve' },
      { ...can(), ratings: { ratedV: 'x' } },
      { ...can(), count: '3' },
    ]) {
      const read = readPart(value);
      expect(read.ok).toBe(false);
      expect(read.ok ? '' : read.error.length).toBeGreaterThan(10);
    }
    expect(readPart(can()).ok).toBe(true);
  });

  test('each kind asks for something, and its limits are the right way round', () => {
    for (const kind of PART_KINDS) {
      expect(KINDS[kind].ratings.some((r) => r.required)).toBe(true);
      for (const r of KINDS[kind].ratings) expect(r.min).toBeLessThan(r.max);
    }
  });
});

describe('what a part can be used for', () => {
  const transformer = (windings: number): PartDraft => ({
    ...can(),
    kind: 'transformer',
    name: 'T',
    ratings: { secondaryV: 18, windings, sizeVA: 50 },
  });

  test('two windings serve a bridge in series or in parallel, and a centre tap as halves', () => {
    expect(usesOf(transformer(2), clock!, 'transformer').map((u) => u.patch.transformer!.ratedV)).toEqual([18, 36, 18]);
    // One of two used alone: the plate speaks of both.
    expect(usesOf(transformer(2), clock!, 'transformer')[2]!.patch.transformer!.windingsOnPlate).toBe(2);
    expect(usesOf(transformer(2), drum!, 'transformer').map((u) => u.patch.transformer!.ratedV)).toEqual([18]);
    expect(usesOf(transformer(1), drum!, 'transformer')).toEqual([]);
  });

  test('as many cans in parallel as there are, two rails taking twice as many', () => {
    expect(usesOf(can({ count: 3 }), clock!, 'reservoir').map((u) => u.patch.reservoir!.cans)).toEqual([1, 2, 3]);
    expect(usesOf(can({ count: 3 }), drum!, 'reservoir').map((u) => u.patch.reservoir!.cans)).toEqual([1]);
    expect(usesOf(can({ count: 0 }), clock!, 'reservoir')).toEqual([]);
  });

  test('a bridge carries half its current in each diode and follows the law of the nearest class', () => {
    const bridge: PartDraft = { ...can(), kind: 'bridge', ratings: { outputA: 10, reverseV: 600 } };
    const [use] = usesOf(bridge, clock!, 'rectifier');
    expect(use!.patch.rectifier!.rated).toMatchObject({ averageA: 5, reverseV: 600 });
    expect(use!.patch.rectifier!.diode).toMatch(/^si-/);
    expect(usesOf(bridge, applyPatch(clock!, { rectifier: { kind: 'centre-tap' } }), 'rectifier')).toEqual([]);
  });

  test('a part is in a design until one of its values is changed', () => {
    const part: Part = { ...can(), id: 'c1' };
    const [use] = usesOf(part, clock!, 'reservoir');
    const taken = applyPatch(clock!, withPart(clock!, part, use!));
    expect(partsIn(taken).map((p) => p.partId)).toEqual(['c1']);
    expect(stillIn(applyPatch(taken, { reservoir: { ratedV: 63 } }), taken.picked[0]!)).toBe(false);
    expect(stillIn(applyPatch(taken, { name: 'Other' }), taken.picked[0]!)).toBe(true);
  });

  test('taking another part for the same role replaces the pick', () => {
    const first: Part = { ...can(), id: 'c1' };
    const second: Part = { ...can(), id: 'c2' };
    const one = applyPatch(pen!, withPart(pen!, first, usesOf(first, pen!, 'reservoir')[0]!));
    const two = applyPatch(one, withPart(one, second, usesOf(second, one, 'reservoir')[0]!));
    expect(two.picked.map((p) => p.partId)).toEqual(['c2']);
    // What was picked for another role stays.
    const bridge: Part = { ...can(), kind: 'bridge', ratings: { outputA: 10, reverseV: 600 }, id: 'b1' };
    const both = applyPatch(two, withPart(two, bridge, usesOf(bridge, two, 'rectifier')[0]!));
    expect(both.picked.map((p) => p.partId).sort()).toEqual(['b1', 'c2']);
  });

  test('a choke takes the place of the first choke there is, and of nothing else', () => {
    const choke: PartDraft = { ...can(), kind: 'choke', ratings: { inductanceH: 0.3, resistanceOhm: 4, ratedA: 2 } };
    expect(usesOf(choke, clock!, 'choke')).toEqual([]);
    const own = { kind: 'choke', inductanceH: 1, resistanceOhm: 20, ratedA: 1, swinging: false } as const;
    const behind = applyPatch(clock!, {
      filter: {
        after: [{ kind: 'resistor', resistanceOhm: 1 }, own, { kind: 'capacitor', capacitanceF: 1e-3, ratedV: 63 }],
      },
    });
    const [use] = usesOf(choke, behind, 'choke');
    const after = applyPatch(behind, use!.patch).filter.after;
    expect(after.map((s) => s.kind)).toEqual(['resistor', 'choke', 'capacitor']);
    expect(after[1]).toMatchObject({ inductanceH: 0.3, resistanceOhm: 4, ratedA: 2 });
  });

  test('a transformer of the starting drawer is named by its windings, each of its volts', () => {
    const named = startingDrawer().filter((p) => p.kind === 'transformer');
    for (const p of named) expect(p.name.startsWith('2 × ')).toBe(p.ratings['windings'] === 2);
    expect(named.some((p) => p.ratings['windings'] === 1)).toBe(true);
  });
});

describe('the drawer in its database', () => {
  const open = () => {
    const db = openDatabase(':memory:');
    return { parts: partStore(db), designs: designStore(db) };
  };

  test('keeps, changes, takes out and puts back', () => {
    const { parts } = open();
    const part = parts.add(can());
    expect(parts.get(part.id)).toEqual(part);
    parts.change(part.id, can({ count: 9 }));
    expect(parts.get(part.id)!.count).toBe(9);
    const before = parts.get(part.id)!;
    expect(parts.remove(part.id)).toBe(true);
    expect(parts.get(part.id)).toBeNull();
    parts.restore(before);
    expect(parts.get(part.id)).toEqual(before);
  });

  test('sorts and filters by any rating, what is not known last', () => {
    const { parts } = open();
    for (const [name, esrOhm] of [
      ['a', 0.3],
      ['b', null],
      ['c', 0.1],
    ] as const) {
      parts.add(can({ name, ratings: { capacitanceF: 1e-3, ratedV: 50, esrOhm } }));
    }
    const names = (sort: string) => parts.find({ kind: 'capacitor', sort }).parts.map((p) => p.name);
    expect(names('esrOhm')).toEqual(['c', 'a', 'b']);
    expect(names('-esrOhm')).toEqual(['a', 'c', 'b']);
    expect(parts.find({ kind: 'capacitor', limits: [{ key: 'esrOhm', least: 0.2 }] }).parts.map((p) => p.name)).toEqual(
      ['a'],
    );
    expect(parts.find({ kind: 'capacitor', limits: [{ key: "x') OR 1=1 --", least: 0 }] }).total).toBe(3);
  });

  test('words are searched as text, wildcards and quotes included', () => {
    const { parts } = open();
    parts.add(can({ name: "50 % of it's" }));
    parts.add(can({ name: 'plain' }));
    expect(parts.find({ kind: 'capacitor', words: "50 % it's" }).parts).toHaveLength(1);
    expect(parts.find({ kind: 'capacitor', words: '%' }).total).toBe(1);
  });

  test('thousands of rows come in pages, the total beside them', () => {
    const { parts } = open();
    parts.addAll(
      Array.from({ length: 5000 }, (_, n) => can({ name: `can ${String(n).padStart(4, '0')}`, count: n % 2 })),
    );
    const page = parts.find({ kind: 'capacitor', inStock: true, offset: 100, limit: 50 });
    expect(page.total).toBe(2500);
    expect(page.parts).toHaveLength(50);
    expect(page.parts[0]!.name).toBe('can 0201');
  });

  test('an import that fails on the way leaves nothing behind', () => {
    const { parts } = open();
    const broken = { ...can(), kind: null } as unknown as PartDraft;
    expect(() => parts.addAll([can(), broken])).toThrow();
    expect(parts.all()).toEqual([]);
  });

  test('says which designs a part is in', () => {
    const { parts, designs } = open();
    const part = parts.add(can());
    const use = usesOf(part, clock!, 'reservoir')[0]!;
    designs.create(applyPatch(clock!, withPart(clock!, part, use)));
    designs.create(pen!);
    expect(parts.usedBy(part.id).map((d) => d.name)).toEqual([clock!.name]);
    parts.remove(part.id);
    expect(designs.list()).toHaveLength(2);
  });
});

test('everything wrong with a part is told at once, each at its own field', () => {
  const bad = { ...can(), name: ' ', count: 1.5, priceEur: -1, ratings: { capacitanceF: null, ratedV: 1e9, wrong: 1 } };
  const faults = partFaults(bad as PartDraft);
  expect(Object.keys(faults).sort()).toEqual(
    ['count', 'name', 'priceEur', 'ratings', 'ratings.capacitanceF', 'ratings.ratedV'].sort(),
  );
  expect(faults['ratings.ratedV']).toMatch(/Rated volts of 1000000000 is outside/);
  expect(faults['ratings.capacitanceF']).toMatch(/without it the part cannot be used/);
  expect(faults['ratings']).toMatch(/no rating 'wrong' for capacitors/);
  expect(partFaults(can())).toEqual({});
});
