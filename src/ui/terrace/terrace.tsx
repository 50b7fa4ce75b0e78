'use client';

import { arrangementFacts } from '@/core/design/source';
import { windowOf } from '@/core/design/outputs';
import { bankRatedV } from '@/core/design/bank';
import dynamic from 'next/dynamic';
import { useLayoutEffect, useMemo, useRef, useState } from 'react';
import { mainsVolts } from '@/core/circuit/feed';
import type { Band, Picture } from '@/core/picture/picture';
import type { StationId } from '@/core/judge/verdict';
import { formatNominal, formatQuantity } from '@/core/quantity/format';
import { orSay } from '@/ui/loading';
import { useSession, useView } from '@/ui/session';
import { axisTicks, columns, lensAxis, voltAxis, type VoltAxis } from '@/core/picture/terrace-geometry';
import { Embers } from './embers';
import { RailDrawing } from './rail-drawing';
import { placedAt } from './label-boxes';
import { lensOf } from './lens';
import { railScene } from './rail-scene';
import { settleLabels } from './settle-labels';
import { StationHead } from './station-head';
import { Tag } from './tag';
import { terraceInWords } from './terrace-in-words';

const Grips = dynamic(
  orSay(() => import('./grips').then((m) => m.Grips)),
  { ssr: false },
);

const HEAD_PX = 62;
const EMBERS_PX = 84;
const AXIS_PX = 46;
/** Below this width the drawing scrolls sideways inside its frame: its stations stay legible. */
const LEAST_PX = 700;

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
      className="relative h-full min-h-0 w-full min-w-0 overflow-x-auto overflow-y-hidden"
      data-testid="terrace"
      data-stale={stale}
    >
      {size && size.height > 200 && (
        <div className="relative" style={{ width: Math.max(size.width, LEAST_PX), height: size.height }}>
          <Drawing picture={picture} band={band} width={Math.max(size.width, LEAST_PX)} height={size.height} />
        </div>
      )}
    </div>
  );
}

function Drawing({ picture, band, width, height }: { picture: Picture; band: Band; width: number; height: number }) {
  const { view } = useSession();
  const { design } = picture;
  const lens = useView((s) => s.lens);
  const regulated = design.regulator.kind !== 'none';
  const before = design.filter.before.length > 0 && !arrangementFacts(design).ownCans;
  const after = design.filter.after.length > 0;
  const plotBottom = height - EMBERS_PX;
  const { cols, axis, rails } = useMemo(() => {
    const cols = columns(AXIS_PX, width - 4, { regulated, before, after });
    const rails = picture.points.nominal.rails.map((_, r) => railScene(picture, r, cols));
    const split = rails.length === 2;
    const { lowV, highV } = windowOf(design.demand);
    const lines = rails.map((r) => r.low);
    const lowest = Math.min(
      lowV,
      ...lines.flatMap((l) => [l.levels.reservoirMinV, l.levels.outputMinV]),
      ...picture.points.low.outputs.map((o) => o.outputMinV),
    );
    const peak = Math.max(...rails.map((r) => Math.max(r.high.levels.openPeakV, r.high.levels.reservoirMaxV)));
    const canV = bankRatedV(design.reservoir) * arrangementFacts(design).railPerCan;
    const ceiling = design.reservoir.capacitanceF > 0 && canV < 1.22 * peak ? canV : 0;
    const top = HEAD_PX + 14;
    const bottom = plotBottom - 8;
    const magnified = lens ? lensOf(picture) : null;
    const axis = magnified
      ? lensAxis(magnified, top, split ? (top + bottom) / 2 : bottom, split ? 14 : 26)
      : voltAxis(
          Math.max(0, lowest),
          Math.max(peak, ceiling, highV) * 1.02,
          top,
          split ? (top + bottom) / 2 : bottom,
          split ? 14 : 26,
        );
    return { cols, axis, rails };
  }, [picture, width, plotBottom, regulated, before, after, design, lens]);

  // No label lies on another, whatever the design: the lesser ones give way once their sizes are known.
  const svg = useRef<SVGSVGElement>(null);
  const drawn = useRef(false);
  useLayoutEffect(() => {
    const settle = () => settleTags(svg.current!, plotBottom);
    if (drawn.current) return settle();
    // The first time all that is new has to be laid out for it: in the frame that shows it, not in the work that drew it.
    drawn.current = true;
    const frame = requestAnimationFrame(settle);
    return () => cancelAnimationFrame(frame);
  }, [picture, band, axis, plotBottom, width]);

  const { y } = axis;
  const split = rails.length === 2;
  const zero = y(0);
  const below = (v: number) => 2 * zero - y(v);
  const opens = (s: StationId, figure: string) => () => view.setState({ station: s, opened: figure });
  const middle = ([a, b]: [number, number]) => (a + b) / 2;
  const stations = Object.entries(cols) as [StationId, [number, number]][];

  return (
    <>
      <svg
        ref={svg}
        width={width}
        height={height}
        role="img"
        aria-label={terraceInWords(picture)}
        className="block select-none"
      >
        <defs>
          <clipPath id="lens-edge">
            <rect x="0" y={HEAD_PX + 2} width={width} height={plotBottom - HEAD_PX - 4} />
          </clipPath>
          <pattern id="short-hatch" width="7" height="7" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
            <rect width="7" height="7" fill="var(--fail-soft)" />
            <path d="M0 0V7" stroke="var(--fail)" strokeWidth="2.6" />
          </pattern>
          <linearGradient id="burn" x1="0" y1="0" x2="0" y2="1">
            <stop offset="0" stopColor="var(--ember)" stopOpacity="0.05" />
            <stop offset="1" stopColor="var(--ember)" stopOpacity="0.4" />
          </linearGradient>
        </defs>

        <Axis axis={axis} width={width} split={split} />
        {stations.slice(1).map(([s, [x]]) => (
          <path
            key={s}
            d={`M${x} ${HEAD_PX + 2}V${plotBottom - 8}`}
            stroke="var(--rule)"
            strokeDasharray="1 5"
            strokeLinecap="round"
          />
        ))}

        <g clipPath={lens ? 'url(#lens-edge)' : undefined}>
          {rails.map((scene, r) => (
            <RailDrawing
              key={r}
              picture={picture}
              rail={r}
              scene={scene}
              cols={cols}
              band={band}
              y={r === 1 ? below : y}
              mirrored={r === 1}
              topV={axis.topV}
              opens={opens}
            />
          ))}
        </g>

        <Tag
          x={middle(cols.mains)}
          y={axis.foldV > 0 ? y(axis.foldV) - 10 : zero - 14}
          anchor="middle"
          colour="var(--ink)"
          size={15}
          bold
          onOpen={opens('mains', `mains-${band}`)}
        >
          {formatQuantity(mainsVolts(design, band), 'V')}
        </Tag>
        <Embers picture={picture} band={band} cols={cols} top={plotBottom + 2} height={EMBERS_PX - 4} onOpen={opens} />
      </svg>

      {stations.map(([s, [from, to]]) => (
        <StationHead
          key={s}
          station={s}
          picture={picture}
          band={band}
          at={{ left: from, width: to - from, height: HEAD_PX }}
        />
      ))}
      <Grips picture={picture} band={band} cols={cols} axis={axis} scene={rails[0]!} />
    </>
  );
}

