import type { Design } from '@/core/design/design';
import { mainModel, outputModel, outputsOf, windowOf } from '@/core/design/outputs';
import { arrangementFacts, dcSourceOf } from '@/core/design/source';
import { bankRatedV } from '@/core/design/bank';
import dynamic from 'next/dynamic';
import type { ReactNode } from 'react';
import { orSay } from '@/ui/loading';
import { BANDS, type Band, type Picture } from '@/core/picture/picture';
import type { StationId } from '@/core/judge/verdict';
import { formatNominal, formatQuantity } from '@/core/quantity/format';
import { onRail } from '@/core/study/point';
import { archPoints, flatPoints, bandOf, pathOf, shortfallArea, type Columns } from '@/core/picture/terrace-geometry';
import { Daylight } from './daylight';
import type { RailScene } from './rail-scene';
import { Tag } from './tag';

/** Few regulators have one. */
const LimitCurve = dynamic(
  orSay(() => import('./limit-curve').then((m) => m.LimitCurve)),
  { ssr: false },
);

interface Props {
  picture: Picture;
  rail: number;
  scene: RailScene;
  cols: Columns;
  band: Band;
  /** Height of a voltage, in magnitudes: the negative rail's own mirrored scale. */
  y(v: number): number;
  /** True for the rail drawn below zero. */
  mirrored: boolean;
  /** Highest voltage the scale has room for. */
  topV: number;
  opens(station: StationId, figure: string): () => void;
}

/** Letters of an output's name that have room on the drawing; the whole name stands in its title. */
const NAME_LETTERS = 18;
const shortened = (name: string) => (name.length > NAME_LETTERS ? `${name.slice(0, NAME_LETTERS - 1)}…` : name);

/** The further outputs that hang on a rail. */
const furtherOn = (design: Design, rail: number) => outputsOf(design).filter((o) => o.place >= 0 && o.rail === rail);

