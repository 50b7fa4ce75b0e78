import { NextRequest } from 'next/server';
import type { PartDraft } from '@/core/drawer/part';
import { openDatabase } from '@/server/database';
import { demoDesigns } from '@/core/design/demo-designs';
import { demoDrawer } from '@/server/demo-drawer';
import { partFaults } from '@/core/drawer/part-schema';
import { failure, readJson } from '@/server/http';
import { partStore } from '@/server/parts';
import { DatabaseTrouble, troubleOf, troubleWords, type TroubleKind } from '@/server/trouble';
import { readDesign } from '@/core/design/schema';
import { SolveError } from '@/core/solve/solve-error';
import type { DesignsStore, Summed } from '@/server/designs';
import { answerTo } from '@/server/solver-answers';
import { sumUp } from '@/server/solving';

describe('what failed is told apart', () => {
  const KINDS: TroubleKind[] = ['newer', 'corrupt', 'busy', 'full', 'read-only', 'unreachable'];
  test.each(KINDS)('%s', async (kind) => {
    const answer = failure(new DatabaseTrouble(kind, troubleWords(kind, '/x.sqlite'), '/x.sqlite', null));
    // A full disk is the client's to know as such; everything else is a service that is not to be had.
    expect(answer.status).toBe(kind === 'full' ? 507 : 503);
    expect(answer.headers.get('content-type')).toContain('application/problem+json');
    expect(await answer.json()).toMatchObject({ kind, detail: expect.stringMatching(/^The file \/x\.sqlite .+\.$/) });
  });

  test('by the code of the driver or of the system', async () => {
    const CODES: [string, TroubleKind | null][] = [
      ['SQLITE_CORRUPT', 'corrupt'],
      ['SQLITE_NOTADB', 'corrupt'],
      ['SQLITE_BUSY', 'busy'],
      ['SQLITE_LOCKED', 'busy'],
      ['SQLITE_FULL', 'full'],
      ['ENOSPC', 'full'],
      ['SQLITE_READONLY_DBMOVED', 'read-only'],
      ['EROFS', 'read-only'],
      ['EACCES', 'read-only'],
      ['SQLITE_CANTOPEN', 'unreachable'],
      ['SQLITE_IOERR_READ', 'unreachable'],
      ['ENOENT', 'unreachable'],
      ['SQLITE_CONSTRAINT', null],
      ['ENOSPC2', null],
    ];
    for (const [code, kind] of CODES) expect([code, troubleOf({ code })]).toEqual([code, kind]);
    expect([troubleOf(null), troubleOf({ code: 7 }), troubleOf(new Error('x'))]).toEqual([null, null, null]);
    const full = failure(Object.assign(new Error('x'), { code: 'SQLITE_FULL' }));
    expect([full.status, ((await full.json()) as { kind: string }).kind]).toEqual([507, 'full']);
  });

  test('a fault of the program itself is a 500 that says nothing of its inside', async () => {
    const said: string[] = [];
    const write = jest.spyOn(process.stderr, 'write').mockImplementation((text) => said.push(String(text)) > 0);
    const answer = failure(new Error('secret of ours'));
    write.mockRestore();
    expect(answer.status).toBe(500);
    expect(JSON.stringify(await answer.json())).not.toMatch(/secret/);
    expect(said.join()).toMatch(/secret of ours/);
  });
});

test('what says it is too large is not read at all', async () => {
  const read = (declared: string, most: number) =>
    readJson(
      new NextRequest('http://127.0.0.1:3000/x', {
        method: 'POST',
        headers: { 'content-length': declared },
        body: '{}',
      }),
      most,
    );
  expect((await read('101', 100)).ok).toBe(false);
  expect(await read('100', 100)).toEqual({ ok: true, value: {} });
  const silent = new NextRequest('http://127.0.0.1:3000/x', { method: 'POST', body: '{}' });
  expect((await readJson(silent, 2)).ok).toBe(true);
  expect((await readJson(new NextRequest('http://127.0.0.1:3000/x', { method: 'POST', body: '{ }' }), 2)).ok).toBe(
    false,
  );
});

