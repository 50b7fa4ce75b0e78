import type Database from 'better-sqlite3';
import { createHash } from 'node:crypto';
import sharp from 'sharp';

/** Longest side a picture is kept at, px. */
const SIDE_MAX = 2400;
/** Largest picture that is taken in, bytes. */
export const PHOTO_BYTES_MAX = 25_000_000;
/** Most points a picture may unfold to: more would not be a photograph. */
const POINTS_MAX = 120e6;
const TAKEN = ['jpeg', 'png', 'webp'];

/** A picture as it is kept. */
export interface Photo {
  id: string;
  type: string;
  width: number;
  height: number;
  bytes: Buffer;
}

/**
 * A picture made fit to be kept: upright, no side over 2400 px, and nothing in it but the picture: where and with what it
 * was taken is gone.
 * @returns a sentence where it is no picture
 */
export async function preparedPhoto(given: Buffer): Promise<Photo | string> {
  try {
    const read = sharp(given, { limitInputPixels: POINTS_MAX, failOn: 'error' });
    const { format, hasAlpha } = await read.metadata();
    if (!TAKEN.includes(format)) return NO_PICTURE;
    // A print knows two kinds alone: WebP is kept as the one that shows it.
    const drawn = format === 'png' || (format === 'webp' && hasAlpha);
    const made = read.rotate().resize({ width: SIDE_MAX, height: SIDE_MAX, fit: 'inside', withoutEnlargement: true });
    const { data, info } = await (drawn ? made.png() : made.jpeg({ quality: 84 })).toBuffer({
      resolveWithObject: true,
    });
    const { width, height } = info;
    return { id: nameOf(data), type: drawn ? 'image/png' : 'image/jpeg', width, height, bytes: data };
  } catch (error) {
    // More points than a photograph has is told apart from what is none.
    return error instanceof Error && /pixel limit/.test(error.message)
      ? `This picture is larger than any photograph: ${POINTS_MAX / 1e6} million points are the most.`
      : NO_PICTURE;
  }
}

const NO_PICTURE = 'This is no picture that can be kept: JPEG, PNG and WebP are, whole and undamaged.';
const nameOf = (bytes: Buffer) => createHash('sha256').update(bytes).digest('hex').slice(0, 32);

/** The pictures of a database. What is kept is never changed. */
export function photoStore(db: Database.Database) {
  const insert = db.prepare(
    'INSERT INTO photos (id, type, width, height, bytes, kept_at) VALUES (?, ?, ?, ?, ?, ?) ON CONFLICT (id) DO NOTHING',
  );
  const one = db.prepare<[string], Photo>('SELECT id, type, width, height, bytes FROM photos WHERE id = ?');
  return {
    keep({ id, type, width, height, bytes }: Photo, at = new Date()): void {
      insert.run(id, type, width, height, bytes, at.toISOString());
    },
    open: (id: string): Photo | null => one.get(id) ?? null,
  };
}

export type PhotoStore = ReturnType<typeof photoStore>;
