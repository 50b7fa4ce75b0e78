import { BANDS } from '@/core/picture/picture';
import type { RailSummary, Summary } from '@/core/picture/summary';
import {
  bandOf,
  columns,
  followPoints,
  pathOf,
  shortfallArea,
  steps,
  voltAxis,
  wavePoints,
  type Point,
} from './geometry';

const WIDTH = 320;
/** Of the drawing, in its own units. */
export const MINI_WIDTH = WIDTH;
const HEIGHT = 172;
/** Where the embers lie. */
const FLOOR = HEIGHT - 34;

type Columns = ReturnType<typeof columns>;

/** A design's terrace, small: the same steps and waves as on its Supply view, without words. */
export function MiniTerrace({ summary, id }: { summary: Summary; id: string }) {
  const regulated = summary.neededV !== null;
  const cols = columns(0, WIDTH, { regulated });
  const split = summary.rails.length > 1;
  const lowest = Math.min(...summary.rails.map(({ levels: { low } }) => Math.min(low.reservoirMinV, low.outputMinV)));
  const highest = Math.max(...summary.rails.map((r) => r.levels.high.openPeakV));
  // Two rails share the height, mirrored about zero; one has it all, with what lies far below it folded away.
  const { y } = split
    ? voltAxis(0, Math.max(highest, summary.windowV[1]), 8, FLOOR / 2 + 4, 0)
    : voltAxis(Math.max(0, Math.min(lowest, summary.windowV[0])), Math.max(highest, summary.windowV[1]), 8, FLOOR, 12);
  const { watts } = summary;
  const most = Math.max(watts.winding, watts.rectifier, watts.regulator, 1e-9);
  const middle = ([a, b]: [number, number]) => (a + b) / 2;
  return (
    <svg viewBox={`0 0 ${WIDTH} ${HEIGHT}`} className="block w-full" aria-hidden="true">
      <defs>
        <pattern id={`short-${id}`} width="6" height="6" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
          <path d="M0 0V6" stroke="var(--fail)" strokeWidth="3" />
        </pattern>
      </defs>
      <path d={`M0 ${y(0)}H${WIDTH}`} stroke="var(--edge)" />
      {summary.rails.map((rail, r) => (
        <MiniRail
          key={r}
          rail={rail}
          summary={summary}
          cols={cols}
          y={r === 0 ? y : (v) => 2 * y(0) - y(v)}
          shortfall={`url(#short-${id})`}
        />
      ))}
      {(
        [
          ['winding', watts.winding],
          ['rectifier', watts.rectifier],
          ['regulator', watts.regulator],
        ] as const
      ).map(
        ([station, w]) =>
          w > 0 && (
            <circle
              key={station}
              cx={middle(cols[station])}
              cy={HEIGHT - 14}
              r={Math.max(1, 12 * Math.sqrt(w / most))}
              fill="var(--ember)"
              opacity="0.8"
            />
          ),
      )}
    </svg>
  );
}

function MiniRail({
  rail,
  summary: { neededV, windowV },
  cols,
  y,
  shortfall,
}: {
  rail: RailSummary;
  summary: Summary;
  cols: Columns;
  y: (v: number) => number;
  shortfall: string;
}) {
  const lines = Object.fromEntries(
    BANDS.map((b) => {
      const wave = wavePoints(rail.waves[b], cols.reservoir);
      const start: Point = [0, rail.levels[b].openPeakV];
      return [
        b,
        {
          path: [start, ...steps(rail.levels[b], cols, wave[0]![1]), ...wave],
          wave,
          output: followPoints(rail.outputs[b], rail.waves[b], cols.reservoir),
        },
      ];
    }),
  ) as Record<(typeof BANDS)[number], { path: Point[]; wave: Point[]; output: Point[] }>;
  const { nominal } = rail.levels;
  const outV = nominal.outputMaxV;
  const firm = { fill: 'none', stroke: 'var(--volt)', strokeWidth: 2.2, strokeLinejoin: 'round' } as const;
  return (
    <>
      <rect
        x={cols.load[0]}
        width={cols.load[1] - cols.load[0]}
        y={Math.min(y(windowV[0]), y(windowV[1]))}
        height={Math.max(1.5, Math.abs(y(windowV[0]) - y(windowV[1])))}
        fill="var(--volt-soft)"
      />
      <path d={bandOf(lines.high.path, lines.low.path, y)} fill="var(--volt-soft)" />
      {neededV !== null && (
        <>
          <path d={shortfallArea(lines.low.wave, neededV, y)} fill={shortfall} />
          <path
            d={`M${cols.reservoir[0]} ${y(neededV)}H${cols.regulator[1]}`}
            stroke="var(--ember)"
            strokeWidth="1.3"
            strokeDasharray="5 3"
          />
        </>
      )}
      <path d={pathOf(lines.low.path, y)} fill="none" stroke="var(--volt)" strokeDasharray="4 3" />
      <path d={pathOf(lines.high.path, y)} fill="none" stroke="var(--volt)" opacity="0.6" />
      <path d={pathOf(lines.nominal.path, y)} {...firm} />
      {neededV !== null ? (
        <path d={pathOf([...lines.low.output, [cols.load[1], outV]], y)} {...firm} />
      ) : (
        <path
          d={`M${cols.reservoir[1]} ${y(lines.nominal.wave.at(-1)![1])}L${cols.regulator[1]} ${y((nominal.outputMinV + outV) / 2)}H${WIDTH}`}
          {...firm}
        />
      )}
    </>
  );
}
