import type Database from 'better-sqlite3';
import { randomUUID } from 'node:crypto';
import type { Design } from '@/core/design/design';
import type { StageOfLife } from '@/core/design/kinds';
import { SUMMARY_VERSION, type Headline, type Summary } from '@/core/picture/summary';
import { readStored } from './stored-document';

export interface StoredDesign {
  id: string;
  design: Design;
  revision: number;
  updatedAt: string;
}

/** A row whose document this program cannot read. It stays as it is. */
export interface UnreadableDesign {
  id: string;
  name: string;
  /** What is wrong with it, and where. */
  sentence: string;
  /** The document as it was stored. */
  text: string;
}

export type OpenedDesign = { ok: true; stored: StoredDesign } | { ok: false; unreadable: UnreadableDesign };

export interface ShelfEntry {
  id: string;
  name: string;
  /** How far it is. */
  stage: StageOfLife;
  revision: number;
  updatedAt: string;
  /** What is said of it; null while it is being looked at, or when there is nothing to say but its fault. */
  headline: Headline | null;
  /** Whether what is said is of an earlier revision, or not there yet. */
  waiting: boolean;
  /** Why it cannot be solved or read, as a sentence; null where it can. */
  fault: string | null;
}

interface Row {
  id: string;
  name: string;
  stage: StageOfLife;
  document: string;
  headline: string | null;
  summary: string | null;
  summary_version: number;
  summary_revision: number;
  fault: string | null;
  save_id: string | null;
  revision: number;
  updated_at: string;
}

/** What is kept of a design's picture for lists, or why there is none. */
export interface Summed {
  headline: Headline | null;
  summary: Summary | null;
  fault: string | null;
}

export type SaveResult =
  | { ok: true; revision: number; updatedAt: string }
  | { ok: false; reason: 'missing' }
  | { ok: false; reason: 'moved on'; stored: StoredDesign };

