import { DESIGN_VERSION } from '@/core/design/migrate';
import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { NextRequest } from 'next/server';
import { proxy } from '@/proxy';
import { answered } from '@/server/http';

process.env['EMBER_RAIL_DB'] = path.join(mkdtempSync(path.join(tmpdir(), 'routes-')), 'shelf.db');

import * as all from '@/app/api/designs/route';
import * as one from '@/app/api/designs/[id]/route';
import * as summaries from '@/app/api/summaries/route';
import * as photos from '@/app/api/photos/route';
import * as photo from '@/app/api/photos/[id]/route';
import * as look from '@/app/api/backup/look/route';
import * as restore from '@/app/api/backup/restore/route';
import { demoDesigns } from '@/core/design/demo-designs';

const design = demoDesigns()[0]!;
const HOME = 'http://127.0.0.1:3000';

function request(method: string, at: string, body?: unknown, headers: Record<string, string> = {}) {
  return new NextRequest(`${HOME}${at}`, {
    method,
    headers: { host: '127.0.0.1:3000', origin: HOME, 'content-type': 'application/json', ...headers },
    ...(body === undefined ? {} : { body: typeof body === 'string' ? body : JSON.stringify(body) }),
  });
}
const at = (id: string) => ({ params: Promise.resolve({ id }) });

async function create(name = design.name): Promise<{ id: string; revision: number }> {
  const response = await all.POST(request('POST', '/api/designs', { ...design, name }));
  expect(response.status).toBe(201);
  return (await response.json()) as { id: string; revision: number };
}

test('a design is put on the shelf, listed, read, saved and taken off', async () => {
  const { id, revision } = await create('One of several');
  const listed = (await (await all.GET(request('GET', '/api/designs'))).json()) as { id: string; name: string }[];
  expect(listed.find((e) => e.id === id)!.name).toBe('One of several');

  const read = await one.GET(request('GET', `/api/designs/${id}`), at(id));
  expect(((await read.json()) as { design: unknown }).design).toEqual({ ...design, name: 'One of several' });

  const saved = await one.PUT(request('PUT', `/api/designs/${id}`, { design, revision }), at(id));
  expect(await saved.json()).toMatchObject({ revision: revision + 1 });

  expect((await one.DELETE(request('DELETE', `/api/designs/${id}`), at(id))).status).toBe(204);
  expect((await one.GET(request('GET', `/api/designs/${id}`), at(id))).status).toBe(404);
  expect((await one.POST(request('POST', `/api/designs/${id}`), at(id))).status).toBe(204);
  expect((await one.GET(request('GET', `/api/designs/${id}`), at(id))).status).toBe(200);
});

test('a late writer gets 409 with what is there now', async () => {
  const { id, revision } = await create();
  await one.PUT(request('PUT', `/api/designs/${id}`, { design: { ...design, name: 'First' }, revision }), at(id));
  const late = await one.PUT(
    request('PUT', `/api/designs/${id}`, { design: { ...design, name: 'Second' }, revision }),
    at(id),
  );
  expect(late.status).toBe(409);
  expect(late.headers.get('content-type')).toBe('application/problem+json');
  expect(await late.json()).toMatchObject({
    title: 'Changed elsewhere',
    current: { revision: revision + 1, design: { name: 'First' } },
  });
});

test.each([
  ['no revision', { design }, 'revision'],
  ['a revision of nothing', { design, revision: 0 }, 'revision'],
  [
    'a spoiled design',
    { design: { ...design, mains: { ...design.mains, lowPct: 'ten' } }, revision: 1 },
    'mains.lowPct',
  ],
])('a save with %s is refused with its path', async (_name, body, where) => {
  const { id } = await create();
  const response = await one.PUT(request('PUT', `/api/designs/${id}`, body), at(id));
  expect(response.status).toBe(422);
  expect(await response.json()).toMatchObject({ path: where });
});

