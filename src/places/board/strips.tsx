'use client';

import { Download } from 'lucide-react';
import { useMemo, useState } from 'react';
import { stripDrawing } from '@/core/board/strip-drawing';
import { STRIP_A, STRIP_V } from '@/core/board/strip-loads';
import { holeName, stripCsv } from '@/core/board/strip-names';
import type { OnStrips, Stripboard } from '@/core/board/on-strips';
import { outlineMm } from '@/core/board/stripboard';
import { stripSvg } from '@/core/board/strip-svg';
import type { StripPlace } from '@/core/design/design';
import { Alert } from '@/ui/alert';
import { download, fileName, save } from '@/ui/download';
import { QuantityField } from '@/ui/quantity-field';
import { Segments } from '@/ui/segments';
import { useHazardousNets } from '@/ui/use-hazardous-nets';
import type { BoardReport } from '@/core/board/board-report';
import type { BoardProps } from './board-props';
import { Sizes } from './sizes';
import { NetButtons } from './net-buttons';
import type { Hand } from './part-handle';
import { StripFigure } from './strip-figure';

type Side = 'parts' | 'copper';
const SIDES: readonly { value: Side; label: string }[] = [
  { value: 'parts', label: 'Parts' },
  { value: 'copper', label: 'Copper' },
];

/** A board of strips: what goes in which hole, where strips are cut, and what links them. */
export function Strips({
  report: { board, faults, loads, volts },
  name: title,
  choice,
  onChange,
  number,
  lit,
  onLight,
  stale,
}: BoardProps & { report: Extract<BoardReport, { kind: 'strips' }> }) {
  const [side, setSide] = useState<Side>('parts');
  const [selected, setSelected] = useState<string | null>(null);
  const [moving, setMoving] = useState<{ key: string; strips: number; holes: number } | null>(null);
  const hazardous = useHazardousNets();
  // What was put somewhere is there at once; links and cuts follow.
  const asked = (p: OnStrips) => (stale ? choice.strips.find((s) => s.part === p.key) : undefined) ?? placeOf(p);
  const shown = !stale && !moving ? board : shifted(board, asked, moving);
  const drawing = stripDrawing(shown);
  const nets = useMemo(() => [...new Set(board.parts.flatMap((p) => p.legs.map((l) => l.net)))], [board]);
  const outline = outlineMm(board);
  const name = fileName(title);
  const sound = faults.apart.length === 0 && faults.touching.length === 0;
  const part = board.parts.find((p) => p.key === selected) ?? null;
  const partOf = (key: string) => board.parts.find((p) => p.key === key)!;
  const by = (p: StripPlace, strips: number, holes: number) => ({ strip: p.strip + strips, hole: p.hole + holes });
  const move = (key: string, to: Pick<StripPlace, 'strip' | 'hole'>) => {
    setMoving(null);
    // What is moved gives way to what lies: it comes last.
    const places = board.parts.map(asked);
    const mine = places.find((p) => p.part === key)!;
    onChange({
      strips: [...places.filter((p) => p !== mine), { ...mine, strip: within(to.strip), hole: within(to.hole) }],
    });
  };
  const turn = (p: OnStrips) => {
    const place = asked(p);
    const places = board.parts.map(asked).filter((o) => o.part !== p.key);
    onChange({ strips: [...places, { ...place, strip: place.strip + place.down, down: -place.down }] });
  };
  const hand: Hand = {
    selected,
    onSelect: setSelected,
    onMoving: (key, holes, strips) => setMoving({ key, strips, holes }),
    onMove: (key, holes, strips) => move(key, by(placeOf(partOf(key)), strips, holes)),
    onNudge: (key, holes, strips) => move(key, by(asked(partOf(key)), strips, holes)),
    onRest: () => setMoving(null),
    onTurn: (key) => turn(partOf(key)),
  };
  const pdf = async () => {
    const { stripPdf } = await import('@/core/board/strip-pdf');
    save(`${name}-board.pdf`, new Blob([(await stripPdf(board, title)).slice().buffer], { type: 'application/pdf' }));
  };
  return (
    <>
      <div className="flex flex-wrap items-end gap-x-3 gap-y-2">
        <p className="mr-auto max-w-[760px] text-[15px]">
          Strips run from left to right, holes 2.54 mm apart. Mains stays off it; so does what stands in a panel, in a
          clamp or on the floor: its wires end at the dots.
        </p>
        <Segments label="Side" value={side} options={SIDES} onChange={(v) => setSide(v)} />
        <button type="button" className="btn" onClick={() => void pdf()}>
          <Download size={15} /> PDF, 1 : 1
        </button>
        <button
          type="button"
          className="btn"
          onClick={() =>
            download(`${name}-board-${side}.svg`, stripSvg(board, title, side === 'copper'), 'image/svg+xml')
          }
        >
          <Download size={15} /> SVG
        </button>
        <button
          type="button"
          className="btn"
          onClick={() => download(`${name}-board.csv`, stripCsv(board), 'text/csv')}
        >
          <Download size={15} /> CSV
        </button>
      </div>
      {volts.value > STRIP_V && (
        <Alert className="mt-2">
          {number(volts)} between two nets are more than the {STRIP_V} V strips beside each other stand: leave a free
          strip on both sides of each that carries them, cut away, or take a board made for it.
        </Alert>
      )}
      <div className="mt-3 grid grid-cols-[minmax(0,1fr)] gap-x-6 gap-y-4 min-[1100px]:grid-cols-[minmax(0,1fr)_320px]">
        <div className="min-w-0">
          <StripFigure
            drawing={drawing}
            board={shown}
            copperSide={side === 'copper'}
            net={lit}
            hazardous={hazardous}
            hand={hand}
          />
          <Sizes>{outline && `${outline.wMm} × ${outline.dMm} mm. `}Links drawn broken are insulated. </Sizes>
        </div>
        <aside aria-label="What is done to it" className="min-w-0 space-y-4 text-[14.5px]">
          {part && (
            <section aria-label={`Part ${part.ref}`} className="border-l-2 border-volt pl-3">
              <h2 className="text-[15px] font-semibold">
                {part.ref} in {part.legs.map((l) => holeName(l.at)).join(', ')}
              </h2>
              <div className="mt-1 grid grid-cols-2 gap-2">
                <QuantityField
                  path="board.hole"
                  label="Strip, A is 1"
                  value={placeOf(part).strip + 1}
                  step={(v, d) => v + d}
                  onCommit={(v) => move(part.key, { ...placeOf(part), strip: v! - 1 })}
                />
                <QuantityField
                  path="board.hole"
                  label="Hole"
                  value={placeOf(part).hole + 1}
                  step={(v, d) => v + d}
                  onCommit={(v) => move(part.key, { ...placeOf(part), hole: v! - 1 })}
                />
              </div>
              {part.legs.length > 1 && (
                <button type="button" className="btn mt-1.5" onClick={() => turn(part)}>
                  Turn
                </button>
              )}
            </section>
          )}
          {choice.strips.length > 0 && (
            <button type="button" className="btn" onClick={() => onChange({ strips: [] })}>
              Lay everything out anew
            </button>
          )}
          <section aria-label="Checked">
            <h2 className="text-[15px] font-semibold">
              {sound ? `All ${nets.length} nets are one piece each, and none touch` : '✕ The copper is not the circuit'}
            </h2>
            <p className="text-quiet">
              Found again from strips, cuts and links alone.
              {!sound && ` Apart: ${faults.apart.join(', ') || 'none'}.`}
              {faults.touching.length > 0 && ` Touching: ${faults.touching.map((t) => t.join(' and ')).join('; ')}.`}
            </p>
          </section>
          <NetButtons nets={nets} lit={lit} hazardous={hazardous} onLight={onLight} />
          {loads.length > 0 && (
            <section aria-label="Currents">
              <h2 className="text-[15px] font-semibold text-tight">More than a strip carries ({STRIP_A} A)</h2>
              <ul>
                {loads.map((l) => (
                  <li key={l.net} className="border-t border-rule/60 py-1">
                    {l.net}: {number(l.flows)} RMS. Lay {number(l.wire, `${l.wire.value} mm²`)} of bare wire along it.
                  </li>
                ))}
              </ul>
            </section>
          )}
          <section aria-label="Cuts">
            <h2 className="text-[15px] font-semibold">
              {board.cuts.length === 0
                ? 'No strip is cut'
                : `${board.cuts.length} ${board.cuts.length === 1 ? 'cut' : 'cuts'}`}
            </h2>
            <p>{board.cuts.map(holeName).join(', ')}</p>
          </section>
          <section aria-label="Links">
            <h2 className="text-[15px] font-semibold">
              {board.links.length === 0
                ? 'No links'
                : `${board.links.length} ${board.links.length === 1 ? 'link' : 'links'}`}
            </h2>
            <ul>
              {board.links.map((l) => (
                <li key={holeName(l.from)} className="flex gap-2 border-t border-rule/60 py-1">
                  <span className="w-[90px] font-semibold tabular-nums">
                    {holeName(l.from)} – {holeName(l.to)}
                  </span>
                  <span>
                    {l.net}
                    {l.insulated && <span className="text-tight">, insulated</span>}
                  </span>
                </li>
              ))}
            </ul>
          </section>
        </aside>
      </div>
    </>
  );
}

