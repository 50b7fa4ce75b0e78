import Database from 'better-sqlite3';
import { randomUUID } from 'node:crypto';
import { closeSync, existsSync, openSync, readdirSync, readSync, rmSync, statSync } from 'node:fs';
import path from 'node:path';
import { copiesOf } from './copies';
import { newestVersion, openDatabase } from './database';

/** Largest backup that is looked into, bytes. */
export const BACKUP_BYTES_MAX = 500_000_000;
/** What was handed in and never put in place is let go after so long, ms. */
const WAITING_MS = 3_600_000;
/** What the time of the last backup is remembered by. */
export const LAST_BACKUP = 'last backup';

/** A design in a backup beside the one of the same id that is here. */
export interface BackedUp {
  name: string;
  updatedAt: string;
  /** Against what is here: not here at all, the very same, or another state of it. */
  here: 'none' | 'same' | 'older' | 'newer';
}

/** What a backup holds, before anything is replaced. */
export interface Look {
  /** What it is called by until it is put in place. */
  token: string;
  designs: BackedUp[];
  photos: number;
  parts: number;
  revisions: number;
  /** The newest change in it; null where it is empty. */
  lastChange: string | null;
  /** Names of designs that are here and not in it. */
  gone: string[];
}

/** A copy that lies beside the file. */
export interface Copy {
  name: string;
  madeAt: string;
  bytes: number;
}

/** Where a backup that was handed in waits, by its token. */
export const waitingFile = (file: string, token: string): string => `${file}.look-${token}`;

/** A place for a backup that is being handed in; what others left behind is cleared away first. */
export function newWaitingFile(file: string, now = Date.now()): { token: string; at: string } {
  const [folder, name] = [path.dirname(file), path.basename(file)];
  for (const f of readdirSync(folder)) {
    if (!f.startsWith(`${name}.look-`) && !f.startsWith(`${name}.handed-`)) continue;
    const old = path.join(folder, f);
    if (now - statSync(old).mtimeMs > WAITING_MS) rmSync(old, { force: true });
  }
  const token = randomUUID();
  return { token, at: waitingFile(file, token) };
}

/**
 * All of it in one file, made by SQLite's own backup while the program runs.
 * @returns where it lies; whoever asked takes it away
 */
export async function makeBackup(db: Database.Database, file: string, now = new Date()): Promise<string> {
  // In the backup it stands too: restored, it knows when it was made.
  remember(db, LAST_BACKUP, now.toISOString());
  const at = `${file}.handed-${randomUUID()}`;
  await db.backup(at);
  return at;
}

/** When the last backup was made; null where none was. */
export function lastBackup(db: Database.Database): string | null {
  const row = db.prepare<[string], { value: string }>('SELECT value FROM remembered WHERE what = ?').get(LAST_BACKUP);
  return row?.value ?? null;
}

export function remember(db: Database.Database, what: string, value: string): void {
  db.prepare(
    'INSERT INTO remembered (what, value) VALUES (?, ?) ON CONFLICT (what) DO UPDATE SET value = excluded.value',
  ).run(what, value);
}

/** Copies the program made by itself, the newest first. */
export function copiesBeside(file: string): Copy[] {
  return copiesOf(file).map((f) => {
    const { mtime, size } = statSync(f);
    return { name: path.basename(f).slice(path.basename(file).length + 1), madeAt: mtime.toISOString(), bytes: size };
  });
}

/** The copy of that name beside a file; null where there is none: a name never leads anywhere else. */
export function copyNamed(file: string, name: string): string | null {
  return copiesOf(file).find((f) => path.basename(f) === `${path.basename(file)}.${name}`) ?? null;
}

/**
 * Looks into a backup, brought up to this version first.
 * @returns a sentence where it is none of this program's, or damaged
 */
