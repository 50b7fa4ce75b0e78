import { Download } from 'lucide-react';
import { useState, type KeyboardEvent } from 'react';
import { download, fileName } from '@/ui/download';
import type { Cell, Grid, GridRow } from '@/core/judge/corners';
import { termsOf } from '@/core/design/source';
import { figureText } from '@/core/study/figure';
import { capitalised, formatQuantity } from '@/core/quantity/format';
import { useDesign, useView } from '@/ui/session';
import { Working } from '@/ui/working';
import { STATE_WORDS } from '@/ui/state-in-words';
import { StateSign } from '@/ui/state-sign';

const LINES = ['low', 'nominal', 'high'] as const;

/** Every verdict in every circumstance the design is judged in; the one that decides is framed. */
export function CornerGrid({ grid }: { grid: Grid | null }) {
  const design = useDesign();
  const say = termsOf(design);
  const [opened, setOpened] = useState<string | null>(null);
  const lines = useView((s) => s.picture?.verdicts.length ?? 18);
  const columns = grid
    ? LINES.flatMap((line) => grid.cells.map((cell, n) => ({ cell, n })).filter(({ cell }) => cell.mains === line))
    : [];
  async function saveCsv(of: Grid) {
    const { cornersCsv } = await import('@/core/sheet/corners-csv');
    download(`${fileName(design.name)}-corners.csv`, cornersCsv(of), 'text/csv');
  }
  const failing = grid ? countOf(grid, 'fails') : 0;
  const tight = grid ? countOf(grid, 'tight') : 0;
  const judged = grid ? grid.rows.length + grid.events.length : 0;
  const first = grid?.rows.find((r) => r.values[r.worst]?.state === 'fails') ?? grid?.rows[0];
  const event = grid?.events.find((e) => e.state === 'fails');
  const shown = grid?.rows
    .flatMap((row) => grid.cells.map((cell, n) => ({ id: `${row.id} ${cell.id}`, found: row.values[n] })))
    .find((c) => c.id === opened)?.found?.figure;
  const firsts = (line: string, n: number) => columns.find(({ cell }) => cell.mains === line)?.n === n;
  return (
    // The table has its room before it arrives: a line for every verdict.
    <section aria-label="Corners" style={grid ? undefined : { minHeight: 190 + 29 * lines }}>
      <h2 className="text-[20px] font-semibold" data-testid="corner-headline">
        {!grid || !first
          ? 'Solving every corner…'
          : failing > 0
            ? first.values[first.worst]?.state === 'fails'
              ? `${failing} of ${judged} fail, first ${first.title.toLowerCase()} at ${grid.cells[first.worst]!.words}`
              : `${failing} of ${judged} fail, first ${event!.title.toLowerCase()}`
            : `All ${judged} pass in every corner${tight > 0 ? `, ${tight} tight` : ''}; the closest is ${first.title.toLowerCase()}, at ${grid.cells[first.worst]!.words}`}
      </h2>
      {grid && (
        <button type="button" className="btn float-right" onClick={() => void saveCsv(grid)}>
          <Download size={15} /> CSV
        </button>
      )}
      {grid && (
        <div className="mt-2 clear-both overflow-x-auto">
          <table className="w-full border-collapse text-[13.5px]">
            <thead className="text-[13px] text-quiet">
              <tr>
                <td />
                {LINES.map((line) => (
                  <th
                    key={line}
                    colSpan={columns.filter(({ cell }) => cell.mains === line).length}
                    scope="colgroup"
                    className="border-l border-rule px-1 font-semibold"
                  >
                    {capitalised(say[line])}
                  </th>
                ))}
              </tr>
              <tr className="align-bottom">
                <th scope="col" className="text-left font-normal">
                  Verdict, limit
                </th>
                {columns.map(({ cell, n }) => (
                  <th
                    key={cell.id}
                    scope="col"
                    className={`max-w-[92px] px-1 text-right text-[12.5px] font-normal leading-tight ${firsts(cell.mains, n) ? 'border-l border-rule' : ''}`}
                  >
                    {cell.state}
                  </th>
                ))}
              </tr>
            </thead>
            <tbody onKeyDown={walk}>
              {grid.rows.map((row, r) => (
                <tr key={row.id} className="border-t border-rule/60">
                  <th scope="row" className="max-w-[270px] py-0.5 pr-2 text-left font-normal">
                    {row.title}{' '}
                    <span
                      className="whitespace-nowrap text-[12.5px] text-quiet"
                      title={`${row.relation} ${formatQuantity(row.limit, row.unit)}`}
                    >
                      {row.relation === 'at most' ? '≤' : '≥'} {formatQuantity(row.limit, row.unit)}
                    </span>
                  </th>
                  {columns.map(({ cell, n }) => (
                    <Entry
                      key={cell.id}
                      row={row}
                      at={n}
                      cell={cell}
                      divides={firsts(cell.mains, n)}
                      first={r === 0 && row.worst === n}
                      open={opened === `${row.id} ${cell.id}`}
                      onOpen={() =>
                        setOpened((old) => (old === `${row.id} ${cell.id}` ? null : `${row.id} ${cell.id}`))
                      }
                    />
                  ))}
                </tr>
              ))}
            </tbody>
          </table>
          {shown && (
            <div className="mt-2 border-l-2 border-volt pl-3">
              <Working figure={shown} />
            </div>
          )}
          <p className="mt-1 text-[13px] text-quiet">
            All circumstances it is judged in, the same everywhere. Framed: the one that decides. Each figure opens its
            working; arrow keys go from one to the next.
          </p>
          <h3 className="mt-3 text-[16px] font-semibold">Events</h3>
          <ul className="text-[14px]">
            {grid.events.map((e) => (
              <li key={e.title} className="flex items-start gap-2 border-t border-rule/60 py-1">
                <StateSign state={e.state} />
                <span>
                  <strong className="font-medium">{e.title}:</strong> {e.sentence}{' '}
                  {e.condition && <span className="text-quiet">({e.condition})</span>}
                </span>
              </li>
            ))}
          </ul>
        </div>
      )}
    </section>
  );
}

