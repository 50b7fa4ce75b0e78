import { existsSync, readdirSync, rmSync, statSync } from 'node:fs';
import path from 'node:path';
import type Database from 'better-sqlite3';

const KEPT = 7;
const DAILY = /\.copy-\d{4}-\d\d-\d\d$/;

/** Sound copies that lie beside a database file, the newest first: one for each day it was opened, one before a migration. */
export function copiesOf(file: string): string[] {
  const folder = path.dirname(file);
  if (!existsSync(folder)) return [];
  const name = path.basename(file);
  return readdirSync(folder)
    .filter((f) => f.startsWith(`${name}.copy-`) || f.startsWith(`${name}.before-`))
    .filter((f) => !/-(wal|shm|journal)$/.test(f))
    .map((f) => path.join(folder, f))
    .sort((a, b) => statSync(b).mtimeMs - statSync(a).mtimeMs);
}

/** Keeps a copy of today beside an open database, if there is none yet, and lets the oldest of more than a week go. */
export function keepDailyCopy(db: Database.Database, file: string, today = new Date()): void {
  const copy = `${file}.copy-${today.toISOString().slice(0, 10)}`;
  if (existsSync(copy)) return;
  db.prepare('VACUUM INTO ?').run(copy);
  const daily = copiesOf(file).filter((f) => DAILY.test(f));
  // By the day in its name: what was copied by hand keeps no order of its own.
  for (const old of daily.sort().reverse().slice(KEPT)) rmSync(old);
}
