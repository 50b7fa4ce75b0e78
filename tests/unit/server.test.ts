import Database from 'better-sqlite3';
import { mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { NextRequest } from 'next/server';
import { readDesign } from '@/core/design/schema';
import type { PartDraft } from '@/core/drawer/part';
import { pictureOf } from '@/core/judge/picture';
import { copiesOf, keepDailyCopy } from '@/server/copies';
import { openDatabase, openFile, restoreCopy } from '@/server/database';
import { demoDesigns } from '@/core/design/demo-designs';
import { designStore, type Summed } from '@/server/designs';
import { depthOfJson } from '@/server/json-depth';
import { partStore } from '@/server/parts';
import { answerTo } from '@/server/solver-answers';
import { threadOf } from '@/server/thread';
import { DatabaseTrouble } from '@/server/trouble';
import { allowedHost } from '@/server/allowed-host';
import { readJson, refuseForeign } from '@/server/http';

// As a design nobody has begun to build.
const design = { ...demoDesigns()[0]!, build: demoDesigns()[1]!.build };
const SPARE: PartDraft = {
  kind: 'capacitor',
  name: 'Spare can',
  ratings: { capacitanceF: 1e-3, ratedV: 25 },
  known: 'typical',
  condition: 'new',
  count: 1,
  priceEur: null,
  place: '',
  note: '',
};
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
  expect(again.pragma('user_version', { simple: true })).toBe(6);
  again.close();
  expect(readdirSync(folder).filter((f) => f.includes('before'))).toEqual([]);
  rmSync(folder, { recursive: true });
});

