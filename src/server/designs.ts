import type Database from 'better-sqlite3';
import { randomUUID } from 'node:crypto';
import type { Design } from '@/core/design/design';
import { ratingWords } from '@/core/design/words';
import { pictureOf, SUMMARY_VERSION, summaryOf, type Summary } from '@/core/judge/picture';
import { SolveError } from '@/core/solve/integrator';

export interface StoredDesign {
  id: string;
  design: Design;
  revision: number;
  updatedAt: string;
}

export interface ShelfEntry {
  id: string;
  name: string;
  revision: number;
  updatedAt: string;
  /** Null when the design could not be solved. */
  summary: Summary | null;
}

interface Row {
  id: string;
  name: string;
  document: string;
  summary: string | null;
  summary_version: number;
  revision: number;
  updated_at: string;
}

export type SaveResult = { ok: true; stored: StoredDesign } | { ok: false; reason: 'missing' } | { ok: false; reason: 'moved on'; stored: StoredDesign };

/** The designs in a database. Every method is one transaction. */
export function designStore(db: Database.Database) {
  const insert = db.prepare('INSERT INTO designs (id, name, document, summary, summary_version, revision, created_at, updated_at) VALUES (?, ?, ?, ?, ?, 1, ?, ?)');
  const select = db.prepare<[string], Row>('SELECT * FROM designs WHERE id = ? AND deleted_at IS NULL');
  const all = db.prepare<[], Row>('SELECT * FROM designs WHERE deleted_at IS NULL ORDER BY updated_at DESC, id');
  const update = db.prepare('UPDATE designs SET name = ?, document = ?, summary = ?, summary_version = ?, revision = revision + 1, updated_at = ? WHERE id = ? AND revision = ?');
  const refresh = db.prepare('UPDATE designs SET summary = ?, summary_version = ? WHERE id = ?');
  const mark = db.prepare('UPDATE designs SET deleted_at = ? WHERE id = ?');
  const count = db.prepare<[], { n: number }>('SELECT count(*) AS n FROM designs');

  const stored = (row: Row): StoredDesign => ({ id: row.id, design: JSON.parse(row.document) as Design, revision: row.revision, updatedAt: row.updated_at });

  return {
    create(design: Design, at = new Date().toISOString()): StoredDesign {
      const id = randomUUID();
      insert.run(id, design.name, JSON.stringify(design), summarise(design), SUMMARY_VERSION, at, at);
      return { id, design, revision: 1, updatedAt: at };
    },
    get(id: string): StoredDesign | null {
      const row = select.get(id);
      return row ? stored(row) : null;
    },
    list(): ShelfEntry[] {
      return all.all().map((row) => {
        let summary = row.summary;
        if (row.summary_version !== SUMMARY_VERSION) {
          summary = summarise(JSON.parse(row.document) as Design);
          refresh.run(summary, SUMMARY_VERSION, row.id);
        }
        return { id: row.id, name: row.name, revision: row.revision, updatedAt: row.updated_at, summary: summary ? (JSON.parse(summary) as Summary) : null };
      });
    },
    /** Saves only when nobody saved in between. */
    save: db.transaction((id: string, design: Design, revision: number): SaveResult => {
      const at = new Date().toISOString();
      const { changes } = update.run(design.name, JSON.stringify(design), summarise(design), SUMMARY_VERSION, at, id, revision);
      if (changes === 1) return { ok: true, stored: { id, design, revision: revision + 1, updatedAt: at } };
      const row = select.get(id);
      return row ? { ok: false, reason: 'moved on', stored: stored(row) } : { ok: false, reason: 'missing' };
    }),
    remove(id: string): boolean {
      return mark.run(new Date().toISOString(), id).changes === 1;
    },
    restore(id: string): boolean {
      return mark.run(null, id).changes === 1;
    },
    isEmpty(): boolean {
      return count.get()!.n === 0;
    },
  };
}

/** A design that cannot be solved is still stored; the shelf then says so instead of drawing it. */
function summarise(design: Design): string | null {
  try {
    return JSON.stringify(summaryOf(pictureOf(design).picture, ratingWords(design)));
  } catch (error) {
    if (error instanceof SolveError) return null;
    throw error;
  }
}