/** The designs in a database. Every method is one transaction, and none solves anything. */
export function designStore(db: Database.Database) {
  const insert = db.prepare(
    'INSERT INTO designs (id, name, stage, document, revision, created_at, updated_at) VALUES (?, ?, ?, ?, 1, ?, ?)',
  );
  const select = db.prepare<[string], Row>('SELECT * FROM designs WHERE id = ? AND deleted_at IS NULL');
  // The documents and drawings stay where they are: a thousand of them are not needed to say what is on the shelf.
  const all = db.prepare<[], Omit<Row, 'document' | 'summary' | 'save_id'>>(
    `SELECT id, name, stage, headline, fault, revision, summary_revision, summary_version, updated_at
     FROM designs WHERE deleted_at IS NULL ORDER BY updated_at DESC, id`,
  );
  const unsummed = db.prepare<[], Pick<Row, 'id' | 'document' | 'revision'>>(
    `SELECT id, document, revision FROM designs
     WHERE deleted_at IS NULL AND (summary_version <> ${SUMMARY_VERSION} OR summary_revision <> revision)
     ORDER BY updated_at DESC LIMIT 1`,
  );
  const drawing = db.prepare<[string], Pick<Row, 'summary'>>(
    'SELECT summary FROM designs WHERE id = ? AND deleted_at IS NULL',
  );
  const update =
    db.prepare(`UPDATE designs SET name = ?, stage = ?, document = ?, save_id = ?, revision = revision + 1, updated_at = ?
    WHERE id = ? AND revision = ? AND deleted_at IS NULL`);
  const keepSummary = db.prepare(
    `UPDATE designs SET headline = ?, summary = ?, fault = ?, summary_version = ${SUMMARY_VERSION}, summary_revision = ?
     WHERE id = ? AND revision = ?`,
  );
  const mark = db.prepare('UPDATE designs SET deleted_at = ? WHERE id = ?');
  const count = db.prepare<[], { n: number }>('SELECT count(*) AS n FROM designs');

  function opened(row: Row): OpenedDesign {
    const read = readStored(row.document);
    return read.ok
      ? { ok: true, stored: { id: row.id, design: read.design, revision: row.revision, updatedAt: row.updated_at } }
      : { ok: false, unreadable: { id: row.id, name: row.name, sentence: read.sentence, text: row.document } };
  }

  return {
    create(design: Design, at = new Date().toISOString()): StoredDesign {
      const id = randomUUID();
      insert.run(id, design.name, design.stage, JSON.stringify(design), at, at);
      return { id, design, revision: 1, updatedAt: at };
    },
    /** A design brought up to this version, or what is wrong with its row; null when there is none. */
    open(id: string): OpenedDesign | null {
      const row = select.get(id);
      return row ? opened(row) : null;
    },
    /** The same where only a readable one is of use. */
    get(id: string): StoredDesign | null {
      const found = this.open(id);
      return found?.ok ? found.stored : null;
    },
    /** All that is on the shelf, last changed first, with what is known of it. */
    list(): ShelfEntry[] {
      return all.all().map((row) => ({
        id: row.id,
        name: row.name,
        stage: row.stage,
        revision: row.revision,
        updatedAt: row.updated_at,
        headline: parsed<Headline>(row.headline),
        waiting: row.summary_version !== SUMMARY_VERSION || row.summary_revision !== row.revision,
        fault: row.fault,
      }));
    },
    /** What the small terraces of some designs are drawn from; those that have none are left out. */
    summaries(ids: readonly string[]): Record<string, Summary> {
      const found: Record<string, Summary> = {};
      for (const id of ids) {
        const summary = parsed<Summary>(drawing.get(id)?.summary ?? null);
        if (summary) found[id] = summary;
      }
      return found;
    },
    /** The design whose summary is missing or of another revision or version, last changed first; null when all stand. */
    unsummed(): { id: string; document: string; revision: number } | null {
      return unsummed.get() ?? null;
    },
    /** Keeps what a revision came to; nothing when the design has moved on. */
    keepSummary(id: string, revision: number, { headline, summary, fault }: Summed): void {
      const text = (value: unknown) => (value === null ? null : JSON.stringify(value));
      keepSummary.run(text(headline), text(summary), fault, revision, id, revision);
    },
    /** Saves only when nobody saved in between. A save that is sent again, its answer lost, is answered as it was. */
    save: db.transaction((id: string, design: Design, revision: number, saveId: string | null = null): SaveResult => {
      const at = new Date().toISOString();
      const { changes } = update.run(design.name, design.stage, JSON.stringify(design), saveId, at, id, revision);
      if (changes === 1) return { ok: true, revision: revision + 1, updatedAt: at };
      const row = select.get(id);
      if (!row) return { ok: false, reason: 'missing' };
      if (saveId !== null && row.save_id === saveId)
        return { ok: true, revision: row.revision, updatedAt: row.updated_at };
      const now = opened(row);
      return now.ok ? { ok: false, reason: 'moved on', stored: now.stored } : { ok: false, reason: 'missing' };
    }),
    remove(id: string): boolean {
      return mark.run(new Date().toISOString(), id).changes === 1;
    },
    restore(id: string): boolean {
      return mark.run(null, id).changes === 1;
    },
    /** Fills an empty database at once; of two programs that start on it together only one does, and is told so. */
    fillIfEmpty(designs: readonly { design: Design; at: string }[]): boolean {
      const fill = db.transaction(() => {
        if (count.get()!.n > 0) return false;
        for (const { design, at } of designs) this.create(design, at);
        return true;
      });
      return fill.immediate();
    },
  };
}

export type DesignsStore = ReturnType<typeof designStore>;

/** What this program wrote itself; nothing where it was damaged since. */
function parsed<T>(text: string | null): T | null {
  if (text === null) return null;
  try {
    return JSON.parse(text) as T;
  } catch {
    return null;
  }
}
