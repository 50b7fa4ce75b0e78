'use client';

import { Download } from 'lucide-react';
import { useMemo, useState } from 'react';
import { stripDrawing } from '@/core/board/strip-drawing';
import { STRIP_A, STRIP_V } from '@/core/board/strip-loads';
import { holeName, stripCsv } from '@/core/board/strip-names';
import { outlineMm } from '@/core/board/stripboard';
import { stripSvg } from '@/core/board/strip-svg';
import type { Design } from '@/core/design/design';
import type { Figure } from '@/core/study/figure';
import { Alert } from '@/ui/alert';
import { download, fileName } from '@/ui/download';
import { FigureButton } from '@/ui/figure-button';
import { Room } from '@/ui/room';
import { Segments } from '@/ui/segments';
import { useDesign } from '@/ui/session';
import { useHazardousNets } from '@/ui/use-hazardous-nets';
import { useSolved } from '@/ui/use-solved';
import type { RemoteSolver } from '@/workers/client';
import { Working } from '@/ui/working';
import { StripFigure } from './strip-figure';

const askBoard = (solver: RemoteSolver, design: Design) => solver.board(design);
type Side = 'parts' | 'copper';
const SIDES: readonly { value: Side; label: string }[] = [
  { value: 'parts', label: 'Parts' },
  { value: 'copper', label: 'Copper' },
];

/** Board: what is soldered where on a board of strips, where they are cut, and what links them. */
export function Board() {
  const design = useDesign();
  const { value: report, trouble } = useSolved(askBoard);
  const [side, setSide] = useState<Side>('parts');
  const [net, setNet] = useState<string | null>(null);
  const board = report?.board ?? null;
  const drawing = useMemo(() => board && stripDrawing(board), [board]);
  const hazardous = useHazardousNets();
  const [opened, setOpened] = useState<string | null>(null);
  const open = report?.loads
    .flatMap((l) => [l.flows, l.wire])
    .concat(report.volts)
    .find((f) => f.id === opened);
  const number = (figure: Figure, text?: string) => (
    <FigureButton figure={figure} {...(text === undefined ? {} : { text })} open={opened} onOpen={setOpened} />
  );
  const nets = useMemo(() => [...new Set(board?.parts.flatMap((p) => p.legs.map((l) => l.net)))], [board]);
  const outline = board && outlineMm(board);
  const name = fileName(design.name);
  const sound = report && report.faults.apart.length === 0 && report.faults.touching.length === 0;
  return (
    <Room name={null} className="">
      <div className="px-5 pb-10 pt-3">
        <div className="flex flex-wrap items-end gap-x-3 gap-y-2">
          <div className="mr-auto max-w-[760px]">
            <h1 className="text-[23px] font-semibold leading-7">
              {board && board.parts.length > 0
                ? `On ${board.strips} strips of ${board.holes} holes`
                : 'On a board of strips'}
            </h1>
            <p className="text-[15px]">
              Strips run from left to right, holes 2.54 mm apart. Mains stays off it; so does what stands in a panel, in
              a clamp or on the floor: its wires end at the dots.
            </p>
          </div>
          {board && (
            <>
              <Segments label="Side" value={side} options={SIDES} onChange={(v) => setSide(v)} />
              <button
                type="button"
                className="btn"
                onClick={() =>
                  download(
                    `${name}-board-${side}.svg`,
                    stripSvg(board, design.name, side === 'copper'),
                    'image/svg+xml',
                  )
                }
              >
                <Download size={15} /> SVG, 1 : 1
              </button>
              <button
                type="button"
                className="btn"
                onClick={() => download(`${name}-board.csv`, stripCsv(board), 'text/csv')}
              >
                <Download size={15} /> CSV
              </button>
            </>
          )}
        </div>
        {trouble && <Alert className="mt-2">{trouble}</Alert>}
        {!report && !trouble && (
          <p className="py-6 text-quiet" aria-live="polite">
            Laying out…
          </p>
        )}
        {board && board.left.length > 0 && (
          <Alert className="mt-2">
            Not on the board:{' '}
            {board.left
              .slice(0, 6)
              .map((l) => `${l.ref} ${l.why}`)
              .join('; ')}
            {board.left.length > 6 && `, and ${board.left.length - 6} more`}.
          </Alert>
        )}
        {report && report.volts.value > STRIP_V && (
          <Alert className="mt-2">
            {number(report.volts)} between two nets are more than the {STRIP_V} V strips beside each other stand: leave
            a free strip on both sides of each that carries them, cut away, or take a board made for it.
          </Alert>
        )}
        {report && board && drawing && board.parts.length > 0 && (
          <div className="mt-3 grid grid-cols-[minmax(0,1fr)] gap-x-6 gap-y-4 min-[1100px]:grid-cols-[minmax(0,1fr)_320px]">
            <div className="min-w-0">
              <StripFigure drawing={drawing} copperSide={side === 'copper'} net={net} hazardous={hazardous} />
              <p className="mt-2 text-[14px] text-quiet">
                {outline && `${outline.wMm} × ${outline.dMm} mm. `}Sizes of parts are typical: lay yours on the print
                first. What is on a sink goes to the edge, or on short leads. Links drawn broken are insulated.
              </p>
            </div>
            <aside aria-label="What is done to it" className="min-w-0 space-y-4 text-[14.5px]">
              <section aria-label="Checked">
                <h2 className="text-[15px] font-semibold">
                  {sound
                    ? `All ${nets.length} nets are one piece each, and none touch`
                    : '✕ The copper is not the circuit'}
                </h2>
                <p className="text-quiet">
                  Found again from strips, cuts and links alone.
                  {!sound && ` Apart: ${report.faults.apart.join(', ') || 'none'}.`}
                  {report.faults.touching.length > 0 &&
                    ` Touching: ${report.faults.touching.map((t) => t.join(' and ')).join('; ')}.`}
                </p>
              </section>
              {report.loads.length > 0 && (
                <section aria-label="Currents">
                  <h2 className="text-[15px] font-semibold text-tight">More than a strip carries ({STRIP_A} A)</h2>
                  <ul>
                    {report.loads.map((l) => (
                      <li key={l.net} className="border-t border-rule/60 py-1">
                        {l.net}: {number(l.flows)} RMS. Lay {number(l.wire, `${l.wire.value} mm²`)} of bare wire along
                        it.
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
              <section aria-label="Nets">
                <h2 className="text-[15px] font-semibold">Light up a net</h2>
                <div className="mt-1 flex flex-wrap gap-1">
                  {nets.map((n) => (
                    <button
                      key={n}
                      type="button"
                      className="btn"
                      aria-pressed={n === net}
                      onClick={() => setNet(n === net ? null : n)}
                    >
                      {hazardous.has(n) && '⚠ '}
                      {n}
                    </button>
                  ))}
                </div>
              </section>
            </aside>
          </div>
        )}
        {open && (
          <div className="sticky bottom-0 mt-2 border-l-2 border-volt bg-paper py-2 pl-3">
            <Working figure={open} />
          </div>
        )}
      </div>
    </Room>
  );
}
