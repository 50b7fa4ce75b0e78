import type { LogEntry } from '@/core/design/design';
import { LOG_TEXT_MAX } from '@/core/design/how-many';
import { formatQuantity as q } from '@/core/quantity/format';
import type { DesignFit } from './fit-design';

/** What taking a fit's values changes, for the log: each as it was and as it is, and what it rests on. */
export function takenWords({
  values,
  rows,
  words,
}: Pick<DesignFit, 'values' | 'rows' | 'words'>): Pick<LogEntry, 'what' | 'why'> {
  // The rectifier stays its class, whatever the readings say of its drop.
  const moved = values
    .filter((v) => v.id !== 'diode')
    .map((v) => `${v.label} ${q(v.before, v.unit, 4)} → ${q(v.value, v.unit, 4)}`);
  const left = rows.filter((r) => r.wrong).length;
  const held = `${rows.length - left} readings${left > 0 ? `, ${left} left out` : ''}`;
  return {
    what: `Took what ${held} say: ${moved.join('; ')}.`.slice(0, LOG_TEXT_MAX),
    why: words.slice(0, LOG_TEXT_MAX),
  };
}
