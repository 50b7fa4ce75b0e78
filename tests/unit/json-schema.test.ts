import Ajv2020 from 'ajv/dist/2020';
import { readFileSync } from 'node:fs';
import path from 'node:path';
import { designJsonSchema } from '@/core/design/json-schema';
import { readDesign } from '@/core/design/schema';
import { demoDesigns } from '@/core/design/demo-designs';
import { GET } from '@/app/schema/design.json/route';
import fc from 'fast-check';
import { absurd } from '../support/designs';

const valid = new Ajv2020({ strict: false, allErrors: true }).compile(designJsonSchema());

test('every design of the demo, and 200 of every arrangement and family, is valid by it', () => {
  for (const design of demoDesigns())
    expect([design.name, valid(design), valid.errors]).toEqual([design.name, true, null]);
  let accepted = 0;
  fc.assert(
    fc.property(absurd, (design) => {
      const read = readDesign(JSON.parse(JSON.stringify(design)));
      if (!read.ok) return;
      accepted++;
      expect([valid(read.design), valid.errors]).toEqual([true, null]);
    }),
    { seed: 11, numRuns: 200 },
  );
  expect(accepted).toBeGreaterThan(150);
});

type Loose = Record<string, Record<string, unknown>>;
test.each<[string, (d: Loose) => void, string]>([
  ['a farad too many', (d) => (d['reservoir']!['capacitanceF'] = 1000), '/reservoir/capacitanceF'],
  ['a member no design has', (d) => (d['mains']!['colour'] = 'green'), '/mains'],
  ['a member that is missing', (d) => delete d['heat']!['ambientC'], '/heat'],
  ['a word that is none of them', (d) => (d['mainsSide']!['insulation'] = 'class III'), '/mainsSide/insulation'],
  ['a number as text', (d) => (d['demand']!['outputV'] = '24'), '/demand/outputV'],
  ['another version', (d) => ((d as Record<string, unknown>)['version'] = 1), '/version'],
  ['a regulator with members of another kind', (d) => (d['regulator'] = { kind: 'none', outputV: 5 }), '/regulator'],
  [
    'a time that is none',
    (d) => ((d['bench']!['readings'] as Loose[])[0]!['at'] = 'noon' as never),
    '/bench/readings/0/at',
  ],
])('%s is refused by it where it is, and by the program too', (_, spoil, where) => {
  const document = JSON.parse(JSON.stringify(demoDesigns()[0])) as Loose;
  spoil(document);
  expect(valid(document)).toBe(false);
  expect(valid.errors!.map((e) => e.instancePath)).toContain(where);
  expect(
    readDesign({
      ...document,
      version: (document as Record<string, unknown>)['version'] === 1 ? 99 : document['version'],
    }).ok,
  ).toBe(false);
});

test('it is served, and the one in the docs is the same', async () => {
  const served = (await GET().json()) as unknown;
  expect(served).toEqual(JSON.parse(JSON.stringify(designJsonSchema())));
  const shipped = readFileSync(path.join(__dirname, '../../docs/design.schema.json'), 'utf8');
  expect(JSON.parse(shipped)).toEqual(served);
});
