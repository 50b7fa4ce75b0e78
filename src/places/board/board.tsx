'use client';

import { useState } from 'react';
import type { BoardChoice } from '@/core/design/design';
import type { EtchProgress } from '@/core/board/etch';
import type { Figure } from '@/core/study/figure';
import { Alert } from '@/ui/alert';
import { FigureButton } from '@/ui/figure-button';
import { Room } from '@/ui/room';
import { Segments } from '@/ui/segments';
import { useDesign, useEdit } from '@/ui/session';
import type { Searched } from '@/ui/use-searched';
import { Working } from '@/ui/working';
import type { BoardReport } from '@/core/board/board-report';
import { Etched } from './etched';
import { Strips } from './strips';
import { useBoard } from './use-board';

const KINDS: readonly { value: BoardChoice['kind']; label: string; title: string }[] = [
  { value: 'strips', label: 'Strips', title: 'A board of copper strips, cut and linked' },
  { value: 'one side', label: 'Tracks, one side', title: 'Etched at home: what cannot cross is linked by wire' },
  { value: 'two sides', label: 'Two sides', title: 'Ordered: holes plated through' },
];
const HEADINGS: Readonly<Record<BoardChoice['kind'], string>> = {
  strips: 'On a board of strips',
  'one side': 'On a board with tracks, one side',
  'two sides': 'On a board with tracks, two sides',
};

/** Board: what is soldered where, and the copper that joins it. */
export function Board() {
  const design = useDesign();
  const edit = useEdit();
  const choice = design.build.board;
  const laying = useBoard();
  const { trouble } = laying;
  // What was laid out of another kind is not shown for this one.
  const report = laying.value && kindOf(laying.value) === choice.kind ? laying.value : null;
  const [opened, setOpened] = useState<string | null>(null);
  const [lit, setLit] = useState<string | null>(null);
  const change = (patch: Partial<BoardChoice>) => edit({ build: { board: { ...choice, ...patch } } });
  const open = report && figuresOf(report).find((f) => f.id === opened);
  const number = (figure: Figure, text?: string) => (
    <FigureButton figure={figure} {...(text === undefined ? {} : { text })} open={opened} onOpen={setOpened} />
  );
  const shared = {
    name: design.name,
    choice,
    onChange: change,
    number,
    lit,
    onLight: setLit,
    stale: laying.of !== design,
  };
  return (
    <Room name={null} className="">
      <div className="px-5 pb-10 pt-3">
        <div className="flex flex-wrap items-end gap-x-4 gap-y-2">
          <h1 className="mr-auto text-[23px] font-semibold leading-7">{headline(report) ?? HEADINGS[choice.kind]}</h1>
          <HowFar laying={laying} />
          <Segments label="Kind of board" value={choice.kind} options={KINDS} onChange={(kind) => change({ kind })} />
        </div>
        {trouble && <Alert className="mt-2">{trouble}</Alert>}
        {report && report.board.parts.length === 0 && report.board.left.length === 0 && (
          <p className="mt-3">Nothing of this design is soldered into a board.</p>
        )}
        {report && report.board.left.length > 0 && <Left left={report.board.left} kind={choice.kind} />}
        <div className={shared.stale ? 'opacity-80' : ''} aria-busy={laying.progress !== null}>
          {report?.kind === 'strips' && report.board.parts.length > 0 && <Strips report={report} {...shared} />}
          {report?.kind === 'etched' && report.board.parts.length > 0 && <Etched report={report} {...shared} />}
        </div>
        {open && (
          <div className="sticky bottom-0 mt-2 border-l-2 border-volt bg-paper py-2 pl-3">
            <Working figure={open} />
          </div>
        )}
      </div>
    </Room>
  );
}

const kindOf = (report: BoardReport): BoardChoice['kind'] =>
  report.kind === 'strips' ? 'strips' : report.board.sides === 1 ? 'one side' : 'two sides';

function headline(report: BoardReport | null): string | null {
  if (!report || report.board.parts.length === 0) return null;
  if (report.kind === 'strips') return `On ${report.board.strips} strips of ${report.board.holes} holes`;
  const { wMm, hMm, sides, links } = report.board;
  const size = `On ${Math.ceil(wMm)} × ${Math.ceil(hMm)} mm`;
  if (sides === 2) return `${size}, two sides`;
  return `${size}, one side, ${links.length === 0 ? 'no links' : links.length === 1 ? '1 link' : `${links.length} links`}`;
}

const figuresOf = (report: BoardReport): Figure[] => [
  report.volts,
  ...(report.kind === 'strips'
    ? report.loads.flatMap((l) => [l.flows, l.wire])
    : [report.apart, ...report.loads.flatMap((l) => [l.flows, l.wanted, l.narrowest, l.rise])]),
];

function Left({ left, kind }: { left: readonly { ref: string; why: string }[]; kind: BoardChoice['kind'] }) {
  const more = left.length - 6;
  return (
    <Alert className="mt-2">
      Left over:{' '}
      {left
        .slice(0, 6)
        .map((l) => `${l.ref} ${l.why}`)
        .join('; ')}
      {more > 0 && `, and ${more} more`}.{kind === 'one side' && ' Two sides may have room for it.'}
    </Alert>
  );
}

/** How far the laying out is, and its stop. */
function HowFar({ laying: { progress, stopped, stop, again } }: { laying: Searched<EtchProgress, BoardReport> }) {
  if (stopped)
    return (
      <p className="flex items-center gap-3 text-[14.5px]">
        Stopped before it was done.
        <button type="button" className="btn" onClick={again}>
          Lay it out
        </button>
      </p>
    );
  return (
    progress && (
      <p className="flex items-center gap-3 text-[14.5px] text-quiet">
        <span aria-live="polite">{progress.at === 'placing' ? 'Placing…' : 'Laying tracks…'}</span>
        {progress.ways > 0 && <span className="tabular-nums">{progress.ways} ways</span>}
        <button type="button" className="btn" onClick={stop}>
          Stop
        </button>
      </p>
    )
  );
}
