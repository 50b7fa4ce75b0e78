import Database from 'better-sqlite3';
import { copyFileSync, mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import sharp from 'sharp';
import { DEMO_PICTURES, demoDesigns } from '@/core/design/demo-designs';
import { backupReminder } from '@/places/shelf/backup-reminder';
import { copiesBeside, copyNamed, lastBackup, lookInto, makeBackup, newWaitingFile, putInPlace } from '@/server/backup';
import { openDatabase } from '@/server/database';
import { fillDemoRecords } from '@/server/demo-records';
import { designStore } from '@/server/designs';
import { partStore } from '@/server/parts';
import { photoStore, preparedPhoto, type Photo } from '@/server/photos';
import { revisionStore } from '@/server/revisions';
import { startingDrawer } from '@/core/drawer/starting';

const [clock, dome] = demoDesigns() as [ReturnType<typeof demoDesigns>[number], ReturnType<typeof demoDesigns>[number]];
const plain = (width: number, height: number, background = '#884422') =>
  sharp({ create: { width, height, channels: 3, background } });
const kept = async (bytes: Buffer): Promise<Photo> => {
  const photo = await preparedPhoto(bytes);
  if (typeof photo === 'string') throw new Error(photo);
  return photo;
};

describe('a picture', () => {
  test('is kept without where and with what it was taken, upright', async () => {
    const taken = await plain(300, 200)
      .withExif({
        IFD0: { Make: 'A camera', Software: 'secret' },
        IFD3: { GPSLatitudeRef: 'N', GPSLatitude: '54/1 12/1 0/1', GPSLongitudeRef: 'E', GPSLongitude: '8/1 3/1 0/1' },
      })
      .withMetadata({ orientation: 6 })
      .jpeg()
      .toBuffer();
    expect((await sharp(taken).metadata()).exif).toBeDefined();
    const photo = await kept(taken);
    const { exif, orientation, xmp, iptc, format, width, height } = await sharp(photo.bytes).metadata();
    expect({ exif, orientation, xmp, iptc }).toEqual({
      exif: undefined,
      orientation: undefined,
      xmp: undefined,
      iptc: undefined,
    });
    // Taken on its side: 300 by 200 stands 200 wide and 300 high.
    expect({ format, width, height, type: photo.type }).toEqual({
      format: 'jpeg',
      width: 200,
      height: 300,
      type: 'image/jpeg',
    });
    expect(photo.bytes.includes('camera')).toBe(false);
  });

  test.each([
    ['jpeg', 'jpeg'],
    ['png', 'png'],
    // What a print could not hold is kept as what it can.
    ['webp', 'jpeg'],
  ] as const)('as %s is scaled down to 2400 px, its shape kept, as %s; a small one stays', async (format, as) => {
    const large = await kept(await plain(3600, 1200).toFormat(format).toBuffer());
    expect([large.width, large.height, large.type]).toEqual([2400, 800, `image/${as}`]);
    expect((await sharp(large.bytes).metadata()).format).toBe(as);
    const small = await kept(await plain(64, 48).toFormat(format).toBuffer());
    expect([small.width, small.height]).toEqual([64, 48]);
  });

  test('a WebP that lets the paper through stays so', async () => {
    const clear = sharp({
      create: { width: 20, height: 10, channels: 4, background: { r: 200, g: 0, b: 0, alpha: 0.5 } },
    });
    const photo = await kept(await clear.webp({ lossless: true }).toBuffer());
    expect(photo.type).toBe('image/png');
    expect([...(await sharp(photo.bytes).raw().toBuffer()).subarray(0, 4)]).toEqual([200, 0, 0, 128]);
  });

  test.each<[string, () => Buffer | Promise<Buffer>]>([
    ['a program', () => readFileSync(process.execPath).subarray(0, 200_000)],
    [
      'a drawing that could run',
      () => Buffer.from('<svg xmlns="http://www.w3.org/2000/svg"><script>alert(1)</script></svg>'),
    ],
    ['half a picture', async () => (await plain(800, 600).jpeg().toBuffer()).subarray(0, 900)],
    ['another kind of picture', () => plain(10, 10).gif().toBuffer()],
    ['nothing', () => Buffer.alloc(0)],
    [
      'a page that says it is a picture',
      () => Buffer.from('\u0089PNG\r\n\u001a\n<html><script>alert(1)</script>', 'latin1'),
    ],
  ])('that is %s is refused with a sentence', async (_, bytes) => {
    expect(await preparedPhoto(await bytes())).toMatch(/no picture that can be kept/);
  });

  test('is kept once under the name of its bytes, and comes back as it was', async () => {
    const db = openDatabase(':memory:');
    const store = photoStore(db);
    const photo = await kept(await plain(20, 20).png().toBuffer());
    store.keep(photo);
    store.keep(photo);
    expect(db.prepare('SELECT count(*) AS n FROM photos').get()).toEqual({ n: 1 });
    expect(store.open(photo.id)).toEqual(photo);
    expect(photo.id).toMatch(/^[0-9a-f]{32}$/);
    expect(store.open('0'.repeat(32))).toBeNull();
  });
});

describe('a backup', () => {
  let folder: string;
  let file: string;
  let db: Database.Database;
  beforeEach(() => {
    folder = mkdtempSync(path.join(tmpdir(), 'ember-backup-'));
    file = path.join(folder, 'shelf.db');
    db = openDatabase(file);
  });
  afterEach(() => {
    db.close();
    rmSync(folder, { recursive: true });
  });
  /** Hands a file in as the interface does. */
  const handIn = (from: string) => {
    const { token, at } = newWaitingFile(file);
    copyFileSync(from, at);
    return { at, look: lookInto(db, at, token) };
  };

  test('holds everything, says what it would replace, and brings all of it back; how it stood is kept beside', async () => {
    const designs = designStore(db);
    const a = designs.create(clock);
    const photo = await kept(await plain(20, 20).png().toBuffer());
    photoStore(db).keep(photo);
    partStore(db).fillIfEmpty(startingDrawer);
    revisionStore(db).keep(a.id, { id: 'r1', name: 'As built', why: '' }, clock);
    const backup = await makeBackup(db, file, new Date('2026-06-01T12:00:00Z'));
    expect(lastBackup(db)).toBe('2026-06-01T12:00:00.000Z');

    designs.save(a.id, { ...clock, name: 'Changed since' }, 1);
    const b = designs.create(dome);
    const { at, look } = handIn(backup);
    if (typeof look === 'string') throw new Error(look);
    expect(look.designs).toEqual([{ name: clock.name, updatedAt: a.updatedAt, here: 'newer' }]);
    expect(look).toMatchObject({ photos: 1, revisions: 1, gone: [dome.name], parts: startingDrawer().length });
    expect(designs.list()).toHaveLength(2);

    const done = await putInPlace(db, file, at, new Date('2026-06-02T12:00:00Z'));
    expect(done).toEqual({ before: 'before-restore-2026-06-02120000' });
    expect(designs.list().map((e) => e.name)).toEqual([clock.name]);
    expect(designs.get(b.id)).toBeNull();
    expect(photoStore(db).open(photo.id)).toEqual(photo);
    expect(revisionStore(db).list(a.id)).toHaveLength(1);
    expect(db.pragma('integrity_check', { simple: true })).toBe('ok');
    expect(readdirSync(folder).filter((f) => f.includes('.look-'))).toEqual([]);

    // What stood before is a copy like any other, and comes back the same way.
    expect(copiesBeside(file).map((c) => c.name)).toContain('before-restore-2026-06-02120000');
    const again = handIn(copyNamed(file, 'before-restore-2026-06-02120000')!);
    await putInPlace(db, file, again.at);
    expect(
      designs
        .list()
        .map((e) => e.name)
        .sort(),
    ).toEqual(['Changed since', dome.name].sort());
  });

  test('of the very same state says so, and one from an empty shelf too', async () => {
    const a = designStore(db).create(clock);
    const backup = await makeBackup(db, file);
    expect(handIn(backup).look).toMatchObject({ designs: [{ here: 'same' }], gone: [], lastChange: a.updatedAt });
    const empty = path.join(folder, 'empty.db');
    openDatabase(empty).close();
    expect(handIn(empty).look).toMatchObject({ designs: [], gone: [clock.name], lastChange: null });
  });

  test('of an earlier version is brought up first; nothing of it is lost', async () => {
    const old = path.join(folder, 'old.db');
    const before = new Database(old);
    for (const sql of ['001_designs.sql', '002_parts.sql', '003_summaries.sql'])
      before.exec(readFileSync(path.join('src/server/migrations', sql), 'utf8'));
    before.pragma('user_version = 3');
    const document = readFileSync('tests/fixtures/designs/version-3.json', 'utf8');
    const [stored] = JSON.parse(document) as { name: string }[];
    before
      .prepare('INSERT INTO designs (id, name, document, revision, created_at, updated_at) VALUES (?, ?, ?, 4, ?, ?)')
      .run('old-1', stored!.name, JSON.stringify(stored), '2025-01-01', '2025-01-02');
    before.close();
    const { at, look } = handIn(old);
    expect(look).toMatchObject({ designs: [{ name: stored!.name, here: 'none' }] });
    await putInPlace(db, file, at);
    expect(designStore(db).get('old-1')).toMatchObject({ revision: 4, design: { name: stored!.name } });
  });

  test('that is none is told apart, and nothing is replaced', () => {
    const other = path.join(folder, 'other.db');
    const write = (sql: string) => {
      rmSync(other, { force: true });
      const made = new Database(other);
      made.exec(sql);
      made.close();
      return handIn(other).look;
    };
    designStore(db).create(clock);
    writeFileSync(other, 'PK\u0003\u0004 some archive, long enough to be read');
    expect(handIn(other).look).toMatch(/another kind of file/);
    writeFileSync(other, '');
    expect(handIn(other).look).toMatch(/another kind of file/);
    expect(write('CREATE TABLE songs (id); PRAGMA user_version = 3')).toMatch(/another program/);
    expect(write('CREATE TABLE designs (id)')).toMatch(/another program/);
    expect(write('CREATE TABLE designs (id); PRAGMA user_version = 99')).toMatch(/newer version/);
    expect(write('CREATE TABLE designs (id); PRAGMA user_version = 5')).toMatch(/damaged/);
    expect(designStore(db).list()).toHaveLength(1);
  });

  test('that is damaged is told, and nothing is replaced', async () => {
    for (let n = 0; n < 30; n++) designStore(db).create({ ...clock, name: `Design ${n}` });
    const backup = await makeBackup(db, file);
    const bytes = readFileSync(backup);
    const whole = Buffer.from(bytes);
    bytes.fill(0x5a, 4096, bytes.length - 4096);
    writeFileSync(backup, bytes);
    expect(handIn(backup).look).toMatch(/damaged/);
    writeFileSync(backup, whole.subarray(0, whole.length / 2));
    expect(handIn(backup).look).toMatch(/damaged/);
    expect(designStore(db).list()).toHaveLength(30);
  });

  test('looked into and gone in the meantime replaces nothing; a name of a copy leads nowhere else', async () => {
    designStore(db).create(clock);
    expect(await putInPlace(db, file, path.join(folder, 'gone'))).toMatch(/choose it again/);
    expect(designStore(db).list()).toHaveLength(1);
    expect(copyNamed(file, '../shelf.db')).toBeNull();
    expect(copyNamed(file, '')).toBeNull();
  });
});

test('one is asked for where a shelf has stood some days without, or has changed for a month', () => {
  const now = Date.parse('2026-06-30T12:00:00Z');
  const at = (days: number) => new Date(now - days * 86_400_000).toISOString();
  expect(backupReminder(null, [], now)).toBeNull();
  expect(backupReminder(null, [at(2)], now)).toBeNull();
  expect(backupReminder(null, [at(0), at(3)], now)).toMatch(/No backup/);
  expect(backupReminder(at(29), [at(1)], now)).toBeNull();
  expect(backupReminder(at(30), [at(1)], now)).toMatch(/30 days old/);
  expect(backupReminder(at(90), [at(91)], now)).toBeNull();
});

test('the demo: two designs with two revisions each, the drawn pictures of a log, and a backup that was made', () => {
  const folder = mkdtempSync(path.join(tmpdir(), 'ember-demo-'));
  const file = path.join(folder, 'shelf.db');
  const db = openDatabase(file);
  const designs = designStore(db);
  for (const design of demoDesigns()) designs.create(design);
  fillDemoRecords(db, file, designs);
  const revisions = revisionStore(db);
  const counts = designs
    .list()
    .map((e) => revisions.list(e.id).length)
    .filter((n) => n > 0);
  expect(counts).toEqual([2, 2]);
  for (const { id } of designs.list())
    for (const r of revisions.list(id)) expect(revisions.open(id, r.id)).toMatchObject({ ok: true });
  for (const id of Object.values(DEMO_PICTURES)) expect(photoStore(db).open(id)).not.toBeNull();
  expect(clock.log.flatMap((e) => e.photos).sort()).toEqual(Object.values(DEMO_PICTURES).sort());
  expect(lastBackup(db)).not.toBeNull();
  expect(copiesBeside(file)).toHaveLength(1);
  db.close();
  rmSync(folder, { recursive: true });
});
