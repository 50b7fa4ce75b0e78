import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { NextRequest } from 'next/server';

process.env['EMBER_RAIL_DB'] = path.join(mkdtempSync(path.join(tmpdir(), 'parts-')), 'shelf.db');

import * as all from '@/app/api/parts/route';
import * as one from '@/app/api/parts/[id]/route';
import * as csv from '@/app/api/parts/csv/route';
import * as imported from '@/app/api/parts/import/route';
import { applyPatch } from '@/core/design/design';
import { usesOf, withPart } from '@/core/drawer/fit';
import type { Part, PartDraft } from '@/core/drawer/part';
import { demoDesigns } from '@/core/design/demo-designs';
import { drawer, store } from '@/server/store';

const HOME = 'http://127.0.0.1:3000';
const request = (method: string, at: string, body?: unknown, headers: Record<string, string> = {}) =>
  new NextRequest(`${HOME}${at}`, {
    method,
    headers: { host: '127.0.0.1:3000', origin: HOME, 'content-type': 'application/json', ...headers },
    ...(body === undefined ? {} : { body: JSON.stringify(body) }),
  });
const at = (id: string) => ({ params: Promise.resolve({ id }) });
const sink = (more: Partial<PartDraft> = {}): PartDraft => ({
  kind: 'sink',
  name: 'Finned',
  ratings: { kPerW: 3 },
  known: 'measured',
  condition: 'salvaged',
  count: 2,
  priceEur: null,
  place: 'box 9',
  note: '',
  ...more,
});
async function add(part = sink()): Promise<Part> {
  const response = await all.POST(request('POST', '/api/parts', part));
  expect(response.status).toBe(201);
  return (await response.json()) as Part;
}
const page = async (query: string) =>
  (await (await all.GET(request('GET', `/api/parts?${query}`))).json()) as {
    parts: Part[];
    total: number;
    counts: Record<string, number>;
    uses: Record<string, number>;
  };

test('an empty drawer begins with generic parts, none of them on hand', async () => {
  const { total, counts, parts } = await page('kind=capacitor');
  expect(total).toBeGreaterThan(50);
  expect(parts.length).toBeLessThanOrEqual(100);
  expect(counts['transformer']).toBeGreaterThan(50);
  expect((await page('kind=capacitor&stock=1')).total).toBe(0);
});

test('a part is put in, found by a rating, changed, taken out and put back', async () => {
  const part = await add(sink({ name: 'Odd one', ratings: { kPerW: 3.21 } }));
  expect((await page('kind=sink&least.kPerW=3.2&most.kPerW=3.22')).parts.map((p) => p.name)).toEqual(['Odd one']);
  const { id, ...rest } = part;
  const changed = await one.PUT(request('PUT', `/api/parts/${id}`, { ...rest, count: 7 }), at(id));
  expect(await changed.json()).toMatchObject({ count: 7 });
  expect((await one.DELETE(request('DELETE', `/api/parts/${id}`), at(id))).status).toBe(204);
  expect((await one.PUT(request('PUT', `/api/parts/${id}`, rest), at(id))).status).toBe(404);
  expect((await one.POST(request('POST', `/api/parts/${id}`, rest), at(id))).status).toBe(204);
  expect((await page('kind=sink&words=Odd')).parts[0]).toMatchObject({ id, count: 2 });
});

test('a part that a design was given answers who uses it, and goes only when that is meant', async () => {
  const part = await add(sink({ name: 'Wanted' }));
  const clock = demoDesigns()[0]!;
  const { id } = store().create(applyPatch(clock, withPart(clock, part, usesOf(part, clock, 'sink')[0]!)));
  expect((await page('kind=sink&words=Wanted')).uses[part.id]).toBe(1);
  const asked = await one.DELETE(request('DELETE', `/api/parts/${part.id}`), at(part.id));
  expect(asked.status).toBe(409);
  expect(await asked.json()).toMatchObject({ users: [{ id, name: clock.name }] });
  const meant = await one.DELETE(request('DELETE', `/api/parts/${part.id}?sure=1`), at(part.id));
  expect(meant.status).toBe(204);
  expect(store().get(id)!.design.heat.sinkKPerW).toBe(3);
});

test.each([
  ['a negative price', sink({ priceEur: -1 }), /price/i],
  ['half a count', sink({ count: 1.5 }), /whole number/],
  ['a rating that is no number', { ...sink(), ratings: { kPerW: '3' } }, /numbers/],
  ['an unknown kind', { ...sink(), kind: 'valve' }, /no kind of part/],
  ['a list', [sink()], /JSON object/],
])('%s is refused with a sentence', async (_, body, sentence) => {
  const before = drawer().all().length;
  const response = await all.POST(request('POST', '/api/parts', body));
  expect(response.status).toBe(422);
  expect(((await response.json()) as { detail: string }).detail).toMatch(sentence);
  expect(drawer().all()).toHaveLength(before);
});

test('a file is taken whole, or not at all', async () => {
  const before = drawer().all().length;
  const good = 'kind,name,kPerW\nsink,One,5\nsink,Two,6\n';
  const half = 'kind,name,kPerW\nsink,Three,5\nsink,Four,hot\n';
  const post = (text: unknown, refused?: number) =>
    imported.POST(request('POST', '/api/parts/import', { text, ...(refused === undefined ? {} : { refused }) }));
  expect(await (await post(good)).json()).toEqual({ taken: 2 });
  const refused = await post(half);
  expect(refused.status).toBe(422);
  expect(((await refused.json()) as { errors: string[] }).errors[0]).toMatch(/^Row 3/);
  expect(drawer().all()).toHaveLength(before + 2);
  // Only when the person saw exactly that many refused are the others taken.
  expect((await post(half, 2)).status).toBe(422);
  expect(await (await post(half, 1)).json()).toEqual({ taken: 1 });
  expect((await post(17)).status).toBe(422);
  expect((await post('a,b\n1,2\n')).status).toBe(422);
});

test('fifty thousand rows come in at once', async () => {
  const text = `kind,name,kPerW\n${Array.from({ length: 50_000 }, (_, n) => `sink,Row ${n},${1 + (n % 30)}`).join('\n')}`;
  const response = await imported.POST(request('POST', '/api/parts/import', { text }));
  expect(await response.json()).toEqual({ taken: 50_000 });
  const { total, parts } = await page('kind=sink&words=Row&sort=-kPerW&limit=5');
  expect(total).toBe(50_000);
  expect(parts.every((p) => p.ratings['kPerW'] === 30)).toBe(true);
});

test('the drawer comes out as a file that spreadsheets may open', async () => {
  await add(sink({ name: '=HYPERLINK("x")' }));
  const response = await csv.GET(request('GET', '/api/parts/csv'));
  const text = await response.text();
  expect(response.headers.get('content-type')).toMatch(/text\/csv/);
  expect(text).toContain(`'=HYPERLINK`);
});

test('nobody from elsewhere reads or writes', async () => {
  const foreign = { origin: 'http://example.org' };
  expect((await all.POST(request('POST', '/api/parts', sink(), foreign))).status).toBe(403);
  expect((await imported.POST(request('POST', '/api/parts/import', { text: '' }, foreign))).status).toBe(403);
  expect((await one.DELETE(request('DELETE', '/api/parts/x', undefined, foreign), at('x'))).status).toBe(403);
});

test('an unknown kind of page is refused', async () => {
  expect((await all.GET(request('GET', '/api/parts?kind=valve'))).status).toBe(422);
});
