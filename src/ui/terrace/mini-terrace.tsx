import { BANDS, type Summary } from '@/core/judge/picture';
import { bandOf, columns, followPoints, pathOf, shortfallArea, steps, voltAxis, wavePoints } from './geometry';

const WIDTH = 320;
const HEIGHT = 172;

/** A design's terrace, small: the same steps and waves as on its Supply view, without words. */
export function MiniTerrace({ summary, id }: { summary: Summary; id: string }) {
  const regulated = summary.neededV !== null;
  const cols = columns(0, WIDTH, { regulated });
  const { low, high, nominal } = summary.levels;
  const lowest = Math.min(low.reservoirMinV, low.outputMinV, summary.windowV[0]);
  const { y } = voltAxis(Math.max(0, lowest), Math.max(high.openPeakV, summary.windowV[1]), 8, HEIGHT - 34, 12);
  const lines = Object.fromEntries(
    BANDS.map((b) => {
      const wave = wavePoints(summary.waves[b], cols.reservoir);
      return [
        b,
        {
          path: [
            [0, summary.levels[b].openPeakV] as [number, number],
            ...steps(summary.levels[b], cols, wave[0]![1]),
            ...wave,
          ],
          wave,
          output: followPoints(summary.outputs[b], summary.waves[b], cols.reservoir),
        },
      ];
    }),
  ) as Record<
    (typeof BANDS)[number],
    { path: [number, number][]; wave: [number, number][]; output: [number, number][] }
  >;
  const outV = nominal.outputMaxV;
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
      <rect
        x={cols.load[0]}
        width={cols.load[1] - cols.load[0]}
        y={y(summary.windowV[1])}
        height={Math.max(1.5, y(summary.windowV[0]) - y(summary.windowV[1]))}
        fill="var(--volt-soft)"
      />
      <path d={bandOf(lines.high.path, lines.low.path, y)} fill="var(--volt-soft)" />
      {summary.neededV !== null && (
        <>
          <path d={shortfallArea(lines.low.wave, summary.neededV, y)} fill={`url(#short-${id})`} />
          <path
            d={`M${cols.reservoir[0]} ${y(summary.neededV)}H${cols.regulator[1]}`}
            stroke="var(--ember)"
            strokeWidth="1.3"
            strokeDasharray="5 3"
          />
        </>
      )}
      <path d={pathOf(lines.low.path, y)} fill="none" stroke="var(--volt)" strokeDasharray="4 3" />
      <path d={pathOf(lines.high.path, y)} fill="none" stroke="var(--volt)" opacity="0.6" />
      <path
        d={pathOf(lines.nominal.path, y)}
        fill="none"
        stroke="var(--volt)"
        strokeWidth="2.2"
        strokeLinejoin="round"
      />
      {regulated ? (
        <path
          d={pathOf([...lines.low.output, [cols.load[1], outV]], y)}
          fill="none"
          stroke="var(--volt)"
          strokeWidth="2.2"
          strokeLinejoin="round"
        />
      ) : (
        <path
          d={`M${cols.reservoir[1]} ${y(lines.nominal.wave.at(-1)![1])}L${cols.regulator[1]} ${y((nominal.outputMinV + outV) / 2)}H${WIDTH}`}
          fill="none"
          stroke="var(--volt)"
          strokeWidth="2.2"
        />
      )}
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
