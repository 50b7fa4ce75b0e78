/** @jest-environment node */
import { mkdtempSync, readdirSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { NextRequest } from 'next/server';
import { openDatabase } from '@/server/database';
import { demoDesigns } from '@/server/demo';
import { designStore } from '@/server/designs';
import { allowedHost } from '@/server/allowed-host';
import { readJson, refuseForeign } from '@/server/http';

const design = demoDesigns()[0]!;
const fresh = () => designStore(openDatabase(':memory:'));

test('what was saved is there after the file is opened again, and migrating twice changes nothing', () => {
  const folder = mkdtempSync(path.join(tmpdir(), 'shelf-'));
  const file = path.join(folder, 'shelf.db');
  const first = openDatabase(file);
  const { id } = designStore(first).create(design);
  designStore(first).save(id, { ...design, name: 'Renamed' }, 1);
  first.close();
  const again = openDatabase(file);
  expect(designStore(again).get(id)!.design.name).toBe('Renamed');
  expect(again.pragma('user_version', { simple: true })).toBe(2);
  again.close();
  expect(readdirSync(folder).filter((f) => f.includes('before'))).toEqual([]);
  rmSync(folder, { recursive: true });
});

test('the second of two writers is told, and overwrites nothing', () => {
  const shelf = fresh();
  const { id } = shelf.create(design);
  expect(shelf.save(id, { ...design, name: 'Mine' }, 1)).toMatchObject({ ok: true, stored: { revision: 2 } });
  const late = shelf.save(id, { ...design, name: 'Theirs' }, 1);
  expect(late).toMatchObject({ ok: false, reason: 'moved on', stored: { revision: 2, design: { name: 'Mine' } } });
  expect(shelf.get(id)!.design.name).toBe('Mine');
  expect(shelf.save('nobody', design, 1)).toEqual({ ok: false, reason: 'missing' });
});

test('deleting takes a design off the shelf, and it can be put back', () => {
  const shelf = fresh();
  const { id } = shelf.create(design);
  expect(shelf.remove(id)).toBe(true);
  expect(shelf.get(id)).toBeNull();
  expect(shelf.list()).toEqual([]);
  expect(shelf.restore(id)).toBe(true);
  expect(shelf.list().map((e) => e.id)).toEqual([id]);
});

test('the shelf knows rating and worst verdict without solving again', () => {
  const shelf = fresh();
  demoDesigns().forEach((d, n) => shelf.create(d, `2026-01-01T00:00:0${9 - n}.000Z`));
  const list = shelf.list();
  expect(list.map((e) => e.name)).toEqual(demoDesigns().map((d) => d.name));
  expect(list[0]!.headline!.fails).toBe(0);
  expect(list[1]!.headline!.fails).toBe(0);
  expect(list[2]!.headline!.fails).toBeGreaterThan(2);
  expect(list[2]!.headline!.worst!.state).toBe('fails');
  const drawn = shelf.summaries([list[0]!.id, 'nobody']);
  expect(Object.keys(drawn)).toEqual([list[0]!.id]);
  expect(drawn[list[0]!.id]!.neededV).toBeCloseTo(24 + 2.2 * (0.65 + 0.35 * 0.6), 6);
});

describe('the border', () => {
  test('answers as this machine, and under names it was told', () => {
    for (const host of ['127.0.0.1:3000', 'localhost', '[::1]:80']) expect(allowedHost(host)).toBe(true);
    for (const host of [null, '', 'rebound.example', '127.0.0.1.example', 'localhost.example:3000']) {
      expect(allowedHost(host)).toBe(false);
    }
    process.env['EMBER_RAIL_HOSTS'] = 'workshop.lan';
    expect(allowedHost('workshop.lan:3000')).toBe(true);
    delete process.env['EMBER_RAIL_HOSTS'];
  });

  const request = (method: string, headers: Record<string, string>, body?: string) =>
    new NextRequest('http://127.0.0.1:3000/api/designs', { method, headers, ...(body === undefined ? {} : { body }) });

  test('takes writes from its own pages only', () => {
    expect(refuseForeign(request('POST', { host: '127.0.0.1:3000', origin: 'http://127.0.0.1:3000' }))).toBeNull();
    expect(refuseForeign(request('POST', { host: '127.0.0.1:3000', origin: 'http://elsewhere.example' }))!.status).toBe(
      403,
    );
    expect(refuseForeign(request('POST', { host: '127.0.0.1:3000', origin: 'null' }))!.status).toBe(403);
    expect(refuseForeign(request('GET', { host: 'rebound.example' }))!.status).toBe(403);
  });

  test('answers what is no JSON, and what is too large, with a problem', async () => {
    const bad = await readJson(request('POST', {}, '{"a":'));
    expect(bad.ok).toBe(false);
    if (!bad.ok)
      expect(await bad.answer.json()).toMatchObject({ status: 400, detail: expect.stringMatching(/not a JSON file/) });
    const large = await readJson(request('POST', {}, `"${'x'.repeat(2_100_000)}"`));
    if (!large.ok) expect(large.answer.status).toBe(413);
    expect(large.ok).toBe(false);
  });
});
