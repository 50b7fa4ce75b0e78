import { pointNames } from '@/core/bench/stages';
import type { Design, LogEntry } from '@/core/design/design';
import { formatQuantity as q } from '@/core/quantity/format';

/** What happened to a box on one day. */
export interface LogDay {
  /** As 2026-01-31. */
  day: string;
  /** Its entries in the order they were written, each with its place in the design's list. */
  entries: { at: number; entry: LogEntry }[];
  /** What was read that day, as sentences. */
  read: string[];
}

/** The days of a design's log and of its readings, the newest first; with `wanted`, those that hold every one of its words. */
export function logDays(design: Design, wanted = ''): LogDay[] {
  const days = new Map<string, LogDay>();
  const of = (day: string) => {
    let found = days.get(day);
    if (!found) days.set(day, (found = { day, entries: [], read: [] }));
    return found;
  };
  design.log.forEach((entry, at) => of(entry.day).entries.push({ at, entry }));
  const names = pointNames(design);
  for (const r of design.bench.readings)
    of(r.at.slice(0, 10)).read.push(`${names[r.point] ?? r.point} ${q(r.value, r.point === 'sink-warm' ? '°C' : 'V')}`);
  for (const row of design.bench.loadLine)
    of(row.at.slice(0, 10)).read.push(
      `at ${q(row.loadA, 'A')}${row.reservoirV === null ? '' : `, reservoir ${q(row.reservoirV, 'V')}`}${row.outputV === null ? '' : `, output ${q(row.outputV, 'V')}`}`,
    );
  const words = wanted.toLowerCase().split(/\s+/).filter(Boolean);
  return [...days.values()]
    .filter((d) => {
      const text = [d.day, ...d.read, ...d.entries.flatMap(({ entry: e }) => [e.what, e.why])].join(' ').toLowerCase();
      return words.every((w) => text.includes(w));
    })
    .sort((a, b) => b.day.localeCompare(a.day));
}

/** A text as Markdown that means nothing but itself. */
export const plainMarkdown = (text: string): string => text.replace(/\s+/g, ' ').replace(/([\\`*_{}[\]<>#|])/g, '\\$1');

/** The log and the readings as Markdown, the newest day first. */
export function logMarkdown(design: Design): string {
  const plain = plainMarkdown;
  return [
    `# ${plain(design.name)}: log`,
    ...logDays(design).flatMap((d) => [
      `## ${d.day}`,
      ...d.entries.map(({ entry: e }) => `- ${plain(e.what)}${e.why === '' ? '' : `. *Why:* ${plain(e.why)}`}`),
      ...(d.read.length > 0 ? [`- Read: ${plain(d.read.join('; '))}.`] : []),
    ]),
    '',
  ].join('\n\n');
}
