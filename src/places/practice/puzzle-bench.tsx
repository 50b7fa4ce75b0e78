'use client';

import { useEffect, useRef, useState } from 'react';
import { FAULT_WORDS, type BenchFault } from '@/core/bench/fault-words';
import {
  placeOf,
  scored,
  type FinderStep,
  type PracticeReading,
  type PracticeScore,
  type Puzzle,
} from '@/core/bench/practice-puzzles';
import { arrangementOf } from '@/core/design/source';
import { diodeCount } from '@/core/parts/arrangement';
import { arrangementWords, ratingWords } from '@/core/design/words';
import { capitalised, formatQuantity } from '@/core/quantity/format';
import { Alert } from '@/ui/alert';
import { asked } from '@/workers/asked';
import type { OnTheBench } from '@/workers/solver.worker';
import { dropSearch } from '@/workers/client';
import { goThrough } from '@/workers/go-through';

interface Props {
  bench: OnTheBench;
  onScored(score: PracticeScore): void;
}

/** One puzzle on the bench: its story, what can be read, what was read, and the naming of the fault. */
export function PuzzleBench({ bench: { puzzle, choices, faults }, onScored }: Props) {
  const { design } = puzzle;
  const [taken, setTaken] = useState<PracticeReading[]>([]);
  const [busy, setBusy] = useState(false);
  const [trouble, setTrouble] = useState<string | null>(null);
  const [fault, setFault] = useState<BenchFault | ''>('');
  const [place, setPlace] = useState('');
  const [score, setScore] = useState<PracticeScore | null>(null);
  const heading = useRef<HTMLHeadingElement>(null);
  useEffect(() => heading.current?.focus(), []);
  const done = new Set(taken.map((t) => t.id));
  const diodes = fault === 'diode-open' || fault === 'diode-short' ? diodeCount(arrangementOf(design)) : 0;

  async function take(id: string) {
    setBusy(true);
    const answer = await asked((s) => s.practiceReading(puzzle, id, taken.length + 1));
    setBusy(false);
    setTrouble(answer.ok ? null : answer.error);
    if (answer.ok) setTaken((before) => [...before, answer.value]);
  }
  function name() {
    if (fault === '') return;
    const found = scored(puzzle, taken, fault, place);
    setScore(found);
    onScored(found);
  }

  return (
    <section aria-label={puzzle.title} data-testid="puzzle">
      <h2 ref={heading} tabIndex={-1} className="text-[20px] font-semibold outline-none">
        {puzzle.title}
      </h2>
      <p className="max-w-[640px] text-[16px]">{puzzle.story}</p>
      <p className="mt-1 text-[14px] text-quiet">
        {arrangementWords(design)}; {ratingWords(design)}. Meter ±{formatQuantity(design.bench.meterPct, '%')}; the
        mains read {formatQuantity(design.mains.voltageRms, 'V')}. “Full load” is{' '}
        {formatQuantity(design.demand.outputA, 'A')}.
      </p>
      <div className="mt-4 grid grid-cols-[minmax(0,1fr)] gap-x-6 gap-y-4 min-[1080px]:grid-cols-2">
        <section aria-label="What can be read">
          <h3 className="text-[16px] font-semibold">Read</h3>
          <ul className="mt-1 space-y-1">
            {choices.map((c) => (
              <li key={c.id}>
                <button
                  type="button"
                  className="w-full border border-rule bg-raised px-3 py-1.5 text-left hover:border-volt disabled:opacity-50"
                  disabled={busy || done.has(c.id) || score !== null}
                  onClick={() => void take(c.id)}
                >
                  <span className="block text-[15px]">{capitalised(c.label)}</span>
                  <span className="block text-[13px] text-quiet">
                    {c.minutes} min, {c.powered ? 'powered' : 'no power'}
                    {c.caution && (
                      <span className={c.powered ? 'text-fail' : ''}>
                        . {c.powered ? '⚠ ' : ''}
                        {c.caution}
                      </span>
                    )}
                  </span>
                </button>
              </li>
            ))}
          </ul>
        </section>
        <div className="space-y-4">
          <section aria-label="What was read" aria-live="polite">
            <h3 className="text-[16px] font-semibold">
              What it said{taken.length > 0 && `, after ${taken.reduce((sum, t) => sum + t.minutes, 0)} minutes`}
            </h3>
            {taken.length === 0 && <p className="text-[14.5px] text-quiet">Nothing read yet.</p>}
            <ol className="mt-1 space-y-1.5">
              {taken.map((t) => (
                <li key={t.id} className="border-l-2 border-volt pl-3 text-[15px]">
                  <span className="text-quiet">{capitalised(t.label)}: </span>
                  <strong>{t.said}</strong>
                </li>
              ))}
            </ol>
            {trouble && <Alert className="text-[14px]">{trouble}</Alert>}
          </section>
          <form
            aria-label="Name it"
            className="flex flex-wrap items-end gap-2 border-t border-rule pt-3"
            onSubmit={(e) => {
              e.preventDefault();
              name();
            }}
          >
            <label className="min-w-0 flex-1 text-[14px]">
              What is wrong
              <select
                className="field"
                value={fault}
                disabled={score !== null}
                onChange={(e) => {
                  setFault(e.target.value as BenchFault | '');
                  setPlace('');
                }}
              >
                <option value="">choose</option>
                {faults.map((f) => (
                  <option key={f} value={f}>
                    {FAULT_WORDS[f].name}
                  </option>
                ))}
              </select>
            </label>
            {diodes > 0 && (
              <label className="w-[90px] text-[14px]">
                Which
                <select
                  className="field"
                  value={place}
                  disabled={score !== null}
                  onChange={(e) => setPlace(e.target.value)}
                >
                  <option value="">–</option>
                  {Array.from({ length: diodes }, (_, n) => (
                    <option key={n}>{`D${n + 1}`}</option>
                  ))}
                </select>
              </label>
            )}
            <button type="submit" className="btn btn-main" disabled={fault === '' || score !== null}>
              Name it
            </button>
          </form>
          {score && <Told puzzle={puzzle} score={score} />}
        </div>
      </div>
    </section>
  );
}