const LAST_HOLE = 200;
const within = (n: number) => Math.min(LAST_HOLE, Math.max(0, Math.round(n)));

const placeOf = ({ key, legs }: OnStrips): StripPlace => {
  const [first, last] = [legs[0]!.at, legs.at(-1)!.at];
  return { part: key, strip: first.strip, hole: first.hole, down: last.strip - first.strip };
};

/** The board with its parts where they were asked to be, one of them in the hand. */
const shifted = (
  board: Stripboard,
  asked: (p: OnStrips) => StripPlace,
  moving: { key: string; strips: number; holes: number } | null,
): Stripboard => ({
  ...board,
  parts: board.parts.map((p) => {
    const [lies, wanted] = [placeOf(p), asked(p)];
    const hand = moving?.key === p.key ? moving : { strips: 0, holes: 0 };
    const strips = wanted.strip - lies.strip + hand.strips;
    const holes = wanted.hole - lies.hole + hand.holes;
    return {
      ...p,
      legs: p.legs.map((l) => ({ ...l, at: { strip: l.at.strip + strips, hole: l.at.hole + holes } })),
      body: {
        strips: p.body.strips.map((n) => n + strips) as [number, number],
        holes: p.body.holes.map((n) => n + holes) as [number, number],
      },
    };
  }),
});
