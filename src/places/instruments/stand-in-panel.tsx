'use client';

import { useState } from 'react';
import { Alert } from '@/ui/alert';
import { endStandIns, playStandIns, type InstrumentBench } from '@/ui/instruments';
import { useDesign } from '@/ui/session';

/** Simulated instruments around a build of this design: tolerances hidden by a seed, and a fault if wanted. */
export function StandInPanel({ bench, onChange }: { bench: InstrumentBench; onChange(): Promise<void> }) {
  const design = useDesign();
  const [seed, setSeed] = useState(String(bench.playing?.seed ?? 12));
  const [speed, setSpeed] = useState(String(bench.playing?.speed ?? 60));
  const [faulty, setFaulty] = useState(bench.playing?.faulty ?? false);
  const [busy, setBusy] = useState(false);
  const [fault, setFault] = useState<string | null>(null);
  const other = bench.playing && bench.playing.name !== design.name;

  async function play() {
    setBusy(true);
    const answer = await playStandIns({ design, seed: Number(seed), faulty, speed: Number(speed) });
    setFault(answer.ok ? null : answer.refusal.sentence);
    await onChange();
    setBusy(false);
  }

  return (
    <section aria-label="Stand-ins" className="border-l-[3px] border-tight bg-raised px-4 py-3">
      <h2 className="text-[17px] font-semibold">Nothing at hand? Stand-ins play it</h2>
      <p className="max-w-[760px] text-[14.5px]">
        Four simulated instruments around a simulated build of this supply, with parts off by what parts are off, copper
        and metal that warm, and a meter’s noise. What is hidden in it stays hidden.
      </p>
      {other && (
        <p className="mt-1 font-semibold text-tight">
          They play ‘{bench.playing!.name}’ now, not this supply: start them again.
        </p>
      )}
      <div className="mt-2 flex flex-wrap items-end gap-x-4 gap-y-2">
        <label className="w-[110px] text-[14px]">
          Seed
          <input className="field" inputMode="numeric" value={seed} onChange={(e) => setSeed(e.target.value)} />
        </label>
        <label className="w-[150px] text-[14px]">
          Warms so many times
          <input className="field" inputMode="numeric" value={speed} onChange={(e) => setSpeed(e.target.value)} />
        </label>
        <label className="flex min-h-[34px] items-center gap-2 text-[14.5px]">
          <input
            type="checkbox"
            className="accent-volt"
            checked={faulty}
            onChange={(e) => setFaulty(e.target.checked)}
          />
          with something wrong, untold
        </label>
        <button type="button" className="btn btn-main" disabled={busy} onClick={() => void play()}>
          {bench.playing ? 'Start them anew' : 'Start them'}
        </button>
        {bench.playing && (
          <button type="button" className="btn" disabled={busy} onClick={() => void endStandIns().then(onChange)}>
            End them
          </button>
        )}
        {busy && (
          <p className="text-quiet" aria-live="polite">
            Building it…
          </p>
        )}
      </div>
      {fault && <Alert className="mt-1 text-[14px]">{fault}</Alert>}
    </section>
  );
}
