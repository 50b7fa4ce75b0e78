'use client';

import dynamic from 'next/dynamic';
import { useEffect, useMemo, useRef, useState } from 'react';
import { formatQuantity } from '@/core/quantity/format';
import {
  compareSets,
  patchOfSet,
  type SizedSet,
  type SizingAsk,
  type SizingBy,
  type SizingProgress,
} from '@/core/size/sized-set';
import { ChoiceField } from '@/ui/choice-field';
import { fetchParts } from '@/ui/drawer/parts-api';
import { useDesign, useEdit } from '@/ui/session';
import { whenIdle } from '@/ui/when-idle';
import { rehearseInPool, sizeInPool } from '@/workers/browser-pool';
import { Stopped } from '@/workers/pool';
import { orSay } from '@/ui/loading';

const SetChart = dynamic(
  orSay(() => import('./set-chart').then((m) => m.SetChart)),
  { ssr: false },
);

const KINDS = ['transformer', 'diode', 'bridge', 'capacitor', 'regulator', 'sink'] as const;

const circuitOf = (set: SizedSet) =>
  set.parts
    .filter((p) => p.role !== 'sink')
    .map((p) => p.name)
    .join('|');

/** Drawing thousands of sets takes a processor a search needs: list and picture follow it at this distance, ms. */
const SHOWN_EVERY_MS = 500;
/** Points the picture shows, and rows the list. */
const DRAWN = 1500;
const LISTED = 30;

/** Of sets that differ in the sink alone the list shows the best. */
function bestOfEach(sorted: readonly SizedSet[]): SizedSet[] {
  const best = new Map<string, SizedSet>();
  for (const set of sorted) {
    const circuit = circuitOf(set);
    if (!best.has(circuit)) best.set(circuit, set);
    if (best.size === LISTED) break;
  }
  return [...best.values()];
}

