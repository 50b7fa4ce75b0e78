/** What can be wrong with the file everything is kept in. */
export type TroubleKind = 'newer' | 'corrupt' | 'busy' | 'full' | 'read-only' | 'unreachable';

/** A file that cannot be used as it is, in words for the person whose file it is. */
export class DatabaseTrouble extends Error {
  constructor(
    readonly kind: TroubleKind,
    message: string,
    /** The file, and the newest sound copy of it beside it. */
    readonly file: string,
    readonly copy: string | null,
  ) {
    super(message);
    this.name = 'DatabaseTrouble';
  }
}

const WORDS: Readonly<Record<TroubleKind, string>> = {
  newer: 'was written by a newer version of this program. It is shown, and nothing can be changed',
  corrupt: 'is damaged and cannot be read',
  busy: 'is held by another program. Nothing was written; try again when that one is done',
  full: 'cannot grow: the disk is full. Nothing was written; make room and try again',
  'read-only': 'may not be written here. Nothing was written; give this program leave to write it',
  unreachable: 'cannot be reached',
};

/** The sentence for a kind of trouble with a file. */
export function troubleWords(kind: TroubleKind, file: string): string {
  return `The file ${file} ${WORDS[kind]}.`;
}

const CODES: readonly [RegExp, TroubleKind][] = [
  [/^SQLITE_(CORRUPT|NOTADB)/, 'corrupt'],
  [/^SQLITE_(BUSY|LOCKED)/, 'busy'],
  [/^SQLITE_FULL|^ENOSPC$/, 'full'],
  [/^SQLITE_READONLY|^EROFS$|^EACCES$|^EPERM$/, 'read-only'],
  [/^SQLITE_CANTOPEN|^SQLITE_IOERR|^ENOENT$|^ENOTDIR$|^EISDIR$/, 'unreachable'],
];

/** What kind of trouble with its file an error of the database driver tells of; null for any other error. */
export function troubleOf(error: unknown): TroubleKind | null {
  const code = (error as { code?: unknown } | null)?.code;
  return typeof code === 'string' ? (CODES.find(([pattern]) => pattern.test(code))?.[1] ?? null) : null;
}
