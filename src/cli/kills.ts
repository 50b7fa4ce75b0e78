import Database from 'better-sqlite3';
import { spawn } from 'node:child_process';
import { mkdtempSync, readFileSync, readdirSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { createInterface } from 'node:readline';
import { demoDesigns } from '@/core/design/demo-designs';
import { lookInto, makeBackup, putInPlace, newWaitingFile } from '@/server/backup';
import { openDatabase } from '@/server/database';
import { designStore } from '@/server/designs';
import { photoStore } from '@/server/photos';

/**
 * Kills a program that writes, at random moments, and looks at what is left: the file has to be whole, and everything
 * that was acknowledged has to be in it. Usage: npm run kills -- [COUNT]
 */
const WORK = ['edits', 'photos', 'backup', 'restore', 'migration'] as const;
type Work = (typeof WORK)[number];
const [clock] = demoDesigns();
/** Longest a program lives after its first word, ms. */
const LIFE_MS = 150;
const ROWS = 300;

const say = (word: string | number): void => void process.stdout.write(`${word}\n`);

/** What the program that will be killed does, for ever; each word it says is an acknowledgement. */
async function live(work: Work, file: string): Promise<void> {
  const db = openDatabase(file);
  const designs = designStore(db);
  if (work === 'migration') {
    say('migrated');
    return;
  }
  const stored = designs.list()[0] ?? designs.create(clock!);
  say('begun');
  for (let n = 1; ; n++) {
    if (work === 'edits' || work === 'backup') {
      const saved = designs.save(stored.id, { ...clock!, name: `Edit ${n}` }, n);
      if (saved.ok) say(n);
    }
    if (work === 'photos') {
      const bytes = Buffer.alloc(200_000, n % 251);
      photoStore(db).keep({ id: n.toString(16).padStart(32, '0'), type: 'image/png', width: 1, height: 1, bytes });
      say(n);
    }
    if (work === 'backup') say(`made ${path.basename(await makeBackup(db, file))}`);
    if (work === 'restore') {
      const { at } = newWaitingFile(file);
      const other = new Database(`${file}.state-${n % 2}`);
      await other.backup(at);
      other.close();
      await putInPlace(db, file, at, new Date(2026, 0, 1, 0, 0, n));
      say(n);
    }
    await new Promise((next) => setImmediate(next));
  }
}

/** Gets a file ready for a kind of work. */
function prepare(work: Work, file: string): void {
  if (work === 'migration') {
    const old = new Database(file);
    for (const f of readdirSync('src/server/migrations').filter((f) => f < '004'))
      old.exec(readFileSync(path.join('src/server/migrations', f), 'utf8'));
    old.pragma('user_version = 3');
    const put = old.prepare(
      'INSERT INTO designs (id, name, document, revision, created_at, updated_at) VALUES (?, ?, ?, 1, ?, ?)',
    );
    for (let n = 0; n < ROWS; n++) put.run(`d${n}`, `Design ${n}`, JSON.stringify(clock), '2026-01-01', '2026-01-01');
    old.close();
  }
  if (work === 'restore')
    for (const state of [0, 1]) {
      const db = openDatabase(`${file}.state-${state}`);
      for (let n = 0; n < ROWS; n++) designStore(db).create({ ...clock!, name: `State ${state}` });
      db.close();
    }
}

/** What is wrong with what is left; null where nothing is. */
function wrongWith(work: Work, file: string, said: readonly string[]): string | null {
  const db = openDatabase(file);
  try {
    if (db.pragma('integrity_check', { simple: true }) !== 'ok') return 'the file is damaged';
    const designs = designStore(db);
    const numbers = said.map(Number).filter(Number.isFinite);
    const last = Math.max(0, ...numbers);
    if (work === 'edits' || work === 'backup') {
      const name = designs.list()[0]?.name ?? '';
      if (last > 0 && !(Number(name.slice(5)) >= last)) return `edit ${last} was acknowledged, the file has ‘${name}’`;
    }
    if (work === 'photos')
      for (let n = 1; n <= last; n++)
        if (!photoStore(db).open(n.toString(16).padStart(32, '0'))) return `picture ${n} was acknowledged and is gone`;
    for (const made of said.filter((s) => s.startsWith('made '))) {
      const at = path.join(path.dirname(file), made.slice(5));
      if (typeof lookInto(db, at, '') === 'string') return `${made} is no sound backup`;
    }
    if (work === 'restore' && last > 0) {
      const names = new Set(designs.list().map((e) => e.name));
      if (names.size !== 1 || designs.list().length !== ROWS)
        return `a restore was left half done: ${[...names].join(', ')}`;
    }
    if (work === 'migration') {
      if (designs.list().length !== ROWS) return `${designs.list().length} of ${ROWS} designs are left`;
      if (designs.list().some((e) => !designs.get(e.id))) return 'a design cannot be read';
    }
    return null;
  } finally {
    db.close();
  }
}

/** One life and its end. */
async function once(work: Work, lifeMs: number): Promise<string | null> {
  const folder = mkdtempSync(path.join(tmpdir(), 'ember-kill-'));
  const file = path.join(folder, 'shelf.db');
  try {
    prepare(work, file);
    const child = spawn(process.execPath, [process.argv[1]!, '--live', work, file], {
      stdio: ['ignore', 'pipe', 'inherit'],
    });
    const said: string[] = [];
    const lines = createInterface({ input: child.stdout });
    const ended = new Promise<void>((resolve) => child.on('close', () => resolve()));
    // A migration says nothing before its end: it is killed by the clock alone.
    const kill = () => setTimeout(() => child.kill('SIGKILL'), lifeMs);
    if (work === 'migration') kill();
    lines.on('line', (line) => {
      if (said.push(line) === 1 && work !== 'migration') kill();
    });
    await ended;
    return wrongWith(work, file, said);
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
}

async function main(): Promise<void> {
  if (process.argv[2] === '--live') return live(process.argv[3] as Work, process.argv[4]!);
  const count = Number(process.argv[2] ?? 200);
  let wrong = 0;
  for (let n = 0; n < count; n++) {
    const work = WORK[n % WORK.length]!;
    // A program takes a while to come up, and a migration is over soon after.
    const lifeMs = work === 'migration' ? 120 + 2 * LIFE_MS * Math.random() : LIFE_MS * Math.random();
    const fault = await once(work, lifeMs);
    if (fault) {
      wrong++;
      process.stdout.write(`${work}, killed after ${lifeMs.toFixed(0)} ms: ${fault}\n`);
    }
  }
  process.stdout.write(
    `${count} kills during ${WORK.join(', ')}: ${wrong === 0 ? 'nothing lost, every file whole' : `${wrong} with losses`}\n`,
  );
  process.exitCode = wrong === 0 ? 0 : 1;
}

void main();