describe('the drawer asked', () => {
  const db = openDatabase(':memory:');
  const parts = partStore(db);
  const sink = (name: string, kPerW: number | null, count: number, priceEur: number | null, place = ''): PartDraft =>
    ({
      kind: 'sink',
      name,
      ratings: { kPerW, heightMm: null },
      known: 'typical',
      condition: 'new',
      count,
      priceEur,
      place,
      note: '',
    }) as PartDraft;
  beforeAll(() => {
    for (const p of [
      sink('Fin 10', 2, 1, 3, 'box 9'),
      sink('Fin 9', 5, 0, null, 'box 10'),
      sink('Black 100%', 8, 4, 1, 'shelf'),
      sink('Odd_one', null, 2, 2, 'shelf'),
    ])
      parts.add(p);
  });
  const names = (query: object) => parts.find({ kind: 'sink', ...query }).parts.map((p) => p.name);

  test('between least and most, one of them, or neither', () => {
    const limit = (l: object) => names({ limits: [{ key: 'kPerW', ...l }], sort: 'kPerW' });
    expect(limit({ least: 5 })).toEqual(['Fin 9', 'Black 100%']);
    expect(limit({ most: 5 })).toEqual(['Fin 10', 'Fin 9']);
    expect(limit({ least: 3, most: 6 })).toEqual(['Fin 9']);
    expect(limit({})).toHaveLength(4);
    // What is no rating of the kind limits nothing, whatever it says.
    expect(names({ limits: [{ key: "x') --", least: 1 }] })).toHaveLength(4);
  });

  test('in the order asked for, what is not known last', () => {
    expect(names({ sort: 'kPerW' })).toEqual(['Fin 10', 'Fin 9', 'Black 100%', 'Odd_one']);
    expect(names({ sort: '-kPerW' })).toEqual(['Black 100%', 'Fin 9', 'Fin 10', 'Odd_one']);
    expect(names({ sort: 'price' })).toEqual(['Black 100%', 'Odd_one', 'Fin 10', 'Fin 9']);
    expect(names({ sort: '-count' })[0]).toBe('Black 100%');
    // By name as people count: 9 before 10.
    expect(names({ sort: 'name' })).toEqual(['Black 100%', 'Fin 9', 'Fin 10', 'Odd_one']);
    expect(names({ sort: 'nothing; DROP TABLE parts' })).toHaveLength(4);
  });

  test('by all of the words, in name or place, each taken as it is written', () => {
    expect(names({ words: 'fin box' })).toHaveLength(2);
    expect(names({ words: 'fin 10' }).sort()).toEqual(['Fin 10', 'Fin 9']);
    expect(names({ words: '100%' })).toEqual(['Black 100%']);
    expect(names({ words: 'odd_o' })).toEqual(['Odd_one']);
    expect(names({ words: 'n_9' })).toEqual([]);
    expect(names({ inStock: true })).not.toContain('Fin 9');
  });

  test('a page at a time, with how many there are', () => {
    const page = parts.find({ kind: 'sink', sort: 'name', offset: 1, limit: 2 });
    expect([page.total, page.parts.map((p) => p.name)]).toEqual([4, ['Fin 9', 'Fin 10']]);
    expect(parts.find({ kind: 'sink', limit: 0 }).parts).toHaveLength(1);
    expect(parts.find({ kind: 'sink', offset: -3 }).parts).toHaveLength(4);
    expect(parts.find({ kind: 'fuse' }).total).toBe(0);
  });
});

test('the demo drawer holds parts that could be kept, and every demo design as its author meant it', () => {
  for (const part of demoDrawer()) expect([part.name, partFaults(part)]).toEqual([part.name, {}]);
  expect(demoDesigns().map((d) => [d.rectifier.kind, d.rectifier.diode, d.regulator.kind])).toEqual([
    ['bridge', 'si-3a', 'fixed'],
    ['bridge', 'si-25a', 'none'],
    ['bridge', 'si-1a', 'fixed'],
    ['split-bridge', 'si-1a', 'fixed'],
    ['centre-tap', 'si-1a', 'none'],
    ['bridge', 'si-8a', 'bench'],
    ['bridge', 'si-8a', 'bench'],
    ['bridge', 'sk-3a', 'low-dropout'],
  ]);
});

test('designs are summed up one after the other, by one run, however often it is asked for', async () => {
  let asked = 0;
  const kept: string[] = [];
  const open = ['a', 'b', 'c'];
  const shelf = {
    unsummed: () => {
      asked++;
      const id = open[0];
      return id === undefined ? undefined : { id, revision: 1, document: '{}' };
    },
    keepSummary: (id: string) => {
      kept.push(id);
      open.shift();
    },
  } as unknown as DesignsStore;
  sumUp(shelf);
  sumUp(shelf);
  sumUp(shelf);
  for (let n = 0; n < 200 && open.length > 0; n++) await new Promise((resolve) => setTimeout(resolve, 5));
  await new Promise((resolve) => setTimeout(resolve, 10));
  expect(kept).toEqual(['a', 'b', 'c']);
  expect(asked).toBe(4);
  // And again when something new stands there.
  open.push('d');
  sumUp(shelf);
  for (let n = 0; n < 200 && open.length > 0; n++) await new Promise((resolve) => setTimeout(resolve, 5));
  expect(kept).toEqual(['a', 'b', 'c', 'd']);
});

test('a summary says what is wrong: what cannot be solved, what cannot be read, and where', () => {
  const document = JSON.stringify(demoDesigns()[0]);
  const told = (pictureOf: () => never) =>
    (answerTo({ what: 'summary', document }, { readDesign, pictureOf }) as Summed).fault;
  const unsolved = () => {
    throw new SolveError('low line does not settle');
  };
  const broken = () => {
    throw new TypeError('no such thing');
  };
  expect(told(unsolved)).toBe('Could not be solved: low line does not settle.');
  expect(told(broken)).toBe('Cannot be read: what was stored is no design.');
  const stray = JSON.stringify({ ...demoDesigns()[0], note: 7 });
  const answer = answerTo({ what: 'summary', document: stray }, { readDesign, pictureOf: unsolved }) as Summed;
  expect(answer).toMatchObject({ headline: null, summary: null });
  expect(answer.fault).toMatch(/^Cannot be read, at note: /);
});
