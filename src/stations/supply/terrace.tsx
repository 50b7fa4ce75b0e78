'use client';

import { useLayoutEffect, useMemo, useRef, useState } from 'react';
import { mainsVolts } from '@/core/circuit/condition';
import { BANDS, levelsOf, type Band, type Picture } from '@/core/judge/picture';
import type { StationId } from '@/core/judge/verdict';
import { formatNominal, formatQuantity } from '@/core/quantity/format';
import {
  archPoints,
  axisTicks,
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
  type VoltAxis,
} from '@/ui/terrace-geometry';
import { useSession } from '@/ui/session';
import { Daylight } from './daylight';
import { Embers } from './embers';
import { Grip } from './grip';
import { dragEdits } from './drag-edits';
import { StationHead } from './station-head';
import { Tag } from './tag';
import { terraceInWords } from './terrace-in-words';

export const STATIONS: readonly StationId[] = ['mains', 'winding', 'rectifier', 'reservoir', 'regulator', 'load'];

const HEAD_PX = 62;
const EMBERS_PX = 84;
const AXIS_PX = 46;

interface Props {
  picture: Picture;
  band: Band;
  stale: boolean;
}

/** The terrace: every station at its true height on one volt axis, the three mains bands together. */
export function Terrace({ picture, band, stale }: Props) {
  const frame = useRef<HTMLDivElement>(null);
  const [size, setSize] = useState<{ width: number; height: number } | null>(null);
  useLayoutEffect(() => {
    const element = frame.current!;
    const observer = new ResizeObserver(([entry]) =>
      setSize({ width: entry!.contentRect.width, height: entry!.contentRect.height }),
    );
    observer.observe(element);
    return () => observer.disconnect();
  }, []);

  return (
    <div
      ref={frame}
      className="relative h-full min-h-0 w-full overflow-hidden"
      data-testid="terrace"
      data-stale={stale}
    >
      {size && size.height > 200 && <Drawing picture={picture} band={band} width={size.width} height={size.height} />}
    </div>
  );
}

interface Scene {
  cols: Columns;
  axis: VoltAxis;
  plotBottom: number;
  lines: Record<Band, { levels: ReturnType<typeof levelsOf>; descent: Point[]; wave: Point[]; output: Point[] }>;
}