test('a refused import leaves the shelf as it was', async () => {
  const count = async () => ((await (await all.GET(request('GET', '/api/designs'))).json()) as unknown[]).length;
  const before = await count();
  for (const body of ['{"half":', '[]', '"text"', { ...design, version: DESIGN_VERSION + 1 }, { ...design, name: 7 }]) {
    const response = await all.POST(request('POST', '/api/designs', body));
    expect(response.status).toBeGreaterThanOrEqual(400);
    const problem = (await response.json()) as { detail: string; status: number };
    expect(problem.status).toBe(response.status);
    expect(problem.detail.length).toBeGreaterThan(10);
  }
  expect(await count()).toBe(before);
});

test('nothing is changed for another site', async () => {
  const { id, revision } = await create();
  const foreign = { origin: 'http://elsewhere.example' };
  expect((await all.POST(request('POST', '/api/designs', design, foreign))).status).toBe(403);
  expect((await one.PUT(request('PUT', `/api/designs/${id}`, { design, revision }, foreign), at(id))).status).toBe(403);
  expect((await one.DELETE(request('DELETE', `/api/designs/${id}`, undefined, foreign), at(id))).status).toBe(403);
  expect((await one.GET(request('GET', `/api/designs/${id}`), at(id))).status).toBe(200);
});

test('ids are data, never SQL', async () => {
  const { id } = await create();
  const nasty = `${id}' OR '1'='1`;
  expect((await one.GET(request('GET', '/api/designs/x'), at(nasty))).status).toBe(404);
  expect((await one.DELETE(request('DELETE', '/api/designs/x'), at(nasty))).status).toBe(404);
  expect((await one.GET(request('GET', `/api/designs/${id}`), at(id))).status).toBe(200);
});

test('drawings are handed out by id once they are made, a limited number at once', async () => {
  const { id } = await create();
  const drawn = async () => {
    const response = await summaries.GET(request('GET', `/api/summaries?ids=${id},nobody`));
    return Object.keys((await response.json()) as object);
  };
  // Nobody waits for them: they are made in the background, and asked for again.
  for (let n = 0; n < 100 && (await drawn()).length === 0; n++) await new Promise((r) => setTimeout(r, 20));
  expect(await drawn()).toEqual([id]);
  const many = Array.from({ length: 301 }, (_, n) => n).join(',');
  expect((await summaries.GET(request('GET', `/api/summaries?ids=${many}`))).status).toBe(422);
});

test('a save that is sent again because its answer was lost is no conflict', async () => {
  const { id, revision } = await create();
  const save = { design: { ...design, name: 'Once' }, revision, save: 'one' };
  const put = (body: unknown) => one.PUT(request('PUT', `/api/designs/${id}`, body), at(id));
  expect(await (await put(save)).json()).toMatchObject({ revision: revision + 1 });
  expect(await (await put(save)).json()).toMatchObject({ revision: revision + 1 });
  expect((await put({ ...save, save: 'another' })).status).toBe(409);
});

test('what is nested deeper than any design is refused, and the drawer still opens', async () => {
  const deep = `${'{"a":['.repeat(400)}1${']}'.repeat(400)}`;
  const response = await all.POST(request('POST', '/api/designs', deep));
  expect(response.status).toBe(422);
  expect(await response.json()).toMatchObject({ title: 'Too deep' });
});

test('a failure of the program itself is a problem too, and says that nothing was changed', async () => {
  const said = jest.spyOn(process.stderr, 'write').mockImplementation(() => true);
  const failing = answered(() => {
    throw new Error('a fault of ours');
  });
  const response = await failing(request('GET', '/api/designs'));
  expect(response.status).toBe(500);
  expect(response.headers.get('content-type')).toContain('application/problem+json');
  expect(await response.json()).toMatchObject({ detail: expect.stringMatching(/Nothing was changed/) });
  expect(said).toHaveBeenCalled();
  said.mockRestore();
});

test.each([
  ['SQLITE_FULL', 507, /disk is full/],
  ['SQLITE_BUSY', 503, /held by another program/],
  ['SQLITE_READONLY', 503, /may not be written/],
  ['SQLITE_CORRUPT', 503, /damaged/],
])('the file’s trouble %s is told apart', async (code, status, words) => {
  const failing = answered(() => {
    throw Object.assign(new Error('driver'), { code });
  });
  const response = await failing(request('GET', '/api/designs'));
  expect(response.status).toBe(status);
  expect(await response.json()).toMatchObject({ detail: expect.stringMatching(words) });
});

