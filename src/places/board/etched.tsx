'use client';

import { useState } from 'react';
import { GRID_MM, MAINS_MM, POLES_MM, type EtchedBoard, type OnBoard, type Place } from '@/core/board/etched';
import { movedTo, onGrid, turnedMore } from '@/core/board/move-part';
import { fieldLimit } from '@/core/design/limits';
import { formatQuantity } from '@/core/quantity/format';
import { QuantityField } from '@/ui/quantity-field';
import { Segments } from '@/ui/segments';
import { useDesign } from '@/ui/session';
import { useHazardousNets } from '@/ui/use-hazardous-nets';
import type { BoardReport } from '@/core/board/board-report';
import type { BoardProps } from './board-props';
import { Sizes } from './sizes';
import { Checked } from './etched-checked';
import { EtchedFigure } from './etched-figure';
import { EtchedFiles } from './etched-files';
import { NetButtons } from './net-buttons';
import type { Hand } from './part-handle';
import { TrackTable } from './track-table';

type Side = 'parts' | 'copper';
const SIDES: readonly { value: Side; label: string }[] = [
  { value: 'parts', label: 'Parts' },
  { value: 'copper', label: 'Copper' },
];
const { min: LEAST_MM, max: MOST_MM } = fieldLimit('board.placeMm');
const within = (mm: number) => Math.min(MOST_MM, Math.max(LEAST_MM, mm));

