import { arrangementWords, ratingWords } from '@/core/design/words';
import type { Picture } from '@/core/picture/picture';
import { asFence } from './design-inside';
import { logMarkdown, plainMarkdown as plain } from './log';
import type { Report } from './report';
import { sheetTables } from './sheet-tables';

/** The sheet and the log as Markdown, fit for a wiki; the design itself stands at its end, where the program finds it again. */
export function sheetMarkdown({ design }: Pick<Picture, 'design'>, report: Report, day: string): string {
  return [
    `# ${plain(design.name)}`,
    `**${plain(ratingWords(design))}**, ${plain(arrangementWords(design))}. Ember Rail, ${day}.`,
    report.cautions.map((c) => `> **Caution:** ${plain(c)}`).join('\n>\n'),
    ...Object.values(sheetTables(report)).flatMap(({ title, head, rows }) =>
      rows.length === 0
        ? []
        : [
            `## ${title}`,
            table(head.length > 0 ? head : rows[0]!.map((_, n) => ['What', 'Value', 'Detail'][n] ?? ''), rows),
          ],
    ),
    ...(design.note === '' ? [] : ['## Notes', plain(design.note)]),
    logMarkdown(design)
      .replace(/^# .*$/m, '## Log')
      .replace(/^## (\d{4})/gm, '### $1')
      .trim(),
    '## The design itself',
    'Import this file into Ember Rail to work on it.',
    asFence(design),
    '',
  ].join('\n\n');
}

const table = (head: readonly string[], rows: readonly (readonly string[])[]): string =>
  [head, head.map(() => '---'), ...rows.map((row) => row.map(plain))].map((row) => `| ${row.join(' | ')} |`).join('\n');