/** One rail of the terrace, from the winding's peak to the load; the negative one is the same drawing upside down. */
export function RailDrawing({ picture, rail, scene, cols, band, y, mirrored, topV, opens }: Props) {
  const { design } = picture;
  const { low, nominal, high } = scene;
  const front = scene[band];
  const point = onRail(picture.points[band], rail);
  const idleV = onRail(picture.points.idle, rail).reservoir.maxV;
  const needed = picture.neededV;
  const regulated = needed !== null;
  const outV = point.outputMeanV;
  const sign = mirrored ? '−' : '';
  const { lowV, highV } = windowOf(design.demand);
  const windowV = [lowV, highV] as const;
  const lowPoint = onRail(picture.points.low, rail);
  const headroomV = lowPoint.headroomV;
  const short = headroomV !== null && headroomV < 0;
  const last = cols.after ?? cols.reservoir;
  const middle = ([a, b]: [number, number]) => (a + b) / 2;
  const between = (a: number, b: number) =>
    Math.abs(y(a) - y(b)) < 16 ? Math.min(y(a), y(b)) - 7 : (y(a) + y(b)) / 2 + 4;
  /** Words this far beyond a level, away from zero. */
  const beyond = (v: number, px: number) => (mirrored ? y(v) + px + 8 : y(v) - px);
  // A doubler's two cans share what stands at its node.
  const canV = bankRatedV(design.reservoir) * arrangementFacts(design).railPerCan;
  const arch = dcSourceOf(design) ? flatPoints : archPoints;
  const takes = (above: number, below: number) =>
    `${above >= below ? '−' : '+'}${formatQuantity(Math.abs(above - below), 'V')}`;

  const further = furtherOn(design, rail);

  return (
    <g>
      <Slab x={cols.load} y={y} from={windowV[0]} to={windowV[1]} least={2} fill="var(--volt-soft)" />
      <path
        d={`M${cols.load[0]} ${y(windowV[1])}H${cols.load[1]}M${cols.load[0]} ${y(windowV[0])}H${cols.load[1]}`}
        stroke="var(--volt)"
        strokeWidth="1"
        strokeDasharray="2 3"
      />

      {/* What the regulator burns: from its mean input down to the output */}
      {regulated && point.rail.meanV > outV && (
        <Slab x={cols.regulator} y={y} from={outV} to={point.rail.meanV} fill="url(#burn)" />
      )}

      {/* The source: an arch of the mains as the winding sees it, or direct volts */}
      <path
        d={bandOf(arch(high.levels.openPeakV, cols.mains), arch(low.levels.openPeakV, cols.mains), y)}
        fill="var(--volt-soft)"
      />
      {(['low', 'high', 'nominal'] as const).map((b) => (
        <path key={b} d={pathOf(arch(scene[b].levels.openPeakV, cols.mains), y)} {...lineStyle(b, band)} />
      ))}

      {/* From the winding to where the load hangs */}
      <path d={bandOf(high.path, low.path, y)} fill="var(--volt-soft)" />
      {needed !== null && (
        <path d={shortfallArea(low.rail, needed, y)} fill="url(#short-hatch)" data-testid="shortfall" />
      )}
      {BANDS.map((b) => (
        <path key={b} d={pathOf(scene[b].path, y)} {...lineStyle(b, band)} data-band={mirrored ? undefined : b} />
      ))}

      {/* The dropout line runs on through the regulator, so that wave and sag can be compared */}
      {needed !== null && (
        <g>
          <path
            d={`M${last[0]} ${y(needed)}H${cols.regulator[1]}`}
            stroke="var(--ember)"
            strokeWidth="1.5"
            strokeDasharray="7 4"
          />
          <Tag
            x={last[0] + 5}
            y={y(needed) + (short !== mirrored ? 15 : -6)}
            colour="var(--ember)"
          >{`needs ${sign}${formatNominal(needed, 'V')}`}</Tag>
        </g>
      )}

      {/* Output, with its sags under the valleys that cause them */}
      {regulated ? (
        <g>
          <path d={pathOf(low.output, y)} fill="none" stroke="var(--volt)" strokeWidth="1.4" strokeDasharray="5 4" />
          <path
            d={pathOf([...front.output, [last[1], outV], [cols.load[1], outV]], y)}
            fill="none"
            stroke="var(--volt)"
            strokeWidth="2.6"
            strokeLinejoin="round"
          />
        </g>
      ) : (
        <g>
          <path
            d={bandOf(
              [
                [last[1], high.rail.at(-1)![1]],
                [cols.regulator[1], high.levels.outputMaxV],
                [cols.load[1], high.levels.outputMaxV],
              ],
              [
                [last[1], low.rail.at(-1)![1]],
                [cols.regulator[1], low.levels.outputMinV],
                [cols.load[1], low.levels.outputMinV],
              ],
              y,
            )}
            fill="var(--volt-soft)"
          />
          <path
            d={`M${last[1]} ${y(front.rail.at(-1)![1])}L${cols.regulator[1]} ${y(outV)}H${cols.load[1]}`}
            fill="none"
            stroke="var(--volt)"
            strokeWidth="2.6"
            strokeLinejoin="round"
          />
        </g>
      )}

      {/* What a pre-regulator holds: the first of two steps down */}
      {point.ahead && (
        <g>
          <path
            d={`M${last[1]} ${y(point.ahead.holdsV)}H${middle(cols.regulator)}`}
            stroke="var(--volt)"
            strokeWidth="2.2"
          />
          <path
            d={`M${middle(cols.regulator)} ${y(point.ahead.holdsV)}V${y(outV)}`}
            stroke="var(--volt)"
            strokeWidth="1.2"
            strokeDasharray="2 3"
          />
          <Tag x={middle(cols.regulator) + 4} y={y((point.ahead.holdsV + outV) / 2) + 4} colour="var(--volt)">
            {`${sign}${formatQuantity(point.ahead.holdsV, 'V')} ahead`}
          </Tag>
        </g>
      )}

      {/* Further regulators on the same reservoir, each a step of its own */}
      {further.map((output, n) => {
        const o = point.outputs[output.place]!;
        const low = picture.points.low.outputs[output.place]!;
        const limitC = outputModel(output)?.pass.junctionMaxC ?? Infinity;
        const over = (low.headroomV ?? 0) < 0 || (o.heat !== null && o.heat.junctionC > limitC);
        const told =
          low.headroomV === null
            ? `${formatQuantity(low.outputMinV, 'V')} at least`
            : `${formatQuantity(low.headroomV, 'V')} clear, ${formatQuantity(o.regulatorW, 'W')}${o.heat ? `, ${formatQuantity(o.heat.junctionC, '°C')}` : ''}`;
        return (
          <g key={output.id} data-testid="further-output">
            <path
              d={`M${cols.regulator[0]} ${y(point.rail.meanV)}H${cols.regulator[0] + 6 + 7 * n}V${y(o.outputMeanV)}H${cols.load[1]}`}
              fill="none"
              stroke="var(--volt)"
              strokeWidth="2"
            />
            <Tag
              x={cols.load[1] - 4}
              anchor="end"
              y={y(o.outputMeanV) - 5}
              colour={over ? 'var(--fail)' : 'var(--ink)'}
              onOpen={opens('regulator', 'verdict:headroom')}
            >
              {`${shortened(output.name)}: ${told}`}
              {output.name !== shortened(output.name) && <title>{`${output.name}: ${told}`}</title>}
            </Tag>
          </g>
        );
      })}

      {/* What it does beyond its load: limit, fold back, short */}
      {regulated && !mirrored && (
        <LimitCurve
          model={mainModel(design)!}
          x={cols.load}
          y={y}
          outputV={outV}
          railV={point.rail.meanV}
          loadA={point.outputMeanA}
          crowded={picture.lowest !== null}
          onOpen={opens('regulator', 'verdict:short-circuit')}
        />
      )}

      {/* What the knob can be turned down to, and what it burns there */}
      {picture.lowest && !mirrored && (
        <g>
          <path
            d={`M${cols.load[0] + 9} ${y(outV)}V${y(picture.lowest.outputV)}`}
            stroke="var(--volt)"
            strokeWidth="5"
            opacity="0.35"
          />
          <circle cx={cols.load[0] + 9} cy={y(picture.lowest.outputV)} r="7" fill="var(--ember)" />
          <Tag
            x={cols.load[0] + 18}
            y={y(picture.lowest.outputV) - 20}
            colour="var(--ink)"
            onOpen={opens('regulator', 'verdict:junction')}
          >{`to ${formatQuantity(picture.lowest.outputV, 'V')}:`}</Tag>
          <Tag
            x={cols.load[0] + 18}
            y={y(picture.lowest.outputV) - 4}
            colour="var(--ember)"
            onOpen={opens('regulator', 'verdict:junction')}
          >{`${formatQuantity(picture.lowest.regulatorW, 'W')}, ${formatQuantity(picture.lowest.junctionC, '°C')}`}</Tag>
        </g>
      )}

      {/* Ceilings: what the can stands, and where the reservoir idles */}
      {design.reservoir.capacitanceF > 0 && (
        <g>
          {canV <= topV && (
            <>
              <path
                d={`M${cols.reservoir[0]} ${y(canV)}H${cols.reservoir[1]}`}
                stroke={idleV > canV ? 'var(--fail)' : 'var(--edge)'}
                strokeWidth="2"
              />
              {!mirrored && (
                <Tag x={cols.reservoir[0] + 4} y={y(canV) + 14} colour="var(--quiet)">
                  {`${arrangementFacts(design).ownCans ? 'all cans' : 'can'} ${formatNominal(canV, 'V')}`}
                </Tag>
              )}
            </>
          )}
          <path
            d={`M${cols.reservoir[1] - 34} ${y(idleV)}H${cols.reservoir[1]}`}
            stroke="var(--volt)"
            strokeWidth="2.4"
          />
          <Tag
            x={cols.reservoir[1] - 38}
            y={y(idleV) + 4}
            anchor="end"
            colour="var(--quiet)"
            onOpen={opens('reservoir', 'reservoir-idle')}
          >{`idles at ${sign}${formatQuantity(idleV, 'V')}`}</Tag>
        </g>
      )}

      {/* What each step takes, in the band in front */}
      {!mirrored && (
        <g>
          <Tag
            x={middle(cols.winding) + 5}
            y={between(front.levels.openPeakV, front.levels.terminalPeakV)}
            colour="var(--ink)"
            onOpen={opens('winding', 'winding-ohm')}
          >
            {takes(front.levels.openPeakV, front.levels.terminalPeakV)}
          </Tag>
          <Tag
            x={middle(cols.rectifier) + 5}
            y={between(front.levels.terminalPeakV, cols.before ? front.levels.inputMaxV : front.levels.reservoirMaxV)}
            colour="var(--ink)"
            onOpen={opens('rectifier', 'diode-drop')}
          >
            {takes(front.levels.terminalPeakV, cols.before ? front.levels.inputMaxV : front.levels.reservoirMaxV)}
          </Tag>
        </g>
      )}

      {/* Daylight: the number the whole drawing is about */}
      {headroomV !== null && (
        <Daylight
          x={cols.regulator[0] + 14}
          valleyV={lowPoint.rail.minV}
          headroomV={headroomV}
          y={y}
          mirrored={mirrored}
          onOpen={opens('regulator', 'verdict:headroom')}
        />
      )}
      <Tag
        x={middle(cols.load)}
        y={beyond(Math.max(outV, windowV[1], nominal.levels.outputMaxV), 12)}
        anchor="middle"
        colour="var(--volt)"
        size={24}
        bold
        onOpen={opens('load', 'output-mean')}
      >
        {`${sign}${formatQuantity(outV, 'V')}`}
      </Tag>
    </g>
  );
}

function Slab({
  x,
  y,
  from,
  to,
  fill,
  least = 0,
}: {
  x: [number, number];
  y(v: number): number;
  from: number;
  to: number;
  fill: string;
  least?: number;
}): ReactNode {
  return (
    <rect
      x={x[0]}
      width={x[1] - x[0]}
      y={Math.min(y(from), y(to))}
      height={Math.max(least, Math.abs(y(to) - y(from)))}
      fill={fill}
    />
  );
}

function lineStyle(line: Band, front: Band) {
  const ahead = line === front;
  return {
    fill: 'none',
    stroke: 'var(--volt)',
    strokeLinejoin: 'round' as const,
    strokeWidth: ahead ? 2.6 : 1.3,
    opacity: ahead ? 1 : 0.75,
    ...(line === 'low' ? { strokeDasharray: ahead ? '8 4' : '5 4' } : {}),
  };
}
