import type { Cell, Grid, GridRow } from '@/core/judge/corners';
import { termsOf } from '@/core/design/source';
import { capitalised, formatQuantity } from '@/core/quantity/format';
import { useDesign } from '@/ui/session';
import { StateSign } from '@/ui/state-sign';

const LINES = ['low', 'nominal', 'high'] as const;

/** Every verdict in every circumstance the design is judged in; the one that decides is framed. */
export function CornerGrid({ grid }: { grid: Grid | null }) {
  const design = useDesign();
  const say = termsOf(design);
  const columns = grid
    ? LINES.flatMap((line) => grid.cells.map((cell, n) => ({ cell, n })).filter(({ cell }) => cell.mains === line))
    : [];
  const failing = grid ? countOf(grid, 'fails') : 0;
  const tight = grid ? countOf(grid, 'tight') : 0;
  const judged = grid ? grid.rows.length + grid.events.length : 0;
  const first = grid?.rows.find((r) => r.values[r.worst]?.state === 'fails') ?? grid?.rows[0];
  const event = grid?.events.find((e) => e.state === 'fails');
  const firsts = (line: string, n: number) => columns.find(({ cell }) => cell.mains === line)?.n === n;
  return (
    <section aria-label="Corners">
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
        <div className="mt-2 overflow-x-auto">
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
            <tbody>
              {grid.rows.map((row) => (
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
                    <Figure key={cell.id} row={row} at={n} cell={cell} divides={firsts(cell.mains, n)} />
                  ))}
                </tr>
              ))}
            </tbody>
          </table>
          <p className="mt-1 text-[13px] text-quiet">
            All circumstances it is judged in, the same everywhere. Framed: the one that decides.
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

const MARKS = { fails: '✗ ', tight: '△ ', holds: '', caution: '○ ' } as const;
const COLOURS = { fails: 'font-semibold text-fail', tight: 'text-tight', holds: '', caution: 'text-quiet' } as const;

function Figure({ row, at, cell, divides }: { row: GridRow; at: number; cell: Cell; divides: boolean }) {
  const found = row.values[at];
  const border = divides ? 'border-l border-rule' : '';
  if (!found) return <td className={`px-1 text-right text-quiet ${border}`}>–</td>;
  return (
    <td className={`whitespace-nowrap px-1 text-right ${border}`} title={`${cell.words}: ${found.state}`}>
      <span
        className={`rounded px-0.5 ${COLOURS[found.state]} ${row.worst === at ? 'outline outline-2 outline-offset-1 outline-ink' : ''}`}
      >
        {MARKS[found.state]}
        {found.words ?? formatQuantity(found.value, row.unit)}
      </span>
    </td>
  );
}
