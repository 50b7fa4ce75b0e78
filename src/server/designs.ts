import type Database from 'better-sqlite3';
import { randomUUID } from 'node:crypto';
import type { Design } from '@/core/design/design';
import { headlineOf, pictureOf, SUMMARY_VERSION, summaryOf, type Headline, type Summary } from '@/core/judge/picture';
import { SolveError } from '@/core/solve/solve-error';

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
  headline: Headline | null;
}

interface Row {
  id: string;
  name: string;
  document: string;
  headline: string | null;
  summary: string | null;
  summary_version: number;
  revision: number;
  updated_at: string;
}

export type SaveResult =
  | { ok: true; stored: StoredDesign }
  | { ok: false; reason: 'missing' }
  | { ok: false; reason: 'moved on'; stored: StoredDesign };

/** The designs in a database. Every method is one transaction. */
export function designStore(db: Database.Database) {
  const insert =
    db.prepare(`INSERT INTO designs (id, name, document, headline, summary, summary_version, revision, created_at, updated_at)
    VALUES (?, ?, ?, ?, ?, ${SUMMARY_VERSION}, 1, ?, ?)`);
  const select = db.prepare<[string], Row>('SELECT * FROM designs WHERE id = ? AND deleted_at IS NULL');
  // The documents and drawings stay where they are: a thousand of them are not needed to say what is on the shelf.
  const all = db.prepare<[], Pick<Row, 'id' | 'name' | 'headline' | 'revision' | 'updated_at'>>(
    'SELECT id, name, headline, revision, updated_at FROM designs WHERE deleted_at IS NULL ORDER BY updated_at DESC, id',
  );
  const outdated = db.prepare<[], Pick<Row, 'id' | 'document'>>(
    `SELECT id, document FROM designs WHERE summary_version <> ${SUMMARY_VERSION}`,
  );
  const drawing = db.prepare<[string], Pick<Row, 'summary'>>(
    'SELECT summary FROM designs WHERE id = ? AND deleted_at IS NULL',
  );
  const update =
    db.prepare(`UPDATE designs SET name = ?, document = ?, headline = ?, summary = ?, summary_version = ${SUMMARY_VERSION},
    revision = revision + 1, updated_at = ? WHERE id = ? AND revision = ?`);
  const refresh = db.prepare(
    `UPDATE designs SET headline = ?, summary = ?, summary_version = ${SUMMARY_VERSION} WHERE id = ?`,
  );
  const mark = db.prepare('UPDATE designs SET deleted_at = ? WHERE id = ?');
  const count = db.prepare<[], { n: number }>('SELECT count(*) AS n FROM designs');

  const stored = (row: Row): StoredDesign => ({
    id: row.id,
    design: JSON.parse(row.document) as Design,
    revision: row.revision,
    updatedAt: row.updated_at,
  });

  return {
    create(design: Design, at = new Date().toISOString()): StoredDesign {
      const id = randomUUID();
      insert.run(id, design.name, JSON.stringify(design), ...summarise(design), at, at);
      return { id, design, revision: 1, updatedAt: at };
    },
    get(id: string): StoredDesign | null {
      const row = select.get(id);
      return row ? stored(row) : null;
    },
    /** All that is on the shelf, last changed first. What an older program summed up is summed up anew. */
    list(): ShelfEntry[] {
      for (const row of outdated.all()) refresh.run(...summarise(JSON.parse(row.document) as Design), row.id);
      return all.all().map((row) => ({
        id: row.id,
        name: row.name,
        revision: row.revision,
        updatedAt: row.updated_at,
        headline: row.headline ? (JSON.parse(row.headline) as Headline) : null,
      }));
    },
    /** What the small terraces of some designs are drawn from; those that cannot be drawn are left out. */
    summaries(ids: readonly string[]): Record<string, Summary> {
      const found: Record<string, Summary> = {};
      for (const id of ids) {
        const summary = drawing.get(id)?.summary;
        if (summary) found[id] = JSON.parse(summary) as Summary;
      }
      return found;
    },
    /** Saves only when nobody saved in between. */
    save: db.transaction((id: string, design: Design, revision: number): SaveResult => {
      const at = new Date().toISOString();
      const { changes } = update.run(design.name, JSON.stringify(design), ...summarise(design), at, id, revision);
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

/** Headline and drawing as stored. A design that cannot be solved is still kept; the shelf then says so instead of drawing it. */
function summarise(design: Design): [string | null, string | null] {
  try {
    const { picture } = pictureOf(design);
    return [JSON.stringify(headlineOf(picture)), JSON.stringify(summaryOf(picture))];
  } catch (error) {
    if (error instanceof SolveError) return [null, null];
    throw error;
  }
}
