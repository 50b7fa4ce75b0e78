'use client';

import dynamic from 'next/dynamic';
import { useView } from '@/ui/session';
import { Terrace } from '@/ui/terrace/terrace';
import { BandSwitch } from '@/ui/terrace/band-switch';
import { Room } from '@/ui/room';
import { useNarrow } from '@/ui/use-narrow';
import { VerdictRail } from './verdict-rail';
import { orSay } from '@/ui/loading';

/** Fields and workings come behind the picture: what a builder looks at first is there first, and nothing moves. */
const BenchDrawer = dynamic(
  orSay(() => import('./bench-drawer').then((m) => m.BenchDrawer)),
  {
    ssr: false,
    loading: () => (
      <section id="fields" aria-busy="true" className="min-h-[318px] border-t border-rule bg-sunk full:min-h-0" />
    ),
  },
);

const SmallTerrace = dynamic(
  orSay(() => import('@/ui/terrace/small-terrace').then((m) => m.SmallTerrace)),
  { ssr: false },
);

/** Supply: what happens between mains and load. The terrace, the verdicts beside it, the station in focus below it. */
export function Supply() {
  const picture = useView((s) => s.picture);
  const band = useView((s) => s.band);
  const trouble = useView((s) => s.trouble);
  const narrow = useNarrow();
  if (!picture) {
    return (
      <Room name="Supply" className="grid place-items-center p-8">
        {trouble ? (
          <p role="alert" className="max-w-lg text-center text-fail">
            This design could not be solved. {trouble} Change a value, or undo the last step.
          </p>
        ) : (
          <p className="text-quiet" aria-live="polite">
            Solving the first cycle…
          </p>
        )}
      </Room>
    );
  }
  return (
    <Room
      name="Supply"
      className="grid min-h-0 grid-cols-[minmax(0,1fr)] full:grid-cols-[minmax(0,1fr)_300px] full:grid-rows-[minmax(0,1fr)] full:min-[1280px]:grid-cols-[minmax(0,1fr)_338px]"
    >
      <div className="grid min-h-0 min-w-0 grid-cols-[minmax(0,1fr)] full:grid-rows-[auto_minmax(0,1fr)_240px]">
        <div className="flex min-h-[34px] flex-wrap items-center gap-x-4 gap-y-1 px-3 py-[3px]">
          <BandSwitch />
        </div>
        <div
          id="drawing"
          tabIndex={-1}
          className="relative min-h-0 min-w-0 px-2 outline-none min-[640px]:h-[430px] full:h-auto"
        >
          {trouble && (
            <p
              role="alert"
              className="absolute inset-x-8 top-20 z-10 rounded border-2 border-fail bg-raised px-3 py-2 text-fail shadow"
            >
              Not solved, so this is still the picture from before your last change. {trouble}
            </p>
          )}
          {narrow ? (
            <SmallTerrace picture={picture} band={band} />
          ) : (
            <Terrace picture={picture} band={band} stale={trouble !== null} />
          )}
        </div>
        <BenchDrawer picture={picture} band={band} />
      </div>
      <VerdictRail picture={picture} />
    </Room>
  );
}