/** Whole sets that pass every verdict, by cost, heat, height or margin, on a picture of cost against worst margin. */
export function SizeSets() {
  const design = useDesign();
  const edit = useEdit();
  const [ask, setAsk] = useState<SizingAsk>({ from: 'both', by: 'cost' });
  const [sets, setSets] = useState<SizedSet[]>([]);
  const [progress, setProgress] = useState<
    (Omit<SizingProgress, 'found'> & { ms: number; now: 'Looked at' | 'Stopped:' | 'Done:' }) | null
  >(null);
  const [chosen, setChosen] = useState<SizedSet | null>(null);
  /** The set under the pointer or in focus in the list. */
  const [pointed, setPointed] = useState<SizedSet | null>(null);
  const [trouble, setTrouble] = useState<string | null>(null);
  const job = useRef<AbortController | null>(null);
  const startedAt = useRef(0);
  const sorted = useMemo(() => [...sets].sort(compareSets(ask.by)), [sets, ask.by]);
  const onPicture = useMemo(() => sorted.slice(0, DRAWN), [sorted]);
  const passing = useMemo(() => sorted.filter((s) => s.fails === 0), [sorted]);
  const listed = useMemo(() => bestOfEach(passing), [passing]);
  const cheapestFailing = useMemo(
    () =>
      sets.filter((s) => s.fails > 0).reduce<SizedSet | null>((a, s) => (!a || s.toPayEur < a.toPayEur ? s : a), null),
    [sets],
  );

  useEffect(() => () => job.current?.abort(), []);
  const atFirst = useRef(design);
  useEffect(() => {
    let end = () => {};
    const callOff = whenIdle(() => (end = rehearseInPool(atFirst.current)));
    return () => {
      callOff();
      end();
    };
  }, []);

  async function search() {
    job.current?.abort();
    const mine = new AbortController();
    job.current = mine;
    setSets([]);
    setChosen(null);
    setTrouble(null);
    startedAt.current = performance.now();
    const all: SizedSet[] = [];
    let shownMs = -Infinity;
    setProgress({ simulated: 0, studies: 0, leftOut: [], ms: 0, now: 'Looked at' });
    const answer = await fetchParts(KINDS);
    if (mine.signal.aborted) return;
    if (!answer.ok) {
      setTrouble(answer.sentence);
      return setProgress(null);
    }
    try {
      await sizeInPool(design, answer.value.parts, ask, {
        signal: mine.signal,
        onProgress: ({ found, ...come }) => {
          const ms = performance.now() - startedAt.current;
          all.push(...found);
          setProgress({ ...come, ms, now: 'Looked at' });
          if (ms < shownMs + SHOWN_EVERY_MS) return;
          shownMs = ms;
          setSets([...all]);
        },
      });
      setSets(all);
      setProgress((p) => p && { ...p, now: 'Done:' });
    } catch (error) {
      if (job.current !== mine) return;
      setSets(all);
      setProgress((p) => p && { ...p, now: 'Stopped:' });
      if (!(error instanceof Stopped)) setTrouble(`The search was not finished: ${(error as Error).message}`);
    }
  }

  function stop() {
    job.current?.abort();
    setProgress((p) => p && { ...p, ms: performance.now() - startedAt.current, now: 'Stopped:' });
  }

  const running = progress?.now === 'Looked at';
  return (
    <div className="grid min-h-0 flex-1 grid-cols-[minmax(0,1fr)] gap-4 min-[900px]:grid-cols-[minmax(0,1fr)_minmax(340px,420px)]">
      <section aria-label="Search" className="flex min-h-0 flex-col gap-2">
        <div className="flex flex-wrap items-end gap-3">
          <div className="w-[190px]">
            <ChoiceField
              label="Parts from"
              value={ask.from}
              options={[
                { value: 'both', label: 'drawer and shops' },
                { value: 'drawer', label: 'the drawer alone' },
                { value: 'values', label: 'standard values alone' },
              ]}
              onChange={(from: SizingAsk['from']) => setAsk({ ...ask, from })}
            />
          </div>
          <div className="w-[150px]">
            <ChoiceField
              label="Best by"
              value={ask.by}
              options={[
                { value: 'cost', label: 'what is to pay' },
                { value: 'heat', label: 'least heat' },
                { value: 'height', label: 'lowest can' },
                { value: 'margin', label: 'most margin' },
              ]}
              onChange={(by: SizingBy) => setAsk({ ...ask, by })}
            />
          </div>
          {running ? (
            <button type="button" className="btn" onClick={stop}>
              Stop
            </button>
          ) : (
            <button type="button" className="btn btn-main" onClick={() => void search()}>
              Search
            </button>
          )}
          <p aria-live="polite" className="pb-1 text-[14px] text-quiet">
            {progress &&
              `${progress.now} ${progress.simulated} sets, ${progress.studies} circuits simulated, ${passing.length} pass, ${(progress.ms / 1000).toFixed(1)} s`}
          </p>
        </div>
        {trouble && (
          <p role="alert" className="text-fail">
            {trouble}
          </p>
        )}
        {sets.length > 0 ? (
          <div className="min-h-[240px] flex-1">
            <SetChart sets={onPicture} chosen={pointed ?? chosen} onChoose={setChosen} />
          </div>
        ) : (
          <p className="max-w-[60ch] text-quiet">
            Keeps the load, the mains and the arrangement of this design, and looks for transformer, rectifier,
            reservoir, regulator and sink that pass every verdict at every corner. Rules of thumb only say what is tried
            first.
          </p>
        )}
        {sorted.length > DRAWN && (
          <p className="text-[14px] text-quiet">
            The picture shows the first {DRAWN} of {sorted.length} sets by this order, the list the best with each of
            the first {LISTED} circuits.
          </p>
        )}
        {progress && !running && progress.leftOut.length > 0 && (
          <details className="text-[14px] text-quiet">
            <summary className="cursor-pointer">What was left out, and why</summary>
            <ul className="list-disc pl-5">
              {progress.leftOut.map((line) => (
                <li key={line}>{line}</li>
              ))}
            </ul>
          </details>
        )}
        {cheapestFailing && (
          <p className="text-[14px]">
            <strong>The cheapest that fails</strong> ({formatQuantity(cheapestFailing.toPayEur, 'EUR')} to pay:{' '}
            {cheapestFailing.parts.map((p) => p.name).join('; ')}) fails because: {cheapestFailing.worst}
          </p>
        )}
      </section>
      <section aria-label="Sets" className="min-h-0 overflow-auto rounded border border-rule bg-raised">
        <ol>
          {(chosen ? [chosen, ...listed.filter((s) => s !== chosen)] : listed).map((s, n) => (
            <li
              key={s.parts.map((p) => p.name).join('|')}
              className={`border-b border-rule/60 px-3 py-2 hover:bg-sunk ${s === chosen ? 'bg-sunk' : ''}`}
              onPointerEnter={() => setPointed(s)}
              onPointerLeave={() => setPointed(null)}
              onFocus={() => setPointed(s)}
              onBlur={() => setPointed(null)}
            >
              <div className="flex items-baseline justify-between gap-2">
                <span className="text-[17px] font-semibold">
                  {s.toPayEur < 0.005 ? 'nothing to pay' : formatQuantity(s.toPayEur, 'EUR')}
                </span>
                <button
                  type="button"
                  className="btn !min-h-[26px]"
                  aria-label={`Take it: set ${n + 1}, ${s.parts[0]!.name}`}
                  onClick={() => edit(patchOfSet(s))}
                >
                  Take it
                </button>
              </div>
              <p className="text-[14px]">
                {s.parts.map((p, k) => (
                  <span key={p.role}>
                    {k > 0 && '; '}
                    {p.partId ? <span className="font-medium text-volt">{p.name}</span> : p.name}
                  </span>
                ))}
              </p>
              <p className="text-[13px] text-quiet">
                {formatQuantity(s.lostW, 'W')} lost
                {s.heightMm > 0 && `, tallest can about ${s.heightMm} mm`}. Tightest: {s.worst}
              </p>
            </li>
          ))}
        </ol>
        {progress && !running && passing.length === 0 && (
          <p className="p-3">
            Nothing among these parts passes at every corner.{' '}
            {sorted[0] && <>The closest set fails at: {sorted[0].worst}</>}
          </p>
        )}
      </section>
    </div>
  );
}