test('the second of two writers is told, and overwrites nothing', () => {
  const shelf = fresh();
  const { id } = shelf.create(design);
  expect(shelf.save(id, { ...design, name: 'Mine' }, 1)).toMatchObject({ ok: true, revision: 2 });
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

/** Sums up everything that waits, here and now. */
function summed(shelf: ReturnType<typeof fresh>): void {
  for (let next = shelf.unsummed(); next; next = shelf.unsummed()) {
    const found = answerTo({ what: 'summary', document: next.document }, { readDesign, pictureOf });
    shelf.keepSummary(next.id, next.revision, found as Summed);
  }
}

test('the shelf knows rating and worst verdict without solving again', () => {
  const shelf = fresh();
  demoDesigns().forEach((d, n) => shelf.create(d, `2026-01-01T00:00:0${9 - n}.000Z`));
  expect(shelf.list().every((e) => e.waiting && e.headline === null)).toBe(true);
  summed(shelf);
  const list = shelf.list();
  expect(list.map((e) => e.name)).toEqual(demoDesigns().map((d) => d.name));
  expect(list.some((e) => e.waiting)).toBe(false);
  expect(list[0]!.headline!.fails).toBe(0);
  expect(list[1]!.headline!.fails).toBe(0);
  expect(list[2]!.headline!.fails).toBeGreaterThan(2);
  expect(list[2]!.headline!.worst!.state).toBe('fails');
  const drawn = shelf.summaries([list[0]!.id, 'nobody']);
  expect(Object.keys(drawn)).toEqual([list[0]!.id]);
  expect(drawn[list[0]!.id]!.neededV).toBeCloseTo(24 + 2.2 * (0.65 + 0.35 * 0.6), 6);
});

test('a summary that comes late says nothing of a design that has moved on', () => {
  const shelf = fresh();
  const { id } = shelf.create(design);
  summed(shelf);
  const before = shelf.list()[0]!.headline!;
  shelf.save(id, { ...design, demand: { ...design.demand, outputA: 30 } }, 1);
  shelf.keepSummary(id, 1, { headline: { ...before, fails: 77 }, summary: null, fault: null });
  // What is known of the old revision stays in sight, marked as waiting.
  expect(shelf.list()[0]).toMatchObject({ waiting: true, headline: { fails: before.fails } });
  summed(shelf);
  expect(shelf.list()[0]!.waiting).toBe(false);
  expect(shelf.list()[0]!.headline!.fails).toBeGreaterThan(before.fails);
});

describe('what another version or another hand has written', () => {
  const written = (documents: string[]) => {
    const db = openDatabase(':memory:');
    const insert = db.prepare(
      "INSERT INTO designs (id, name, document, created_at, updated_at) VALUES (?, ?, ?, '', ?)",
    );
    documents.forEach((text, n) => insert.run(`row-${n}`, `Row ${n}`, text, String(9 - n)));
    return { shelf: designStore(db), db };
  };
  const { sheet: _none, ...older } = design.rectifier;
  void _none;
  const version6 = JSON.stringify({ ...design, version: 6, rectifier: older });

  test('a row of an older version opens, brought up to this one', () => {
    const { shelf } = written([version6]);
    expect(shelf.get('row-0')!.design).toEqual(design);
    expect(shelf.save('row-0', design, 1)).toMatchObject({ ok: true, revision: 2 });
  });

  test('one bad row takes down neither the list nor the drawer, and its text can be had', () => {
    const deep = `${'{"a":'.repeat(997)}1${'}'.repeat(997)}`;
    const { shelf, db } = written([version6, '{"half":', deep, JSON.stringify({ ...design, version: 99 })]);
    summed(shelf);
    const list = shelf.list();
    expect(list.map((e) => e.fault === null)).toEqual([true, false, false, false]);
    expect(list[3]!.fault).toMatch(/version 99/);
    for (const n of [1, 2, 3])
      expect(shelf.open(`row-${n}`)).toMatchObject({ ok: false, unreadable: { name: `Row ${n}` } });
    const found = shelf.open('row-1')!;
    expect(found.ok ? '' : found.unreadable.text).toBe('{"half":');
    expect(partStore(db).uses()).toEqual({});
    expect(shelf.save('row-1', design, 7)).toEqual({ ok: false, reason: 'missing' });
  });
});

describe('the file itself', () => {
  const folders: string[] = [];
  const place = () => {
    const folder = mkdtempSync(path.join(tmpdir(), 'shelf-'));
    folders.push(folder);
    return path.join(folder, 'shelf.db');
  };
  afterAll(() => folders.forEach((f) => rmSync(f, { recursive: true })));
  const made = (name = 'Kept') => {
    const file = place();
    const db = openDatabase(file);
    designStore(db).create({ ...design, name });
    db.close();
    return file;
  };
  const names = (file: string) => {
    const db = openDatabase(file);
    const list = designStore(db)
      .list()
      .map((e) => e.name);
    db.close();
    return list;
  };

  test('a copy is kept once a day, of a week', () => {
    const file = made();
    const db = openDatabase(file);
    db.close();
    expect(copiesOf(file)).toHaveLength(1);
    const again = openDatabase(file);
    for (let day = 1; day <= 9; day++) keepDailyCopy(again, file, new Date(Date.UTC(2030, 0, day)));
    again.close();
    expect(copiesOf(file)).toHaveLength(7);
    expect(copiesOf(file).some((c) => c.endsWith('2030-01-09'))).toBe(true);
    expect(copiesOf(file).some((c) => c.endsWith('2030-01-01'))).toBe(false);
    // What was kept before a migration is offered too; another file's copies and a journal are not.
    writeFileSync(`${file}.before-3`, '');
    writeFileSync(`${file}.before-3-wal`, '');
    writeFileSync(`${path.dirname(file)}/other.copy-2030-01-05`, '');
    expect(copiesOf(file)).toHaveLength(8);
    expect(copiesOf(file)[0]).toBe(`${file}.before-3`);
  });

  test('a file of a newer program is read and never written', () => {
    const file = made();
    const db = new Database(file);
    db.pragma('user_version = 99');
    db.close();
    const { db: open, readOnly } = openFile(file);
    expect(readOnly).toMatchObject({ kind: 'newer', message: expect.stringMatching(/newer version/) });
    expect(designStore(open).list()[0]!.name).toBe('Kept');
    expect(() => designStore(open).create(design)).toThrow(/readonly/);
    open.close();
  });

  test('a damaged file is told, and the newest sound copy takes its place without anything being deleted', () => {
    const file = made();
    openDatabase(file).close();
    writeFileSync(file, Buffer.alloc(8192, 'no database'));
    const trouble = (): unknown => {
      try {
        return openFile(file);
      } catch (error) {
        return error;
      }
    };
    expect(trouble()).toBeInstanceOf(DatabaseTrouble);
    expect(trouble()).toMatchObject({ kind: 'corrupt', file, copy: copiesOf(file)[0] });
    const taken = restoreCopy(file)!;
    expect(names(file)).toEqual(['Kept']);
    expect(readFileSync(taken.damaged).toString().startsWith('no database')).toBe(true);
    // A sound file is never put aside.
    expect(restoreCopy(file)).toBeNull();
  });

  test('a damaged copy is passed over', () => {
    const file = made();
    openDatabase(file).close();
    writeFileSync(`${file}.copy-2099-01-01`, 'rubbish');
    writeFileSync(file, Buffer.alloc(8192, 'no database'));
    expect(restoreCopy(file)!.copy).not.toMatch(/2099/);
  });

  test('a copy is kept before a migration changes anything', () => {
    const file = place();
    const db = new Database(file);
    for (const name of ['001_designs.sql', '002_parts.sql'])
      db.exec(readFileSync(path.join(process.cwd(), 'src/server/migrations', name), 'utf8'));
    db.prepare("INSERT INTO designs (id, name, document, created_at, updated_at) VALUES ('a', 'Old', ?, '', '')").run(
      JSON.stringify(design),
    );
    db.pragma('user_version = 2');
    db.close();
    expect(names(file)).toEqual(['Old']);
    const copy = new Database(`${file}.before-003`, { readonly: true });
    expect(copy.pragma('user_version', { simple: true })).toBe(2);
    copy.close();
  });

  test('two programs that start on a fresh file fill it once', () => {
    const file = place();
    const [a, b] = [openDatabase(file), openDatabase(file)];
    const demo = demoDesigns().map((d, n) => ({ design: d, at: String(n) }));
    for (const db of [a, b]) designStore(db).fillIfEmpty(demo);
    expect(designStore(a).list()).toHaveLength(demo.length);
    for (const db of [a, b]) partStore(db).fillIfEmpty(() => [SPARE]);
    expect(partStore(b).all()).toHaveLength(1);
    a.close();
    b.close();
  });
});

describe('the thread the server solves in', () => {
  /** A thread that answers when the test says so. */
  function stand(answer?: (question: { n: number; work?: string }) => unknown) {
    const listeners = new Map<string, (m: never) => void>();
    const asked: { n: number; work?: string }[] = [];
    const thread = {
      ended: false,
      asked,
      tell: (m: unknown) => listeners.get('message')?.(m as never),
      fail: () => listeners.get('error')?.(new Error('gone') as never),
      on: (event: string, listener: (m: never) => void) => listeners.set(event, listener),
      postMessage: (m: unknown) => {
        const question = m as { n: number; work?: string };
        asked.push(question);
        if (answer) thread.tell({ n: question.n, answer: answer(question) });
      },
      terminate: () => (thread.ended = true),
    };
    return thread;
  }

  beforeEach(() => jest.useFakeTimers());
  afterEach(() => jest.useRealTimers());

  test('answers in the order it was asked, one at a time', async () => {
    const only = stand();
    const thread = threadOf(() => only);
    const both = Promise.all([thread.ask({ work: 'a' }, 100), thread.ask({ work: 'b' }, 100)]);
    expect(only.asked.map((q) => q.work)).toEqual(['a']);
    only.tell({ n: 1, answer: 'A' });
    expect(only.asked.map((q) => q.work)).toEqual(['a', 'b']);
    // An answer to what nobody waits for is passed over.
    only.tell({ n: 1, answer: 'late' });
    only.tell({ n: 2, answer: 'B' });
    expect(await both).toEqual(['A', 'B']);
  });

  test('what takes too long is given up, the thread replaced, and the next piece answered', async () => {
    const threads = [stand(), stand(() => 'done')];
    let n = 0;
    const thread = threadOf(() => threads[n++]!);
    const slow = thread.ask({ work: 'slow' }, 500);
    const next = thread.ask({ work: 'quick' }, 500);
    jest.advanceTimersByTime(499);
    expect(threads[0]!.ended).toBe(false);
    jest.advanceTimersByTime(2);
    expect(await slow).toBeNull();
    expect(threads[0]!.ended).toBe(true);
    expect(await next).toBe('done');
  });

  test('one that dies is replaced, and nobody waits for it', async () => {
    const threads = [stand(), stand(() => 'done')];
    let n = 0;
    const thread = threadOf(() => threads[n++]!);
    const lost = thread.ask({ work: 'a' }, 500);
    threads[0]!.fail();
    expect(await lost).toBeNull();
    expect(await thread.ask({ work: 'b' }, 500)).toBe('done');
  });

  test('one that cannot even start is an answer too', async () => {
    const thread = threadOf(() => {
      throw new Error('no more threads');
    });
    expect(await thread.ask({ work: 'a' }, 500)).toBeNull();
  });
});

test('depth is counted outside of strings', () => {
  expect(depthOfJson('{"a":[1,{"b":"}]{["}]}')).toBe(3);
  expect(depthOfJson('"\\\\"[')).toBe(1);
  expect(depthOfJson('"\\"["')).toBe(0);
  expect(depthOfJson('1')).toBe(0);
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
    // A program beside it names no origin; a page elsewhere may read what it is shown nothing of.
    expect(refuseForeign(request('POST', { host: '127.0.0.1:3000' }))).toBeNull();
    expect(refuseForeign(request('GET', { host: '127.0.0.1:3000', origin: 'http://elsewhere.example' }))).toBeNull();
  });

  test('answers what is no JSON, and what is too large, with a problem', async () => {
    const answer = async (text: string) => {
      const read = await readJson(request('POST', {}, text));
      return read.ok ? null : read.answer;
    };
    const bad = await answer('{"a":');
    expect(await bad!.json()).toMatchObject({ status: 400, detail: expect.stringMatching(/not a JSON file/) });
    expect((await answer(`"${'x'.repeat(2_100_000)}"`))!.status).toBe(413);
  });
});
