import type { Design } from '@/core/design/design';

/** A picture of the log with the words it stands by. */
export interface Picture {
  id: string;
  day: string;
  what: string;
}

/** Pictures of the entries that name a part or a test point by its reference, TP3 or C1, the newest first. */
export function picturesOf({ log }: Pick<Design, 'log'>, ref: string): Picture[] {
  // A reference is letters and digits: TP1 is not TP12.
  const named = new RegExp(`(?<![A-Za-z0-9])${ref}(?![A-Za-z0-9])`);
  return log
    .filter(({ what, why }) => named.test(`${what} ${why}`))
    .flatMap(({ day, what, photos }) => photos.map((id) => ({ id, day, what })))
    .sort((a, b) => b.day.localeCompare(a.day));
}
