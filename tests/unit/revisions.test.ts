import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { NextRequest } from 'next/server';

process.env['EMBER_RAIL_DB'] = path.join(mkdtempSync(path.join(tmpdir(), 'revisions-')), 'shelf.db');

import * as kept from '@/app/api/designs/[id]/revisions/route';
import * as one from '@/app/api/designs/[id]/revisions/[revision]/route';
import { demoDesigns } from '@/core/design/demo-designs';
import { applyPatch, type Design } from '@/core/design/design';
import { pictureOf } from '@/core/judge/picture';
import { movedVerdicts } from '@/core/picture/moved-verdicts';
import { database } from '@/server/database';
import type { Revision } from '@/server/revisions';
import { store } from '@/server/store';

const [design] = demoDesigns();
const HOME = 'http://127.0.0.1:3000';
const request = (method: string, body?: unknown) =>
  new NextRequest(`${HOME}/api/designs/x/revisions`, {
    method,
    headers: { host: '127.0.0.1:3000', origin: HOME, 'content-type': 'application/json' },
    ...(body === undefined ? {} : { body: JSON.stringify(body) }),
  });
const at = (id: string) => ({ params: Promise.resolve({ id }) });
const keep = async (id: string, body: object) =>
  kept.POST(request('POST', { id: crypto.randomUUID(), name: 'As built', why: '', design, ...body }), at(id));
const list = async (id: string) => (await (await kept.GET(request('GET'), at(id))).json()) as Revision[];
const open = (id: string, revision: string) => one.GET(request('GET'), { params: Promise.resolve({ id, revision }) });

test('a kept state is what it was, whatever became of the design since; the newest stands first', async () => {
  const { id, revision } = store().create(design!);
  await keep(id, { name: 'As built', why: 'First light' });
  const second = applyPatch(design!, { name: 'Another name' });
  await keep(id, { name: 'Second', design: second });
  store().save(id, applyPatch(design!, { name: 'Third' }), revision);
  const [newest, first, ...rest] = await list(id);
  expect(rest).toEqual([]);
  expect([newest!.name, first!.name, first!.why]).toEqual(['Second', 'As built', 'First light']);
  expect(((await (await open(id, first!.id)).json()) as { design: Design }).design).toEqual(design);
  expect(((await (await open(id, newest!.id)).json()) as { design: Design }).design.name).toBe('Another name');
});

test('one sent twice is kept once, and what is kept already is not kept again where that is asked', async () => {
  const { id } = store().create(design!);
  const own = crypto.randomUUID();
  await keep(id, { id: own });
  await keep(id, { id: own, name: 'As built, sent again' });
  expect((await list(id)).map((r) => r.name)).toEqual(['As built']);
  await keep(id, { name: 'Before the fit', unlessKept: true });
  expect(await list(id)).toHaveLength(1);
  // A name given by hand is kept, whatever stands in the list.
  await keep(id, { name: 'By hand' });
  expect(await list(id)).toHaveLength(2);
});

test.each([
  ['no name', { name: '   ' }, 422, 'name'],
  ['a name without end', { name: 'x'.repeat(81) }, 422, 'name'],
  ['a spoiled design', { design: { ...demoDesigns()[0]!, demand: null } }, 422, 'demand'],
])('%s is refused where it is wrong, and nothing is kept', async (_name, body, status, where) => {
  const { id } = store().create(design!);
  const answer = await keep(id, body);
  expect(answer.status).toBe(status);
  expect(((await answer.json()) as { path: string }).path).toMatch(new RegExp(`^${where}`));
  expect(await list(id)).toEqual([]);
});

test('of a design that is nowhere nothing is kept, and another design’s is not opened', async () => {
  expect((await keep('nowhere', {})).status).toBe(404);
  const [a, b] = [store().create(design!), store().create(design!)];
  await keep(a.id, {});
  const [mine] = await list(a.id);
  expect((await open(b.id, mine!.id)).status).toBe(404);
});

test('one that cannot be read any more says so, and the others stay', async () => {
  const { id } = store().create(design!);
  await keep(id, { name: 'Sound' });
  await keep(id, { name: 'Spoiled', design: applyPatch(design!, { name: 'Other' }) });
  const [spoiled, sound] = await list(id);
  database().prepare("UPDATE revisions SET document = '{' WHERE id = ?").run(spoiled!.id);
  const answer = await open(id, spoiled!.id);
  expect(answer.status).toBe(422);
  expect(((await answer.json()) as { detail: string }).detail).toMatch(/not JSON/);
  expect((await open(id, sound!.id)).status).toBe(200);
});

test('the verdicts that moved are those whose state changed, what went away among them', () => {
  const better = pictureOf(design!).picture.verdicts;
  const worse = pictureOf(applyPatch(design!, { reservoir: { capacitanceF: design!.reservoir.capacitanceF / 6 } }))
    .picture.verdicts;
  const moved = movedVerdicts(better, worse);
  const stateIn = (all: typeof better, id: string) => all.find((v) => v.id === id)?.state;
  expect(moved.map((m) => m.id)).toContain('headroom');
  for (const v of worse) expect(moved.some((m) => m.id === v.id)).toBe(stateIn(better, v.id) !== v.state);
  const [first, ...others] = better;
  expect(movedVerdicts(better, others)).toEqual([expect.objectContaining({ id: first!.id, after: null })]);
  expect(movedVerdicts(others, better)).toEqual([expect.objectContaining({ id: first!.id, before: null })]);
});
