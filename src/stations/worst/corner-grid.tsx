import { cellWords, type Cell, type Grid, type GridRow } from '@/core/judge/corners';
import { termsOf } from '@/core/design/source';
import { capitalised, formatQuantity } from '@/core/quantity/format';
import { useDesign } from '@/ui/session';
import { StateSign } from '@/ui/state-sign';

const LOADS = { none: 'no load', lasting: 'lasting', full: 'full' } as const;

/** Every verdict in every circumstance: of new and aged parts the worse one shows; the cell that decides is framed. */
export function CornerGrid({ grid }: { grid: Grid | null }) {
  const design = useDesign();
  const say = termsOf(design);
  const pairs = grid ? grid.cells.map((cell, n) => ({ cell, n })).filter(({ cell }) => cell.age === 'new') : [];
  const failing = grid?.rows.filter((r) => r.values[r.worst]?.state === 'fails').length ?? 0;
  const first = grid?.rows.find((r) => r.values[r.worst]?.state === 'fails') ?? grid?.rows[0];
  return (
    <section aria-label="Corners">
      <h2 className="text-[20px] font-semibold" data-testid="corner-headline">
        {!grid || !first
          ? 'Solving every corner…'
          : failing > 0
            ? `${failing} of ${grid.rows.length} fail, first ${first.title.toLowerCase()} at ${cellWords(design, grid.cells[first.worst]!)}`
            : `All hold in every corner; the tightest is ${first.title.toLowerCase()}, at ${cellWords(design, grid.cells[first.worst]!)}`}
      </h2>
      {grid && (
        <div className="mt-2 overflow-x-auto">
          <table className="w-full border-collapse text-[13.5px]">
            <thead className="text-[13px] text-quiet">
              <tr>
                <td />
                {(['low', 'nominal', 'high'] as const).map((line) => (
                  <th key={line} colSpan={3} scope="colgroup" className="border-l border-rule px-1 font-semibold">
                    {capitalised(say[line])}
                  </th>
                ))}
              </tr>
              <tr>
                <th scope="col" className="text-left font-normal">
                  Verdict, limit
                </th>
                {pairs.map(({ cell }) => (
                  <th
                    key={cellWords(design, cell)}
                    scope="col"
                    className={`px-1 text-right font-normal ${cell.load === 'none' ? 'border-l border-rule' : ''}`}
                  >
                    {LOADS[cell.load]}
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
                  {pairs.map(({ cell, n }) => (
                    <Figure key={n} row={row} at={n} cell={cell} />
                  ))}
                </tr>
              ))}
            </tbody>
          </table>
          <p className="mt-1 text-[13px] text-quiet">
            Of new parts with cold copper and aged ones with warm copper the worse shows. Framed: the corner that
            decides.
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

/** The worse of new and aged in one circumstance. */
function Figure({ row, at, cell }: { row: GridRow; at: number; cell: Cell }) {
  const design = useDesign();
  const fresh = row.values[at];
  const aged = row.values[at + 1];
  const worse = !fresh ? aged : !aged ? fresh : aged.left < fresh.left ? aged : fresh;
  const decides = row.worst === at || row.worst === at + 1;
  const border = cell.load === 'none' ? 'border-l border-rule' : '';
  if (!worse) return <td className={`px-1 text-right text-quiet ${border}`}>–</td>;
  return (
    <td
      className={`whitespace-nowrap px-1 text-right ${border}`}
      title={`${cellWords(design, { ...cell, age: worse === aged ? 'aged' : 'new' })}: ${worse.state}`}
    >
      <span
        className={`rounded px-0.5 ${worse.state === 'fails' ? 'font-semibold text-fail' : worse.state === 'tight' ? 'text-tight' : ''} ${decides ? 'outline outline-2 outline-offset-1 outline-ink' : ''}`}
      >
        {worse.state === 'fails' ? '✗ ' : worse.state === 'tight' ? '△ ' : ''}
        {formatQuantity(worse.value, row.unit)}
      </span>
    </td>
  );
}
