'use client';

import dynamic from 'next/dynamic';
import { useView } from '@/ui/session';
import { Terrace } from '@/ui/terrace/terrace';
import { VerdictRail } from './verdict-rail';
import { orSay } from '@/ui/loading';

/** Fields and workings come behind the picture: what a builder looks at first is there first, and nothing moves. */
const BenchDrawer = dynamic(
  orSay(() => import('./bench-drawer').then((m) => m.BenchDrawer)),
  {
    ssr: false,
    loading: () => <section aria-busy="true" className="border-t border-rule bg-sunk" />,
  },
);

/** Supply: what happens between mains and load. The terrace, the verdicts beside it, the station in focus below it. */
export function Supply() {
  const picture = useView((s) => s.picture);
  const band = useView((s) => s.band);
  const trouble = useView((s) => s.trouble);
  if (!picture) {
    return (
      <main className="grid flex-1 place-items-center p-8">
        {trouble ? (
          <p role="alert" className="max-w-lg text-center text-fail">
            This design could not be solved. {trouble} Change a value, or undo the last step.
          </p>
        ) : (
          <p className="text-quiet" aria-live="polite">
            Solving the first cycle…
          </p>
        )}
      </main>
    );
  }
  return (
    <main className="grid min-h-0 flex-1 grid-cols-[minmax(0,1fr)_300px] xl:grid-cols-[minmax(0,1fr)_338px]">
      <div className="grid min-h-0 grid-rows-[minmax(0,1fr)_206px]">
        <div className="relative min-h-0 px-2 pt-0.5">
          {trouble && (
            <p
              role="alert"
              className="absolute inset-x-8 top-20 z-10 rounded border-2 border-fail bg-raised px-3 py-2 text-fail shadow"
            >
              Not solved, so this is still the picture from before your last change. {trouble}
            </p>
          )}
          <Terrace picture={picture} band={band} stale={trouble !== null} />
        </div>
        <BenchDrawer picture={picture} band={band} />
      </div>
      <VerdictRail picture={picture} />
    </main>
  );
}