function Drawing({ picture, band, width, height }: { picture: Picture; band: Band; width: number; height: number }) {
  const { view } = useSession();
  const { design } = picture;
  const regulated = design.regulator.kind === 'fixed';
  const scene = useMemo((): Scene => {
    const cols = columns(AXIS_PX, width - 4, regulated);
    const plotBottom = height - EMBERS_PX;
    const lines = Object.fromEntries(
      BANDS.map((b) => {
        const point = picture.points[b];
        const levels = levelsOf(point);
        const wave = wavePoints(point.wave.reservoirV, cols.reservoir);
        return [
          b,
          {
            levels,
            wave,
            descent: steps(levels, cols, wave[0]![1]),
            output: followPoints(point.wave.outputV, point.wave.reservoirV, cols.reservoir),
          },
        ];
      }),
    ) as Scene['lines'];
    const { tolerancePct, outputV } = design.demand;
    const lowest = Math.min(
      lines.low.levels.reservoirMinV,
      lines.low.levels.outputMinV,
      outputV * (1 - tolerancePct / 100),
    );
    const peak = lines.high.levels.openPeakV;
    const ceiling =
      design.reservoir.capacitanceF > 0 && design.reservoir.ratedV < 1.22 * peak ? design.reservoir.ratedV : 0;
    const axis = voltAxis(
      Math.max(0, lowest),
      Math.max(peak, ceiling, outputV * (1 + tolerancePct / 100)) * 1.02,
      HEAD_PX + 14,
      plotBottom - 8,
      26,
    );
    return { cols, axis, plotBottom, lines };
  }, [picture, width, height, regulated, design]);

  const { cols, axis, plotBottom, lines } = scene;
  const { y } = axis;
  const { low, nominal, high } = lines;
  const front = lines[band];
  const point = picture.points[band];
  const needed = picture.neededV;
  const reservoirFitted = design.reservoir.capacitanceF > 0;
  const idleV = picture.points.idle.solution.rail.maxV;
  const windowV = [
    design.demand.outputV * (1 - design.demand.tolerancePct / 100),
    design.demand.outputV * (1 + design.demand.tolerancePct / 100),
  ] as const;
  const middle = ([a, b]: [number, number]) => (a + b) / 2;
  const frontValley = front.wave.reduce((a, b) => (b[1] < a[1] ? b : a));
  const valleyV = low.levels.reservoirMinV;
  const short = needed !== null && valleyV < needed;
  const drags = dragEdits(design, picture, axis);
  const outV = point.outputMeanV;
  const archText = y(axis.foldV) - 10;
  const opens = (s: StationId, figure: string) => () => view.setState({ station: s, opened: figure });
  const upper = [...high.descent, ...high.wave];
  const lower = [...low.descent, ...low.wave];

  return (
    <>
      <svg width={width} height={height} role="img" aria-label={terraceInWords(picture)} className="block select-none">
        <defs>
          <pattern id="short-hatch" width="7" height="7" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
            <rect width="7" height="7" fill="var(--fail-soft)" />
            <path d="M0 0V7" stroke="var(--fail)" strokeWidth="2.6" />
          </pattern>
          <linearGradient id="burn" x1="0" y1="0" x2="0" y2="1">
            <stop offset="0" stopColor="var(--ember)" stopOpacity="0.05" />
            <stop offset="1" stopColor="var(--ember)" stopOpacity="0.4" />
          </linearGradient>
        </defs>

        {/* Axis and station boundaries */}
        {axisTicks(axis).map((v) => (
          <g key={v}>
            <path d={`M${AXIS_PX} ${y(v)}H${width - 4}`} stroke="var(--rule)" strokeWidth="1" opacity="0.55" />
            <text x={AXIS_PX - 7} y={y(v) + 4} textAnchor="end" fontSize="12.5" fill="var(--quiet)">
              {formatNominal(v, 'V')}
            </text>
          </g>
        ))}
        {axis.foldV > 0 && (
          <g aria-hidden="true">
            <path
              d={`M${AXIS_PX} ${y(axis.foldV) + 7}${'l4 -3l4 3'.repeat(Math.floor((width - AXIS_PX - 4) / 8))}`}
              fill="none"
              stroke="var(--edge)"
              strokeWidth="1"
              opacity="0.7"
            />
            <text x={AXIS_PX - 7} y={y(0) + 4} textAnchor="end" fontSize="12.5" fill="var(--quiet)">
              0 V
            </text>
          </g>
        )}
        {axis.foldV === 0 && (
          <text x={AXIS_PX - 7} y={y(0) + 4} textAnchor="end" fontSize="12.5" fill="var(--quiet)">
            0 V
          </text>
        )}
        <path d={`M${AXIS_PX} ${y(0)}H${width - 4}`} stroke="var(--edge)" strokeWidth="1.5" />
        {STATIONS.slice(1).map((s) => (
          <path
            key={s}
            d={`M${cols[s][0]} ${HEAD_PX + 2}V${plotBottom - 8}`}
            stroke="var(--rule)"
            strokeDasharray="1 5"
            strokeLinecap="round"
          />
        ))}

        {/* What the load allows */}
        <rect
          x={cols.load[0]}
          width={cols.load[1] - cols.load[0]}
          y={y(windowV[1])}
          height={Math.max(2, y(windowV[0]) - y(windowV[1]))}
          fill="var(--volt-soft)"
        />
        <path
          d={`M${cols.load[0]} ${y(windowV[1])}H${cols.load[1]}M${cols.load[0]} ${y(windowV[0])}H${cols.load[1]}`}
          stroke="var(--volt)"
          strokeWidth="1"
          strokeDasharray="2 3"
        />

        {/* What the regulator burns: from the reservoir's mean down to the output */}
        {regulated && point.solution.rail.meanV > outV && (
          <rect
            x={cols.regulator[0]}
            width={cols.regulator[1] - cols.regulator[0]}
            y={y(point.solution.rail.meanV)}
            height={y(outV) - y(point.solution.rail.meanV)}
            fill="url(#burn)"
          />
        )}

        {/* Mains arch */}
        <path
          d={bandOf(
            archPoints(high.levels.openPeakV, axis.foldV, cols.mains),
            archPoints(low.levels.openPeakV, axis.foldV, cols.mains),
            y,
          )}
          fill="var(--volt-soft)"
        />
        <path d={pathOf(archPoints(low.levels.openPeakV, axis.foldV, cols.mains), y)} {...lineStyle('low', band)} />
        <path d={pathOf(archPoints(high.levels.openPeakV, axis.foldV, cols.mains), y)} {...lineStyle('high', band)} />
        <path
          d={pathOf(archPoints(nominal.levels.openPeakV, axis.foldV, cols.mains), y)}
          {...lineStyle('nominal', band)}
        />

        {/* From the winding to the reservoir's end */}
        <path d={bandOf(upper, lower, y)} fill="var(--volt-soft)" />
        {needed !== null && (
          <path d={shortfallArea(low.wave, needed, y)} fill="url(#short-hatch)" data-testid="shortfall" />
        )}
        {BANDS.map((b) => (
          <path key={b} d={pathOf([...lines[b].descent, ...lines[b].wave], y)} {...lineStyle(b, band)} data-band={b} />
        ))}

        {/* The dropout line runs on through the regulator, so that wave and sag can be compared */}
        {needed !== null && (
          <g>
            <path
              d={`M${cols.reservoir[0]} ${y(needed)}H${cols.regulator[1]}`}
              stroke="var(--ember)"
              strokeWidth="1.5"
              strokeDasharray="7 4"
            />
            <Tag
              x={cols.regulator[1] - 5}
              y={y(needed) + (short ? -6 : 15)}
              anchor="end"
              colour="var(--ember)"
            >{`needs ${formatNominal(needed, 'V')}`}</Tag>
          </g>
        )}

        {/* Output, with its sags under the valleys that cause them */}
        {regulated && (
          <g>
            <path d={pathOf(low.output, y)} fill="none" stroke="var(--volt)" strokeWidth="1.4" strokeDasharray="5 4" />
            <path
              d={pathOf([...front.output, [cols.reservoir[1], outV], [cols.load[1], outV]], y)}
              fill="none"
              stroke="var(--volt)"
              strokeWidth="2.6"
              strokeLinejoin="round"
            />
          </g>
        )}
        {!regulated && (
          <g>
            <path
              d={bandOf(
                [
                  [cols.reservoir[1], high.wave.at(-1)![1]],
                  [cols.regulator[1], high.levels.outputMaxV],
                  [cols.load[1], high.levels.outputMaxV],
                ],
                [
                  [cols.reservoir[1], low.wave.at(-1)![1]],
                  [cols.regulator[1], low.levels.outputMinV],
                  [cols.load[1], low.levels.outputMinV],
                ],
                y,
              )}
              fill="var(--volt-soft)"
            />
            <path
              d={`M${cols.reservoir[1]} ${y(front.wave.at(-1)![1])}L${cols.regulator[1]} ${y(outV)}H${cols.load[1]}`}
              fill="none"
              stroke="var(--volt)"
              strokeWidth="2.6"
              strokeLinejoin="round"
            />
          </g>
        )}

        {/* Ceilings: what the can and the regulator stand, and where the reservoir idles */}
        {reservoirFitted && (
          <g>
            {design.reservoir.ratedV <= axis.topV && (
              <>
                <path
                  d={`M${cols.reservoir[0]} ${y(design.reservoir.ratedV)}H${cols.reservoir[1]}`}
                  stroke={idleV > design.reservoir.ratedV ? 'var(--fail)' : 'var(--edge)'}
                  strokeWidth="2"
                />
                <Tag
                  x={cols.reservoir[0] + 4}
                  y={y(design.reservoir.ratedV) + (y(design.reservoir.ratedV) > plotBottom - 60 ? -6 : 14)}
                  colour="var(--quiet)"
                >{`can ${formatNominal(design.reservoir.ratedV, 'V')}`}</Tag>
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
            >{`idles at ${formatQuantity(idleV, 'V')}`}</Tag>
          </g>
        )}

        {/* What each step takes, in the band in front */}
        <Tag
          x={middle(cols.winding) + 5}
          y={between(y, front.levels.openPeakV, front.levels.terminalPeakV)}
          colour="var(--ink)"
          onOpen={opens('winding', 'winding-ohm')}
        >{`−${formatQuantity(front.levels.openPeakV - front.levels.terminalPeakV, 'V', 2)}`}</Tag>
        <Tag
          x={middle(cols.rectifier) + 5}
          y={between(y, front.levels.terminalPeakV, front.levels.reservoirMaxV)}
          colour="var(--ink)"
          onOpen={opens('rectifier', 'diode-drop')}
        >{`−${formatQuantity(front.levels.terminalPeakV - front.levels.reservoirMaxV, 'V', 2)}`}</Tag>
        <Tag
          x={middle(cols.mains)}
          y={archText}
          anchor="middle"
          colour="var(--ink)"
          size={15}
          bold
          onOpen={opens('mains', `mains-${band}`)}
        >
          {formatQuantity(mainsVolts(design, band), 'V')}
        </Tag>

        {/* Daylight: the number the whole drawing is about */}
        {needed !== null && (
          <Daylight
            x={cols.regulator[0] + 14}
            valleyV={valleyV}
            neededV={needed}
            y={y}
            onOpen={opens('regulator', 'verdict:headroom')}
          />
        )}
        <Tag
          x={middle(cols.load)}
          y={y(Math.max(outV, windowV[1])) - 12}
          anchor="middle"
          colour="var(--volt)"
          size={24}
          bold
          onOpen={opens('load', 'output-mean')}
        >
          {formatQuantity(outV, 'V')}
        </Tag>

        <Embers picture={picture} band={band} cols={cols} top={plotBottom + 2} height={EMBERS_PX - 4} onOpen={opens} />
      </svg>

      {STATIONS.map((s) => (
        <StationHead
          key={s}
          station={s}
          picture={picture}
          band={band}
          left={cols[s][0]}
          width={cols[s][1] - cols[s][0]}
          height={HEAD_PX}
        />
      ))}
      <Grip
        x={cols.mains[0] + 0.5 * (cols.mains[1] - cols.mains[0])}
        y={y(high.levels.openPeakV)}
        label="Drag high line"
        edit={drags.high}
      />
      <Grip
        x={cols.mains[0] + 0.5 * (cols.mains[1] - cols.mains[0])}
        y={y(low.levels.openPeakV)}
        label="Drag low line"
        edit={drags.low}
      />
      <Grip x={cols.winding[0] + 12} y={y(nominal.levels.openPeakV)} label="Drag the winding" edit={drags.winding} />
      {reservoirFitted && (
        <Grip x={frontValley[0]} y={y(frontValley[1])} label="Drag the reservoir" edit={drags.reservoir} />
      )}
      {regulated && (
        <Grip
          x={cols.regulator[0] + 0.9 * (cols.regulator[1] - cols.regulator[0])}
          y={y(outV)}
          label="Drag the output"
          edit={drags.output}
        />
      )}
      <Grip x={cols.load[1] - 20} y={y(outV)} label="Drag the load" edit={drags.load} />
    </>
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

/** Beside the step, or above it where it is too low for its words. */
function between(y: (v: number) => number, a: number, b: number): number {
  return Math.abs(y(a) - y(b)) < 16 ? Math.min(y(a), y(b)) - 7 : (y(a) + y(b)) / 2 + 4;
}
