'use client';

import { useEffect, useState } from 'react';
import { setPuzzles } from '@/core/bench/practice-puzzles';
import { Alert } from '@/ui/alert';
import { Room } from '@/ui/room';
import { useDesign } from '@/ui/session';
import { asked } from '@/workers/asked';
import type { OnTheBench, PuzzleAsk } from '@/workers/solver.worker';
import { keepRecord, keptHistory, type PracticeRecord } from './kept-history';
import { PuzzleBench } from './puzzle-bench';

const SET = setPuzzles();

/** Practice: supplies with something hidden in them, read and named without a shock to be had. */
export function Practice() {
  const design = useDesign();
  const [seed, setSeed] = useState('1');
  const [fault, setFault] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);
  const [begun, setBegun] = useState<(OnTheBench & { nth: number }) | null>(null);
  const [history, setHistory] = useState<PracticeRecord[]>([]);
  // What this browser kept is not known to the server that drew the page.
  useEffect(() => {
    const timer = setTimeout(() => setHistory(keptHistory()));
    return () => clearTimeout(timer);
  }, []);

  async function begin(ask: PuzzleAsk) {
    setBusy(true);
    setFault(null);
    const answer = await asked((s) => s.practice(ask));
    setBusy(false);
    if (!answer.ok) return setFault(answer.error);
    if (answer.value) setBegun({ ...answer.value, nth: (begun?.nth ?? 0) + 1 });
  }
  function seeded(own: boolean) {
    const number = Number(seed);
    if (!Number.isInteger(number) || number < 1 || number > 999_999)
      return setFault('A seed is a whole number from 1 to 999999: the same seed is always the same supply.');
    void begin({ seed: number, own: own ? design : null });
  }
  const solved = new Set(history.filter((r) => r.right).map((r) => r.id));

  return (
    <Room name={null} className="">
      <div className="mx-auto max-w-[1180px] px-5 pb-12 pt-4">
        <h1 className="text-[23px] font-semibold leading-7">Find what is wrong</h1>
        <p className="max-w-[820px] text-quiet">
          Supplies with something hidden in them. Read what you like, each reading at its price, then name the fault;
          the finder shows how it would have gone. All of it is simulated: nothing here can bite.
        </p>
        <div className="mt-4 grid grid-cols-[minmax(0,1fr)] gap-x-8 gap-y-5 min-[900px]:grid-cols-[300px_minmax(0,1fr)]">
          <nav aria-label="Puzzles">
            <ul>
              {SET.map((p) => (
                <li key={p.id}>
                  <button
                    type="button"
                    aria-pressed={begun?.puzzle.id === p.id}
                    className={`flex min-h-[32px] w-full items-center gap-2 border-l-[3px] px-3 text-left ${begun?.puzzle.id === p.id ? 'border-volt bg-raised font-semibold' : 'border-transparent hover:bg-raised'}`}
                    disabled={busy}
                    onClick={() => void begin({ set: p.id })}
                  >
                    <span className="min-w-0 flex-1 truncate">{p.title}</span>
                    {solved.has(p.id) && <span className="text-[13px] text-volt">● found</span>}
                  </button>
                </li>
              ))}
            </ul>
            <div className="mt-3 border-t border-rule px-3 pt-3">
              <label className="block text-[14px]">
                Another, by its seed
                <input className="field" inputMode="numeric" value={seed} onChange={(e) => setSeed(e.target.value)} />
              </label>
              <div className="mt-2 flex flex-wrap gap-2">
                <button type="button" className="btn" disabled={busy} onClick={() => seeded(false)}>
                  One of the school’s
                </button>
                <button type="button" className="btn" disabled={busy} onClick={() => seeded(true)}>
                  This supply
                </button>
              </div>
              {fault && <Alert className="mt-1 text-[14px]">{fault}</Alert>}
            </div>
            {history.length > 0 && (
              <section aria-label="So far" className="mt-4 border-t border-rule px-3 pt-3 text-[14px]">
                <h2 className="text-[15px] font-semibold">So far</h2>
                <ul className="mt-1 space-y-0.5">
                  {history.slice(0, 8).map((r, n) => (
                    <li key={n} className="flex gap-2">
                      <span className={r.right ? 'text-volt' : 'text-fail'}>{r.right ? '●' : '✕'}</span>
                      <span className="min-w-0 flex-1 truncate" title={r.title}>
                        {r.title}
                      </span>
                      <span className="whitespace-nowrap text-quiet">
                        {r.readings} read, {r.minutes} min
                      </span>
                    </li>
                  ))}
                </ul>
              </section>
            )}
          </nav>
          {begun ? (
            <PuzzleBench
              key={begun.nth}
              bench={begun}
              onScored={(score) =>
                setHistory(
                  keepRecord({
                    ...score,
                    id: begun.puzzle.id,
                    title: begun.puzzle.title,
                    day: new Date().toISOString().slice(0, 10),
                  }),
                )
              }
            />
          ) : (
            <p className="self-start border-l-[3px] border-rule bg-raised px-4 py-3">
              {busy
                ? 'Putting it on the bench…'
                : 'Choose one from the list. The first, the chime that hums, is a good beginning.'}
            </p>
          )}
        </div>
      </div>
    </Room>
  );
}
