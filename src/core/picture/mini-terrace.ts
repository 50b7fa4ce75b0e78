import type { BANDS } from './picture';
import type { RailSummary, Summary } from './summary';
import {
  bandOf,
  columns,
  followPoints,
  pathOf,
  shortfallArea,
  steps,
  voltAxis,
  wavePoints,
  type Columns,
  type Point,
} from './terrace-geometry';

/** What a line or an area is drawn in; each medium has its own colours for them. */
export type Ink = 'volt' | 'volt-soft' | 'ember' | 'older' | 'edge' | 'shortfall';

/** A piece of a small terrace: one path. */
export interface Stroke {
  d: string;
  stroke?: Ink;
  fill?: Ink;
  width?: number;
  dash?: string;
  opacity?: number;
}

const WIDTH = 320;
const HEIGHT = 172;
/** Of the drawing, in its own units. */
export const MINI_SIZE = { width: WIDTH, height: HEIGHT } as const;
/** Where the embers lie. */
const FLOOR = HEIGHT - 34;
const FIRM = { stroke: 'volt', width: 2.2 } as const;

/**
 * A design's terrace, small: the same steps and waves as on its Supply view, without words.
 * @param older an earlier state of it, drawn thin over it to the same scale
 */
export function miniTerrace(summary: Summary, older: Summary | null = null): Stroke[] {
  const both = older ? [summary, older] : [summary];
  const rails = both.flatMap((s) => s.rails);
  const split = both.some((s) => s.rails.length > 1);
  const lowest = Math.min(...rails.map(({ levels: { low } }) => Math.min(low.reservoirMinV, low.outputMinV)));
  const highest = Math.max(...rails.map((r) => r.levels.high.openPeakV));
  const window = both.map((s) => s.windowV);
  const top = Math.max(highest, ...window.map(([, high]) => (split ? high : highest)));
  // Two rails share the height, mirrored about zero; one has it all, with what lies far below it folded away.
  const { y } = split
    ? voltAxis(0, top, 8, FLOOR / 2 + 4, 0)
    : voltAxis(Math.max(0, Math.min(lowest, ...window.map(([low]) => low))), top, 8, FLOOR, 12);
  const scaleOf = (rail: number) => (rail === 0 ? y : (v: number) => 2 * y(0) - y(v));
  const cols = (s: Summary) => columns(0, WIDTH, { regulated: s.neededV !== null });
  return [
    { d: `M0 ${y(0)}H${WIDTH}`, stroke: 'edge' },
    ...summary.rails.flatMap((rail, r) => railStrokes(rail, summary, cols(summary), scaleOf(r))),
    ...(older?.rails ?? []).flatMap((rail, r) =>
      nominalStrokes(rail, older!, cols(older!), scaleOf(r)).map((d): Stroke => ({
        d,
        stroke: 'older',
        width: 1.2,
        dash: '2 2',
      })),
    ),
    ...embers(summary, cols(summary)),
  ];
}

function embers({ watts }: Summary, cols: Columns): Stroke[] {
  const most = Math.max(watts.winding, watts.rectifier, watts.regulator, 1e-9);
  const at = (['winding', 'rectifier', 'regulator'] as const).filter((station) => watts[station] > 0);
  return at.map((station): Stroke => {
    const [left, right] = cols[station];
    const r = Math.max(1, 12 * Math.sqrt(watts[station] / most));
    return {
      d: `M${(left + right) / 2 - r} ${HEIGHT - 14}a${r} ${r} 0 1 0 ${2 * r} 0a${r} ${r} 0 1 0 ${-2 * r} 0`,
      fill: 'ember',
      opacity: 0.8,
    };
  });
}

/** The lines of one rail at a corner of the mains, from the open winding to what is left of it at the output. */
function linesOf(rail: RailSummary, band: (typeof BANDS)[number], cols: Columns) {
  const wave = wavePoints(rail.waves[band], cols.reservoir);
  const start: Point = [0, rail.levels[band].openPeakV];
  return {
    path: [start, ...steps(rail.levels[band], cols, wave[0]![1]), ...wave],
    wave,
    output: followPoints(rail.outputs[band], rail.waves[band], cols.reservoir),
  };
}

/** The nominal line of a rail and that of its output. */
function nominalStrokes(rail: RailSummary, { neededV }: Summary, cols: Columns, y: (v: number) => number): string[] {
  const nominal = linesOf(rail, 'nominal', cols);
  const { outputMinV, outputMaxV } = rail.levels.nominal;
  return [
    pathOf(nominal.path, y),
    neededV === null
      ? `M${cols.reservoir[1]} ${y(nominal.wave.at(-1)![1])}L${cols.regulator[1]} ${y((outputMinV + outputMaxV) / 2)}H${WIDTH}`
      : pathOf([...linesOf(rail, 'low', cols).output, [cols.load[1], outputMaxV]], y),
  ];
}

function railStrokes(rail: RailSummary, summary: Summary, cols: Columns, y: (v: number) => number): Stroke[] {
  const { neededV, windowV } = summary;
  const [low, high] = [linesOf(rail, 'low', cols), linesOf(rail, 'high', cols)];
  const [upper, lower] = [Math.min(y(windowV[0]), y(windowV[1])), Math.max(y(windowV[0]), y(windowV[1]))];
  const nominal = nominalStrokes(rail, summary, cols, y).map((d): Stroke => ({ d, ...FIRM }));
  return [
    {
      d: `M${cols.load[0]} ${upper}H${cols.load[1]}V${Math.max(lower, upper + 1.5)}H${cols.load[0]}Z`,
      fill: 'volt-soft',
    },
    { d: bandOf(high.path, low.path, y), fill: 'volt-soft' },
    ...(neededV === null
      ? []
      : ([
          { d: shortfallArea(low.wave, neededV, y), fill: 'shortfall' },
          {
            d: `M${cols.reservoir[0]} ${y(neededV)}H${cols.regulator[1]}`,
            stroke: 'ember',
            width: 1.3,
            dash: '5 3',
          },
        ] as const)),
    { d: pathOf(low.path, y), stroke: 'volt', dash: '4 3' },
    { d: pathOf(high.path, y), stroke: 'volt', opacity: 0.6 },
    ...nominal,
  ];
}
