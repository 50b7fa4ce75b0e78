import type Database from 'better-sqlite3';
import type { Design } from '@/core/design/design';
import { readStored } from './stored-document';

/** A design as it stood at a moment somebody gave a name. */
export interface Revision {
  id: string;
  name: string;
  why: string;
  keptAt: string;
}

export type OpenedRevision = { ok: true; revision: Revision; design: Design } | { ok: false; sentence: string };

/** What is said of a state that is kept. The id is the writer's own: one sent twice is kept once. */
export interface Naming {
  id: string;
  name: string;
  why: string;
}

interface Row {
  id: string;
  name: string;
  why: string;
  document: string;
  kept_at: string;
}

const revisionOf = ({ id, name, why, kept_at }: Omit<Row, 'document'>): Revision => ({
  id,
  name,
  why,
  keptAt: kept_at,
});

/** The named states of the designs in a database. What is kept is never changed. */
export function revisionStore(db: Database.Database) {
  const insert = db.prepare(
    `INSERT INTO revisions (id, design_id, name, why, document, kept_at) VALUES (?, ?, ?, ?, ?, ?)
     ON CONFLICT (id) DO NOTHING`,
  );
  const known = db.prepare<[string], { n: number }>('SELECT count(*) AS n FROM designs WHERE id = ?');
  const newest = db.prepare<[string], Pick<Row, 'document'>>(
    'SELECT document FROM revisions WHERE design_id = ? ORDER BY kept_at DESC, rowid DESC LIMIT 1',
  );
  const all = db.prepare<[string], Omit<Row, 'document'>>(
    'SELECT id, name, why, kept_at FROM revisions WHERE design_id = ? ORDER BY kept_at DESC, rowid DESC',
  );
  const one = db.prepare<[string, string], Row>('SELECT * FROM revisions WHERE design_id = ? AND id = ?');
  return {
    /**
     * Keeps a state under a name.
     * @param unlessKept nothing is kept where the newest one is that very state
     * @returns false where there is no such design
     */
    keep: db.transaction(
      (designId: string, { id, name, why }: Naming, design: Design, unlessKept = false, at = new Date()): boolean => {
        if (known.get(designId)!.n === 0) return false;
        const document = JSON.stringify(design);
        if (unlessKept && newest.get(designId)?.document === document) return true;
        insert.run(id, designId, name, why, document, at.toISOString());
        return true;
      },
    ),
    /** All of a design, the newest first. */
    list: (designId: string): Revision[] => all.all(designId).map(revisionOf),
    /** One of them, brought up to this version of the document; null where there is none. */
    open(designId: string, id: string): OpenedRevision | null {
      const row = one.get(designId, id);
      if (!row) return null;
      const read = readStored(row.document);
      return read.ok ? { ok: true, revision: revisionOf(row), design: read.design } : read;
    },
  };
}

export type RevisionStore = ReturnType<typeof revisionStore>;
