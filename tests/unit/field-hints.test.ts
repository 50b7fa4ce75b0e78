import { readdirSync, readFileSync } from 'node:fs';
import { FIELD_HINTS } from '@/core/design/field-hints';

const folder = `${__dirname}/../../src/places/supply`;
const sources = [...readdirSync(folder).map((f) => `${folder}/${f}`), `${__dirname}/../../src/ui/demand-fields.tsx`]
  .filter((f) => f.endsWith('.tsx'))
  .map((f) => readFileSync(f, 'utf8'));
/** What stands behind an attribute of the fields in them. */
const all = (pattern: RegExp) => [...new Set(sources.flatMap((s) => [...s.matchAll(pattern)].map((m) => m[1]!)))];

test('every field of the Supply says what it is', () => {
  const paths = all(/path="([^"]+)"/g);
  expect(paths.length).toBeGreaterThan(35);
  expect(paths.filter((p) => !FIELD_HINTS[p])).toEqual([]);
  const lists = all(/<ChoiceField\s+label="([^"]+)"/g);
  expect(lists.length).toBeGreaterThan(8);
  expect(lists.filter((l) => !FIELD_HINTS[`choice ${l}`])).toEqual([]);
});

test('a hint is a sentence or two, short enough for its line', () => {
  for (const [name, hint] of Object.entries(FIELD_HINTS))
    expect([name, /^[A-Z].*\.$/.test(hint), hint.length < 165]).toEqual([name, true, true]);
});
