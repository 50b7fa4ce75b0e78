'use client';

import { diodeCount, type Arrangement } from '@/core/parts/arrangement';
import { factsOf } from '@/core/parts/arrangement-facts';

export function Card({
  arrangement,
  chosen,
  onChoose,
}: {
  arrangement: Arrangement;
  chosen: boolean;
  onChoose(): void;
}) {
  const { words } = arrangement;
  const both = factsOf(arrangement).fullWave.every(Boolean);
  const diodes = diodeCount(arrangement);
  return (
    <button
      type="button"
      aria-pressed={chosen}
      onClick={onChoose}
      className={`flex h-full w-full flex-col rounded border bg-raised p-2.5 text-left hover:border-edge ${chosen ? 'border-volt shadow-[inset_0_0_0_1px_var(--volt)]' : 'border-rule'}`}
    >
      <ArrangementDrawing arrangement={arrangement} />
      <span className="mt-1.5 font-semibold leading-tight">{words.name}</span>
      <span className="text-[13px] text-quiet">
        {diodes} {diodes === 1 ? 'diode' : 'diodes'}, {both ? 'both half waves' : 'one half wave a rail'}
      </span>
      <span className="mt-1 text-[13px] leading-snug">{words.when}</span>
    </button>
  );
}

const WIDTH = 190;

const HEIGHT = 96;

/**
 * Drawn from the connections alone: windings at the left as stacked bows, rails as lines at the right, each charging
 * path an arrow from a winding's end to the rail it feeds.
 */
function ArrangementDrawing({ arrangement }: { arrangement: Arrangement }) {
  const { loops, ratios, rails, cells } = arrangement;
  const facts = factsOf(arrangement);
  const stacked = facts.stacked > 1;
  const tapped = ratios.length === 2 && ratios[1] === -1;
  const separate = ratios.length === 2 && !tapped;
  const ends = windingEnds(arrangement);
  const high = 12;
  const low = HEIGHT - 12;
  const ground = rails === 2 ? HEIGHT / 2 : low;
  const middle = HEIGHT / 2;
  const stackedCells = cells.flatMap((c, n) => (c.at === 'stack' ? [n] : []));
  /** Upper end of what a cell stands between. */
  const cellY = (cell: number) => {
    const c = cells[cell]!;
    if (c.at === 'rail') return c.rail === 1 ? low : high;
    if (c.at === 'pump') return middle - 14;
    return high + ((low - high) * stackedCells.indexOf(cell)) / stackedCells.length;
  };
  return (
    <svg viewBox={`0 0 ${WIDTH} ${HEIGHT}`} className="h-[96px] w-full" aria-hidden="true">
      {(tapped ? [[0, 2]] : separate ? [[0], [1]] : [[0]]).map((_, n) => {
        const [a, b] = tapped ? [ends[0]![0], ends[1]![0]] : ends[n]!;
        const bows = 5;
        const step = (b - a) / bows;
        const path = Array.from({ length: bows }, () => `q14 ${step / 2} 0 ${step}`).join('');
        return <path key={n} d={`M26 ${a}${path}`} fill="none" stroke="var(--ink)" strokeWidth="2" />;
      })}
      <path d={`M118 ${high}H${WIDTH - 6}`} stroke="var(--volt)" strokeWidth="3" />
      {rails === 2 && <path d={`M118 ${low}H${WIDTH - 6}`} stroke="var(--volt)" strokeWidth="3" />}
      <path d={`M118 ${ground}H${WIDTH - 6}`} stroke="var(--edge)" strokeWidth="1.5" />
      {stacked && <path d={`M118 ${middle}H150`} stroke="var(--edge)" strokeWidth="1.5" />}
      {(tapped || kindReturns(arrangement)) && (
        <path
          d={`M26 ${tapped ? middle : ends[0]![1]}H72V${stacked ? middle : ground}H118`}
          fill="none"
          stroke="var(--edge)"
          strokeWidth="1.5"
        />
      )}
      {loops.map((loop, n) => {
        const [first, second] = ends[loop.winding]!;
        const out = loop.sign > 0 ? first : second;
        const back = loop.sign > 0 ? second : first;
        const [into] = loop.cells;
        const cell = cells[into!.cell]!;
        const negative = cell.at === 'rail' && cell.rail === 1;
        const below =
          cell.at === 'stack' && into!.cell === stackedCells[stackedCells.length - 1] && loop.cells.length === 1;
        // A single-diode path into a negative rail, or into a doubler's lower capacitor, comes out of the rail.
        const single = loop.returnDiodes === undefined;
        const from = first;
        const to = below ? low : cellY(into!.cell);
        const inward = negative || below;
        const x = 60 + 10 * n;
        return (
          <g key={n}>
            <Arrow from={[30, single ? from : inward ? back : out]} to={[118, to]} x={x} reversed={inward} />
            {!single && <Arrow from={[30, inward ? out : back]} to={[118, ground]} x={x + 5} reversed={!inward} />}
          </g>
        );
      })}
      <text x={WIDTH - 6} y={high - 3} textAnchor="end" fontSize="11" fill="var(--quiet)">
        +
      </text>
      {rails === 2 && (
        <text x={WIDTH - 6} y={low + 10} textAnchor="end" fontSize="11" fill="var(--quiet)">
          −
        </text>
      )}
    </svg>
  );
}

/** Whether the winding's second end goes to ground or to the middle, not to diodes. */
function kindReturns({ loops, ratios }: Arrangement): boolean {
  return ratios.length === 1 && loops.every((l) => l.returnDiodes === undefined);
}

/** Height of both ends of each winding. */
function windingEnds({ ratios }: Arrangement): [number, number][] {
  if (ratios.length === 1) return [[22, HEIGHT - 22]];
  if (ratios[1] === -1) {
    return [
      [16, HEIGHT / 2],
      [HEIGHT - 16, HEIGHT / 2],
    ];
  }
  return [
    [10, 40],
    [HEIGHT - 40, HEIGHT - 10],
  ];
}

function Arrow({
  from,
  to,
  x,
  reversed,
}: {
  from: [number, number];
  to: [number, number];
  x: number;
  reversed: boolean;
}) {
  const y = to[1];
  const tip = reversed ? x + 2 : x + 14;
  const tail = reversed ? x + 14 : x + 2;
  return (
    <g>
      <path d={`M${from[0]} ${from[1]}L${x} ${y}H${to[0]}`} fill="none" stroke="var(--ink)" strokeWidth="1.2" />
      <path d={`M${tip} ${y}L${tail} ${y - 5}V${y + 5}Z`} fill="var(--ember)" />
      <path d={`M${tip} ${y - 5}V${y + 5}`} stroke="var(--ember)" strokeWidth="1.8" />
    </g>
  );
}