describe('the proxy before every route', () => {
  const ask = (path: string, host: string) =>
    proxy(new NextRequest(`http://127.0.0.1:3000${path}`, { headers: { host } }));

  test('answers to this machine’s names only, with a problem and every header', async () => {
    const refused = ask('/api/designs', 'rebound.example');
    expect(refused.status).toBe(403);
    expect(await refused.json()).toMatchObject({
      title: 'Not from here',
      detail: expect.stringContaining('rebound.example'),
    });
    const taken = ask('/', '127.0.0.1:3000');
    for (const answer of [refused, taken]) {
      expect(answer.headers.get('cross-origin-resource-policy')).toBe('same-origin');
      expect(answer.headers.get('cross-origin-opener-policy')).toBe('same-origin');
      expect(answer.headers.get('x-content-type-options')).toBe('nosniff');
    }
    expect(taken.headers.get('content-security-policy')).toMatch(/script-src 'self' 'nonce-[^']+'/);
  });

  test('an address that stands for nothing is a problem, not a crash', async () => {
    const answer = ask('/design/%ff', '127.0.0.1:3000');
    expect(answer.status).toBe(400);
    expect(await answer.json()).toMatchObject({ title: 'No such address' });
  });
});

describe('pictures and backups at the border', () => {
  const bytes = (at: string, body: BodyInit, headers: Record<string, string> = {}) =>
    new NextRequest(`${HOME}${at}`, {
      method: 'POST',
      headers: { host: '127.0.0.1:3000', origin: HOME, ...headers },
      body,
      duplex: 'half',
    } as ConstructorParameters<typeof NextRequest>[1]);
  /** A body of so many bytes that nobody holds in memory. */
  const endless = (size: number) => {
    let sent = 0;
    return new ReadableStream<Uint8Array>({
      pull(to) {
        if (sent >= size) return to.close();
        sent += 1_000_000;
        to.enqueue(new Uint8Array(1_000_000));
      },
    });
  };

  test('a picture of 100 MB is refused by what it says of itself, and by what it is where it says nothing', async () => {
    const said = await photos.POST(bytes('/api/photos', 'x', { 'content-length': '100000000' }));
    expect(said.status).toBe(413);
    expect(await said.json()).toMatchObject({ detail: expect.stringContaining('25 MB is the most') });
    expect((await photos.POST(bytes('/api/photos', endless(100_000_000)))).status).toBe(413);
  });

  test('what is no picture is a sentence, and one that is not kept is not found', async () => {
    const answer = await photos.POST(bytes('/api/photos', 'MZ\u0090 this program cannot be run'));
    expect(answer.status).toBe(422);
    expect(await answer.json()).toMatchObject({ detail: expect.stringContaining('no picture') });
    const gone = await photo.GET(request('GET', '/api/photos/x'), at('../../etc/passwd'));
    expect(gone.status).toBe(404);
  });

  test('a backup comes from this machine’s own pages alone, is looked into first, and never replaces anything when it is none', async () => {
    const foreign = bytes('/api/backup/look', 'x', { host: 'evil.example' });
    expect((await look.POST(foreign)).status).toBe(403);
    expect((await look.POST(bytes('/api/backup/look', 'x', { origin: 'https://evil.example' }))).status).toBe(403);
    const none = await look.POST(bytes('/api/backup/look', 'not one of ours at all'));
    expect(none.status).toBe(422);
    expect((await look.POST(bytes('/api/backup/look?copy=../shelf.db', ''))).status).toBe(404);
    expect((await restore.POST(request('POST', '/api/backup/restore', { token: '../shelf.db' }))).status).toBe(422);
    const unknown = { token: '00000000-0000-4000-8000-000000000000' };
    expect((await restore.POST(request('POST', '/api/backup/restore', unknown))).status).toBe(409);
  });
});
