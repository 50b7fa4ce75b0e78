import Database from 'better-sqlite3';
import { copyFileSync, existsSync, mkdirSync, readdirSync, readFileSync, renameSync, rmSync } from 'node:fs';
import path from 'node:path';
import { copiesOf, keepDailyCopy } from './copies';
import { DatabaseTrouble, troubleOf, troubleWords, type TroubleKind } from './trouble';

const MIGRATIONS = path.join(process.cwd(), 'src/server/migrations');
/** How long a writer waits for another program's transaction to end, ms. */
const BUSY_MS = 4000;

/** An open file, and why nothing may be written to it; null where it may. */
export interface Opened {
  db: Database.Database;
  readOnly: DatabaseTrouble | null;
}

/**
 * A file that is kept: migrated, copied once a day. `:memory:` for a test.
 * @param copies false for one that is only passing through
 */
export function openDatabase(file: string, { copies = true } = {}): Database.Database {
  const { db, readOnly } = openFile(file, copies);
  if (readOnly) throw readOnly;
  return db;
}

/**
 * Opens the database file and brings it up to date with the numbered migrations, each in a transaction, a copy kept
 * before the first one that changes an existing file. A file of a newer program is opened for reading alone.
 * @throws DatabaseTrouble when it is damaged or cannot be reached
 * @throws Error when a migration fails; the file is then as it was
 */
export function openFile(file: string, copies = true): Opened {
  const inMemory = file === ':memory:';
  try {
    const existed = !inMemory && existsSync(file);
    if (!inMemory) mkdirSync(path.dirname(file), { recursive: true });
    const known = migrationFiles();
    const newest = newestVersion();
    const db = new Database(file, { timeout: BUSY_MS });
    if (existed) check(db);
    if (versionOf(db) > newest) {
      db.close();
      return { db: new Database(file, { readonly: true }), readOnly: troubleWith('newer', file) };
    }
    db.pragma('journal_mode = WAL');
    // An autosave that was answered has to survive a pulled plug, not only a killed process.
    db.pragma('synchronous = FULL');
    migrate(db, existed && copies ? file : null, known);
    if (existed && copies) keepDailyCopy(db, file);
    return { db, readOnly: null };
  } catch (error) {
    const kind = troubleOf(error);
    throw kind ? troubleWith(kind, file) : error;
  }
}

/** The version this program brings a file up to. */
export const newestVersion = (): number => Number(migrationFiles().at(-1)!.slice(0, 3));

function troubleWith(kind: TroubleKind, file: string): DatabaseTrouble {
  return new DatabaseTrouble(kind, troubleWords(kind, file), file, copiesOf(file)[0] ?? null);
}

const versionOf = (db: Database.Database) => db.pragma('user_version', { simple: true }) as number;

/** @throws an error with the code of a damaged file */
function check(db: Database.Database): void {
  const found = db.pragma('quick_check(1)', { simple: true });
  if (found !== 'ok') throw Object.assign(new Error(String(found)), { code: 'SQLITE_CORRUPT' });
}

function migrationFiles(): string[] {
  return readdirSync(MIGRATIONS)
    .filter((f) => /^\d{3}_.*\.sql$/.test(f))
    .sort();
}

/** @param file where a copy is kept beside before anything changes; null for a new file */
function migrate(db: Database.Database, file: string | null, known: readonly string[]): void {
  const pending = known.filter((f) => Number(f.slice(0, 3)) > versionOf(db));
  if (pending.length > 0 && file && versionOf(db) > 0) {
    db.pragma('wal_checkpoint(TRUNCATE)');
    copyFileSync(file, `${file}.before-${pending[0]!.slice(0, 3)}`);
  }
  for (const name of pending) {
    const sql = readFileSync(path.join(MIGRATIONS, name), 'utf8');
    const step = db.transaction(() => {
      // Another program that started at the same moment may have been here in the meantime.
      if (versionOf(db) >= Number(name.slice(0, 3))) return;
      db.exec(sql);
      db.pragma(`user_version = ${Number(name.slice(0, 3))}`);
    });
    step.immediate();
  }
}

let shared: Opened | undefined;

/** The file of this process: EMBER_RAIL_DB, or data/ember-rail.db. */
export function databaseFile(): string {
  return process.env['EMBER_RAIL_DB'] ?? path.join(process.cwd(), 'data/ember-rail.db');
}

/** The one connection of this process. @throws DatabaseTrouble */
export function database(): Database.Database {
  return (shared ??= openFile(databaseFile())).db;
}

/** Opens the file anew when it is asked for next: another one stands in its place. */
export function forgetDatabase(): void {
  shared = undefined;
}

/** Refuses a change where nothing may be written. @throws DatabaseTrouble */
export function refuseReadOnly(): void {
  database();
  if (shared!.readOnly) throw shared!.readOnly;
}

/** What keeps this process from its file, or from writing to it; null when nothing does. */
export function databaseTrouble(): DatabaseTrouble | null {
  try {
    database();
    return shared!.readOnly;
  } catch (error) {
    if (error instanceof DatabaseTrouble) return error;
    throw error;
  }
}

/**
 * Puts the newest sound copy in the place of a damaged file, which is kept beside it under another name.
 * @returns the names of the copy taken and of the damaged file, or null when there is none to take or the file is sound
 */
export function restoreCopy(file: string, at = new Date()): { copy: string; damaged: string } | null {
  const copy = copiesOf(file).find(isSound);
  if (!copy || isSound(file)) return null;
  const damaged = `${file}.damaged-${at.toISOString().slice(0, 19).replace(/:/g, '')}`;
  if (existsSync(file)) renameSync(file, damaged);
  // What was written ahead belongs to the damaged file.
  for (const part of ['-wal', '-shm']) rmSync(`${file}${part}`, { force: true });
  copyFileSync(copy, file);
  return { copy, damaged };
}

function isSound(file: string): boolean {
  if (!existsSync(file)) return false;
  try {
    const db = new Database(file, { readonly: true });
    try {
      check(db);
      return true;
    } finally {
      db.close();
    }
  } catch {
    return false;
  }
}
