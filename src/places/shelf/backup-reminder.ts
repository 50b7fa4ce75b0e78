const DAY_MS = 86_400_000;
/** A backup is old after so long, and missing once a design is as old as this, days. */
const OLD_DAYS = 30;
const FIRST_DAYS = 3;

/**
 * The sentence that reminds of a backup; null where none is due.
 * @param last when the last one was made
 * @param changed when each design was last changed
 */
export function backupReminder(last: string | null, changed: readonly string[], now = Date.now()): string | null {
  const days = (at: string) => Math.floor((now - Date.parse(at)) / DAY_MS);
  if (last === null)
    return changed.some((at) => days(at) >= FIRST_DAYS) ? 'No backup of this shelf was ever made.' : null;
  // What has not changed since is in it.
  if (days(last) < OLD_DAYS || !changed.some((at) => at > last)) return null;
  return `The last backup is ${days(last)} days old, and the shelf has changed since.`;
}
