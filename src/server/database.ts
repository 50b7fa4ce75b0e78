import Database from 'better-sqlite3';
import { copyFileSync, existsSync, mkdirSync, readdirSync, readFileSync } from 'node:fs';
import path from 'node:path';

const MIGRATIONS = path.join(process.cwd(), 'src/server/migrations');

/**
 * Opens the database file and brings it up to date with the numbered migrations, each in a transaction, a copy kept
 * before the first one that changes an existing file.
 * @throws Error when a migration fails; the file is then as it was
 */
export function openDatabase(file: string): Database.Database {
  const existed = file !== ':memory:' && existsSync(file);
  if (file !== ':memory:') mkdirSync(path.dirname(file), { recursive: true });
  const db = new Database(file);
  db.pragma('journal_mode = WAL');
  // An autosave that was answered has to survive a pulled plug, not only a killed process.
  db.pragma('synchronous = FULL');
  const applied = db.pragma('user_version', { simple: true }) as number;
  const pending = readdirSync(MIGRATIONS)
    .filter((f) => /^\d{3}_.*\.sql$/.test(f) && Number(f.slice(0, 3)) > applied)
    .sort();
  if (pending.length > 0 && existed && applied > 0) {
    db.pragma('wal_checkpoint(TRUNCATE)');
    copyFileSync(file, `${file}.before-${pending[0]!.slice(0, 3)}`);
  }
  for (const name of pending) {
    const sql = readFileSync(path.join(MIGRATIONS, name), 'utf8');
    db.transaction(() => {
      db.exec(sql);
      db.pragma(`user_version = ${Number(name.slice(0, 3))}`);
    })();
  }
  return db;
}

let shared: Database.Database | undefined;

/** The one connection of this process. The file is EMBER_RAIL_DB, or data/ember-rail.db. */
export function database(): Database.Database {
  return (shared ??= openDatabase(process.env['EMBER_RAIL_DB'] ?? path.join(process.cwd(), 'data/ember-rail.db')));
}