function countOf(grid: Grid, state: 'fails' | 'tight'): number {
  const rows = grid.rows.filter((r) => r.values[r.worst]?.state === state).length;
  return rows + grid.events.filter((e) => e.state === state).length;
}

const MARKS = { fails: '✕ ', tight: '◇ ', holds: '', caution: '○ ' } as const;
const COLOURS = { fails: 'font-semibold text-fail', tight: 'text-tight', holds: '', caution: 'text-quiet' } as const;

function Entry({
  row,
  at,
  cell,
  divides,
  first,
  open,
  onOpen,
}: {
  row: GridRow;
  at: number;
  cell: Cell;
  divides: boolean;
  /** Whether the tabulator comes to it; arrows go on from there. */
  first: boolean;
  open: boolean;
  onOpen(): void;
}) {
  const found = row.values[at];
  const border = divides ? 'border-l border-rule' : '';
  if (!found) return <td className={`px-1 text-right text-quiet ${border}`}>–</td>;
  const text = figureText(found.figure);
  return (
    <td className={`whitespace-nowrap px-0.5 text-right ${border}`}>
      <button
        type="button"
        data-cell
        tabIndex={first ? 0 : -1}
        aria-expanded={open}
        aria-label={`${row.title}, ${cell.words}: ${text}, ${STATE_WORDS[found.state]}`}
        title={`${cell.words}: ${STATE_WORDS[found.state]}`}
        className={`min-h-[24px] min-w-[24px] rounded px-1 ${COLOURS[found.state]} ${open ? 'bg-sunk' : ''} ${row.worst === at ? 'outline outline-2 outline-ink' : 'hover:bg-sunk'}`}
        onClick={onOpen}
      >
        {MARKS[found.state]}
        {text}
      </button>
    </td>
  );
}

/** Arrow keys go from cell to cell, past those that hold nothing. */
function walk(event: KeyboardEvent<HTMLTableSectionElement>) {
  const ways: Record<string, [number, number]> = {
    ArrowRight: [0, 1],
    ArrowLeft: [0, -1],
    ArrowDown: [1, 0],
    ArrowUp: [-1, 0],
  };
  const way = ways[event.key];
  const cell = (event.target as HTMLElement).closest('td');
  if (!way || !cell) return;
  event.preventDefault();
  const rows = [...event.currentTarget.rows];
  let down = rows.indexOf(cell.parentElement as HTMLTableRowElement);
  let across = cell.cellIndex;
  for (;;) {
    down += way[0];
    across += way[1];
    const next = rows[down]?.cells[across];
    if (!next) return;
    const button = next.querySelector<HTMLElement>('[data-cell]');
    if (button) return button.focus();
  }
}