/** A board with tracks: what stands where, how wide its copper is, and what was found of it. */
export function Etched({
  report,
  choice,
  onChange,
  number,
  lit,
  onLight,
  stale,
}: BoardProps & { report: Extract<BoardReport, { kind: 'etched' }> }) {
  const { board, loads } = report;
  const [side, setSide] = useState<Side>('parts');
  const [selected, setSelected] = useState<string | null>(null);
  const [moving, setMoving] = useState<{ key: string; place: Place } | null>(null);
  const hazardous = useHazardousNets();
  const { source, mainsSide } = useDesign();
  const fused = source.kind === 'mains' && mainsSide.primaryFuseA !== null;
  const placeOf = ({ xMm, yMm, turn }: OnBoard): Place => ({ xMm, yMm, turn });
  // What was put somewhere is there at once; its tracks follow.
  const asked = (p: OnBoard): Place => (stale ? choice.places.find((q) => q.part === p.key) : undefined) ?? placeOf(p);
  const wanted = (p: OnBoard) => (moving?.key === p.key ? moving.place : asked(p));
  const moved = board.parts.map((p) => movedTo(p, wanted(p)));
  const shown: EtchedBoard = { ...board, parts: moved };
  const loose = new Set(
    board.parts
      .filter((p, n) => p.xMm !== moved[n]!.xMm || p.yMm !== moved[n]!.yMm || p.turn !== moved[n]!.turn)
      .map((p) => p.key),
  );
  const part = shown.parts.find((p) => p.key === selected) ?? null;
  const nets = [...new Set(board.branches.map((b) => b.net))];
  const move = (key: string, to: Place) => {
    setMoving(null);
    const { xMm, yMm, turn } = onGrid(to);
    // Once a hand is at it nothing else moves by itself.
    const places = board.parts.map((p) => ({ part: p.key, ...asked(p) }));
    onChange({
      places: places.map((p) => (p.part === key ? { part: key, xMm: within(xMm), yMm: within(yMm), turn } : p)),
    });
  };
  const by = ({ xMm, yMm, turn }: Place, right: number, down: number): Place => ({
    xMm: xMm + GRID_MM * right,
    yMm: yMm + GRID_MM * down,
    turn,
  });
  const partOf = (key: string) => board.parts.find((p) => p.key === key)!;
  const hand: Hand = {
    selected,
    onSelect: setSelected,
    onMoving: (key, right, down) => setMoving({ key, place: by(placeOf(partOf(key)), right, down) }),
    onMove: (key, right, down) => move(key, by(placeOf(partOf(key)), right, down)),
    onNudge: (key, right, down) => move(key, by(asked(partOf(key)), right, down)),
    onRest: () => setMoving(null),
    onTurn: (key) => move(key, turnedMore(shown.parts.find((p) => p.key === key)!)),
  };
  return (
    <>
      <div className="flex flex-wrap items-end gap-x-3 gap-y-2">
        <p className="mr-auto max-w-[760px] text-[15px]">
          Placed in the order of the street, tracks as wide as what flows wants. What charges the reservoir and what is
          taken from it meet at its legs only. {choice.mains && fused ? '' : 'Mains stays off. '}Wires end at the large
          pads.
        </p>
        <Segments label="Side" value={side} options={SIDES} onChange={(v) => setSide(v)} />
      </div>
      {fused && (
        <div className="mt-1 flex flex-wrap items-baseline gap-x-4">
          <label className="flex items-baseline gap-2 text-[14.5px]">
            <input
              type="checkbox"
              className="accent-volt"
              checked={choice.mains}
              onChange={(e) => onChange({ mains: e.target.checked })}
            />
            Primary fuse on the board
          </label>
          {choice.mains && (
            <p role="note" className="max-w-[860px] border-l-[3px] border-fail pl-3 text-[14px]">
              ⚠ Mains on this board: {MAINS_MM} mm from it to everything else and to the screws, {POLES_MM} mm between
              its poles. Cover the fuse, screw the board on nylon or 8 mm away from metal, keep fingers and probes off
              it under power. Your local code decides.
            </p>
          )}
        </div>
      )}
      <div className="mt-3 grid grid-cols-[minmax(0,1fr)] gap-x-6 gap-y-4 min-[1100px]:grid-cols-[minmax(0,1fr)_340px]">
        <div className="min-w-0">
          <EtchedFigure
            board={shown}
            copperSide={side === 'copper'}
            loose={loose}
            net={lit}
            hazardous={hazardous}
            hand={hand}
          />
          <Sizes />
        </div>
        <aside aria-label="What was found of it" className="min-w-0 space-y-4 text-[14.5px]">
          {part && (
            <section aria-label={`Part ${part.ref}`} className="border-l-2 border-volt pl-3">
              <h2 className="text-[15px] font-semibold">
                {part.ref}
                {!part.wire && `, ${part.value}`}
              </h2>
              <div className="mt-1 grid grid-cols-2 gap-2">
                <QuantityField
                  path="board.placeMm"
                  label="First leg, from the left"
                  value={part.xMm}
                  step={(v, d) => v + d * GRID_MM}
                  onCommit={(v) => move(part.key, { ...placeOf(part), xMm: v! })}
                />
                <QuantityField
                  path="board.placeMm"
                  label="From above"
                  value={part.yMm}
                  step={(v, d) => v + d * GRID_MM}
                  onCommit={(v) => move(part.key, { ...placeOf(part), yMm: v! })}
                />
              </div>
              {!part.wire && (
                <button type="button" className="btn mt-1.5" onClick={() => move(part.key, turnedMore(part))}>
                  Turn
                </button>
              )}
            </section>
          )}
          {choice.places.length > 0 && (
            <button type="button" className="btn" onClick={() => onChange({ places: [] })}>
              Place everything anew
            </button>
          )}
          <Checked report={report} nets={nets} number={number} />
          <NetButtons nets={nets} lit={lit} hazardous={hazardous} onLight={onLight} />
          {board.links.length > 0 && (
            <section aria-label="Links">
              <h2 className="text-[15px] font-semibold">
                {board.links.length === 1 ? '1 wire' : `${board.links.length} wires`} above the board
              </h2>
              <ul>
                {board.links.map((l) => (
                  <li key={`${l.x1} ${l.y1}`} className="flex gap-3 border-t border-rule/60 py-0.5">
                    <span className="w-[60px]">{board.branches[l.branch]!.net}</span>
                    <span className="tabular-nums">
                      {formatQuantity(Math.hypot(l.x2 - l.x1, l.y2 - l.y1), 'mm')} long
                    </span>
                  </li>
                ))}
              </ul>
              <p className="text-[13.5px] text-quiet">
                Where they go is drawn, on the print and in the CSV too. Two sides need none.
              </p>
            </section>
          )}
          <TrackTable
            loads={loads}
            copperUm={choice.copperUm}
            onCopper={(copperUm) => onChange({ copperUm })}
            number={number}
          />
          <EtchedFiles board={board} />
        </aside>
      </div>
    </>
  );
}
