import type Database from 'better-sqlite3';
import { randomUUID } from 'node:crypto';
import { KINDS, type Part, type PartDraft, type PartKind } from '@/core/drawer/part';

interface Row {
  id: string;
  kind: PartKind;
  name: string;
  ratings: string;
  known: Part['known'];
  condition: Part['condition'];
  count: number;
  price_eur: number | null;
  place: string;
  note: string;
}

/** What of the drawer is asked for. */
export interface PartQuery {
  kind: PartKind;
  /** Words that all have to be in name, place or note. */
  words?: string;
  /** Least and most of ratings, by their key, SI. */
  limits?: readonly { key: string; least?: number; most?: number }[];
  inStock?: boolean;
  /** 'name', 'count', 'price' or a rating's key; a leading '-' turns it round. */
  sort?: string;
  offset?: number;
  limit?: number;
}

export interface PartPage {
  parts: Part[];
  /** How many there are with these filters, on all pages. */
  total: number;
}

const PAGE_MAX = 500;

/** The drawer in a database. Every method is one transaction. */
export function partStore(db: Database.Database) {
  const select = db.prepare<[string], Row>('SELECT * FROM parts WHERE id = ?');
  const insert = db.prepare(
    `INSERT INTO parts (id, kind, name, ratings, known, condition, count, price_eur, place, note, updated_at)
     VALUES (@id, @kind, @name, @ratings, @known, @condition, @count, @priceEur, @place, @note, @at)`,
  );
  const update = db.prepare(
    `UPDATE parts SET kind = @kind, name = @name, ratings = @ratings, known = @known, condition = @condition,
     count = @count, price_eur = @priceEur, place = @place, note = @note, updated_at = @at WHERE id = @id`,
  );
  const remove = db.prepare('DELETE FROM parts WHERE id = ?');
  // 30 VA before 120 VA: numbers count as numbers, wherever they stand in a name.
  db.function('natural', { deterministic: true }, (name) =>
    String(name)
      .toLowerCase()
      .replace(/\d+(\.\d+)?/g, (digits) => digits.padStart(12, '0')),
  );
  const everything = db.prepare<[], Row>('SELECT * FROM parts ORDER BY kind, name, id');
  const counts = db.prepare<[], { kind: PartKind; n: number }>('SELECT kind, count(*) AS n FROM parts GROUP BY kind');
  const users = db.prepare<[string], { id: string; name: string }>(
    `SELECT designs.id, designs.name FROM designs, json_each(CASE WHEN json_valid(designs.document) THEN designs.document ELSE '{}' END, '$.picked') AS pick
     WHERE designs.deleted_at IS NULL AND json_extract(pick.value, '$.partId') = ? ORDER BY designs.name`,
  );

  const used = db.prepare<[], { id: string; n: number }>(
    `SELECT json_extract(pick.value, '$.partId') AS id, count(DISTINCT designs.id) AS n
     FROM designs, json_each(CASE WHEN json_valid(designs.document) THEN designs.document ELSE '{}' END, '$.picked') AS pick WHERE designs.deleted_at IS NULL GROUP BY 1`,
  );

  const read = ({ price_eur, ratings, ...row }: Row): Part => ({
    id: row.id,
    kind: row.kind,
    name: row.name,
    ratings: JSON.parse(ratings) as Part['ratings'],
    known: row.known,
    condition: row.condition,
    count: row.count,
    priceEur: price_eur,
    place: row.place,
    note: row.note,
  });
  const written = (part: PartDraft, id: string) => ({
    ...part,
    id,
    ratings: JSON.stringify(part.ratings),
    at: new Date().toISOString(),
  });

  return {
    get(id: string): Part | null {
      const row = select.get(id);
      return row ? read(row) : null;
    },
    add(part: PartDraft): Part {
      const id = randomUUID();
      insert.run(written(part, id));
      return { ...part, id };
    },
    /** Takes all of them or none. */
    addAll: db.transaction((parts: readonly PartDraft[]): number => {
      for (const part of parts) insert.run(written(part, randomUUID()));
      return parts.length;
    }),
    change(id: string, part: PartDraft): Part | null {
      return update.run(written(part, id)).changes === 1 ? { ...part, id } : null;
    },
    remove(id: string): boolean {
      return remove.run(id).changes === 1;
    },
    /** Puts a removed part back as it was, under its own id. */
    restore(part: Part): void {
      if (!select.get(part.id)) insert.run(written(part, part.id));
    },
    /** Designs on the shelf that were given this part. */
    usedBy(id: string): { id: string; name: string }[] {
      return users.all(id);
    },
    /** How many designs on the shelf each part is in; parts in none are left out. */
    uses(): Record<string, number> {
      return Object.fromEntries(used.all().map(({ id, n }) => [id, n]));
    },
    all(): Part[] {
      return everything.all().map(read);
    },
    counts(): Partial<Record<PartKind, number>> {
      return Object.fromEntries(counts.all().map(({ kind, n }) => [kind, n]));
    },
    /** Fills an empty drawer at once; of two programs that start on it together only one does. */
    fillIfEmpty(parts: () => readonly PartDraft[]): void {
      const fill = db.transaction(() => {
        if (counts.all().length > 0) return;
        for (const part of parts()) insert.run(written(part, randomUUID()));
      });
      fill.immediate();
    },
    /** One page of one kind. Keys of ratings are checked against the kind, values are bound: nothing is pasted into SQL. */
    find({
      kind,
      words = '',
      limits = [],
      inStock = false,
      sort = 'name',
      offset = 0,
      limit = 100,
    }: PartQuery): PartPage {
      const keys = new Set(KINDS[kind].ratings.map((r) => r.key));
      const where = ['kind = ?'];
      const values: (string | number)[] = [kind];
      for (const word of words.split(/\s+/).filter(Boolean).slice(0, 8)) {
        where.push(`(name LIKE ? ESCAPE '\\' OR place LIKE ? ESCAPE '\\' OR note LIKE ? ESCAPE '\\')`);
        const like = `%${word.replaceAll(/[\\%_]/g, (c) => `\\${c}`)}%`;
        values.push(like, like, like);
      }
      for (const { key, least, most } of limits) {
        if (!keys.has(key)) continue;
        if (least !== undefined) {
          where.push(`json_extract(ratings, '$.${key}') >= ?`);
          values.push(least);
        }
        if (most !== undefined) {
          where.push(`json_extract(ratings, '$.${key}') <= ?`);
          values.push(most);
        }
      }
      if (inStock) where.push('count > 0');
      const down = sort.startsWith('-');
      const by = sort.replace(/^-/, '');
      const column = keys.has(by)
        ? `json_extract(ratings, '$.${by}')`
        : by === 'count'
          ? 'count'
          : by === 'price'
            ? 'price_eur'
            : 'natural(name)';
      const condition = where.join(' AND ');
      const { n } = db
        .prepare<unknown[], { n: number }>(`SELECT count(*) AS n FROM parts WHERE ${condition}`)
        .get(...values)!;
      const rows = db
        .prepare<unknown[], Row>(
          `SELECT * FROM parts WHERE ${condition} ORDER BY ${column} ${down ? 'DESC' : 'ASC'} NULLS LAST, natural(name), id LIMIT ? OFFSET ?`,
        )
        .all(...values, Math.min(Math.max(1, limit), PAGE_MAX), Math.max(0, offset));
      return { parts: rows.map(read), total: n };
    },
  };
}

export type PartStore = ReturnType<typeof partStore>;