export function lookInto(db: Database.Database, at: string, token: string): Look | string {
  const fault = faultOf(at) ?? (holdsTogether(at) ? null : 'This backup is damaged: it does not hold together.');
  if (fault) return fault;
  let back: Database.Database;
  try {
    back = openDatabase(at, { copies: false });
  } catch {
    return 'This backup is damaged: it could not be brought up to this version.';
  }
  try {
    type Row = { id: string; name: string; updated_at: string; document: string };
    const rows = (of: Database.Database) =>
      of
        .prepare<[], Row>('SELECT id, name, updated_at, document FROM designs WHERE deleted_at IS NULL ORDER BY name')
        .all();
    const count = (table: string) => back.prepare<[], { n: number }>(`SELECT count(*) AS n FROM ${table}`).get()!.n;
    const here = new Map(rows(db).map((r) => [r.id, r]));
    const inIt = rows(back);
    return {
      token,
      designs: inIt.map(({ id, name, updated_at, document }) => {
        const mine = here.get(id);
        return {
          name,
          updatedAt: updated_at,
          here: !mine ? 'none' : mine.document === document ? 'same' : mine.updated_at > updated_at ? 'newer' : 'older',
        };
      }),
      photos: count('photos'),
      parts: count('parts'),
      revisions: count('revisions'),
      lastChange: inIt.reduce<string | null>(
        (last, r) => (last === null || r.updated_at > last ? r.updated_at : last),
        null,
      ),
      gone: [...here.values()].filter((r) => !inIt.some((b) => b.id === r.id)).map((r) => r.name),
    };
  } finally {
    back.close();
  }
}

/** Rows of a backup refer to rows that are not in it. */
class Unfit extends Error {}

const SQLITE = 'SQLite format 3\u0000';

/** Why a file is no backup of this program; null where it is one. */
function faultOf(at: string): string | null {
  const head = Buffer.alloc(16);
  const handle = openSync(at, 'r');
  readSync(handle, head, 0, 16, 0);
  closeSync(handle);
  if (head.toString('latin1') !== SQLITE) return 'This is no backup of this program: it is another kind of file.';
  let back: Database.Database | null = null;
  try {
    back = new Database(at, { readonly: true });
    const tables = back.prepare<[], { name: string }>("SELECT name FROM sqlite_master WHERE type = 'table'").all();
    if (!tables.some((t) => t.name === 'designs'))
      return 'This is a file of another program: there are no designs in it.';
    const version = back.pragma('user_version', { simple: true }) as number;
    if (version < 1) return 'This is a file of another program: its designs are not ours.';
    if (version > newestVersion())
      return 'This backup was made by a newer version of this program: take that one to open it.';
    return null;
  } catch {
    return 'This backup is damaged: it cannot be read.';
  } finally {
    back?.close();
  }
}

/** Whether every page of a file is what SQLite wrote: it reads all of it, seconds for hundreds of megabytes. */
function holdsTogether(at: string): boolean {
  const back = new Database(at, { readonly: true });
  try {
    return back.pragma('integrity_check(1)', { simple: true }) === 'ok';
  } catch {
    return false;
  } finally {
    back.close();
  }
}

/**
 * Puts a backup that was looked into in the place of everything here, in one transaction: it is all there or nothing
 * is. How it stood before is kept beside the file.
 * @returns the name of the copy of what stood before, or a sentence
 */
export async function putInPlace(
  db: Database.Database,
  file: string,
  at: string,
  now = new Date(),
): Promise<{ before: string } | string> {
  if (!existsSync(at)) return 'What was looked into is no longer there: choose it again.';
  const fault = faultOf(at);
  if (fault) return fault;
  openDatabase(at, { copies: false }).close();
  const before = `before-restore-${now.toISOString().slice(0, 19).replace(/[:T]/g, '')}`;
  await db.backup(`${file}.${before}`);
  db.prepare('ATTACH ? AS back').run(at);
  // Rows refer to each other across tables: they are looked at together, at the end.
  db.pragma('foreign_keys = OFF');
  try {
    const tables = db
      .prepare<[], { name: string }>(
        "SELECT name FROM main.sqlite_master WHERE type = 'table' AND name NOT LIKE 'sqlite_%'",
      )
      .all();
    const replace = db.transaction(() => {
      for (const { name } of tables) {
        db.prepare(`DELETE FROM main."${name}"`).run();
        db.prepare(`INSERT INTO main."${name}" SELECT * FROM back."${name}"`).run();
      }
      if ((db.pragma('foreign_key_check') as unknown[]).length > 0) throw new Unfit();
    });
    replace.immediate();
  } catch (error) {
    if (error instanceof Unfit) return 'This backup is damaged: what belongs together in it does not.';
    throw error;
  } finally {
    db.pragma('foreign_keys = ON');
    db.prepare('DETACH back').run();
  }
  for (const part of ['', '-wal', '-shm']) rmSync(`${at}${part}`, { force: true });
  return { before };
}