/** Gridlines, the fold and zero; for a split supply on both sides of it. */
function Axis({ axis, width, split }: { axis: VoltAxis; width: number; split: boolean }) {
  const { y, foldV } = axis;
  const zero = y(0);
  const fold = `${'l4 -3l4 3'.repeat(Math.floor((width - AXIS_PX - 4) / 8))}`;
  const sides = split ? [1, -1] : [1];
  return (
    <g>
      {sides.map((side) =>
        axisTicks(axis)
          .filter((v) => v > 0)
          .map((v) => {
            const at = side > 0 ? y(v) : 2 * zero - y(v);
            return (
              <g key={side * v}>
                <path d={`M${AXIS_PX} ${at}H${width - 4}`} stroke="var(--rule)" strokeWidth="1" opacity="0.55" />
                <text x={AXIS_PX - 7} y={at + 4} textAnchor="end" fontSize="12.5" fill="var(--quiet)">
                  {`${side < 0 ? '−' : ''}${formatNominal(v, 'V')}`}
                </text>
              </g>
            );
          }),
      )}
      {foldV > 0 &&
        sides.map((side) => (
          <path
            key={side}
            d={`M${AXIS_PX} ${side > 0 ? y(foldV) + 7 : 2 * zero - y(foldV) - 4}${fold}`}
            fill="none"
            stroke="var(--edge)"
            strokeWidth="1"
            opacity="0.7"
            aria-hidden="true"
          />
        ))}
      <text x={AXIS_PX - 7} y={zero + 4} textAnchor="end" fontSize="12.5" fill="var(--quiet)">
        0 V
      </text>
      <path d={`M${AXIS_PX} ${zero}H${width - 4}`} stroke="var(--edge)" strokeWidth="1.5" />
    </g>
  );
}

/** Moves the tags of a drawing apart, between the stations' heads and the foot of the plot. */
function settleTags(svg: SVGSVGElement, plotBottom: number): void {
  const tags = [...svg.querySelectorAll<SVGTextElement>('[data-tag]')];
  settleLabels(tags.map(placedAt), HEAD_PX + 2, plotBottom + 2).forEach((dy, n) => {
    const moved = `translate(0 ${dy})`;
    if (moved !== tags[n]!.getAttribute('transform')) tags[n]!.setAttribute('transform', moved);
  });
}