/** What it really was, how that was proved, and how the finder would have gone. */
function Told({ puzzle, score }: { puzzle: Puzzle; score: PracticeScore }) {
  const [steps, setSteps] = useState<FinderStep[]>([]);
  const [names, setNames] = useState<BenchFault | null>(null);
  const [trouble, setTrouble] = useState<string | null>(null);
  useEffect(() => {
    let here = true;
    const tell = (more: FinderStep[]) => {
      if (here) setSteps((before) => [...before, ...more]);
    };
    void asked(
      (s) => {
        setSteps([]);
        return goThrough(s, 'finder', puzzle, { tell });
      },
      'search',
      () => here,
    ).then((answer) => {
      if (!here) return;
      if (answer.ok) setNames(answer.value && answer.value.end);
      else setTrouble(answer.error);
    });
    return () => {
      here = false;
      dropSearch(true);
    };
  }, [puzzle]);
  const was = FAULT_WORDS[puzzle.truth];
  const drawnSo = puzzle.truth === 'bad-choice';
  const where = placeOf(puzzle.hidden);
  return (
    <section aria-label="What it was" className="border-t border-rule pt-3" data-testid="told">
      <h3 className={`text-[18px] font-semibold ${score.right ? 'text-volt' : 'text-fail'}`}>
        {score.right ? '● Found.' : '✕ Not that.'} {was.name}
        {where && `, ${where}`}
      </h3>
      {score.right && score.place === false && (
        <p>The place was {where}: the diode range tells it from its neighbours.</p>
      )}
      {(!score.right || drawnSo) && <p className="text-[14.5px]">{was.confirm}</p>}
      {(drawnSo ? puzzle.fails : []).map((sentence) => (
        <p key={sentence} className="border-l-2 border-fail pl-3 text-[14.5px]">
          {sentence}
        </p>
      ))}
      <p className="mt-1 text-[14.5px]">
        You: {score.readings} {score.readings === 1 ? 'reading' : 'readings'}, {score.powered} of them powered,{' '}
        {score.minutes} minutes.{' '}
        {names &&
          `The finder: ${steps.length}, ${steps.filter((s) => s.powered).length} powered, ${steps.reduce((sum, s) => sum + s.minutes, 0)} minutes${names === puzzle.truth ? '' : ', and it named the wrong one'}.`}
      </p>
      <h4 className="mt-2 text-[15px] font-semibold">How the finder went</h4>
      <ol className="mt-1 list-decimal space-y-1 pl-5 text-[14.5px]" aria-live="polite">
        {steps.map((s, n) => (
          <li key={n}>
            {capitalised(s.label)}: <strong>{s.said}</strong>
            <span className="block text-[13.5px] text-quiet">
              {s.share > 0 ? `${Math.round(100 * s.share)} % ${s.believes}` : 'one reading decides nothing'}
            </span>
          </li>
        ))}
      </ol>
      {names === null && !trouble && <p className="text-[14px] text-quiet">It is weighing…</p>}
      {trouble && <Alert className="text-[14px]">{trouble}</Alert>}
    </section>
  );
}
