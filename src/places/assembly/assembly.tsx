'use client';

import Link from 'next/link';
import { useMemo } from 'react';
import { assemblyNext, assemblyOf, tickOf, type AssemblyNext } from '@/core/build/assembly';
import { pinoutOf } from '@/core/build/pinouts';
import { netlistOf } from '@/core/netlist/netlist-of';
import type { NetPart } from '@/core/netlist/netlist';
import { capitalised } from '@/core/quantity/format';
import { PinoutFigure } from '@/ui/pinout-figure';
import { PinsTable } from '@/ui/pins-table';
import { roomPath } from '@/ui/places';
import { Room } from '@/ui/room';
import { useDesign, useEdit, useView } from '@/ui/session';
import { Kit } from './kit';

/** Assembly: what goes in next and which way round, stage by stage, each measured before the next begins. */
export function Assembly() {
  const design = useDesign();
  const edit = useEdit();
  const id = useView((s) => s.id);
  const netlist = useMemo(() => netlistOf(design), [design]);
  const stages = useMemo(() => assemblyOf(design, netlist), [design, netlist]);
  const next = assemblyNext(design, stages);
  const placed = new Set(design.build.placed);
  /** What was ticked of parts that are there no more goes with the next tick. */
  function tick(part: NetPart, on: boolean) {
    const there = new Set(netlist.parts.map(tickOf));
    const rest = design.build.placed.filter((t) => t !== tickOf(part) && there.has(t));
    edit({ build: { placed: on ? [...rest, tickOf(part)] : rest } });
  }
  return (
    <Room name={null} className="">
      <div className="mx-auto max-w-[1180px] px-5 pb-12 pt-3">
        <div className="grid grid-cols-[minmax(0,1fr)] gap-x-8 gap-y-5 min-[900px]:grid-cols-[minmax(0,1fr)_340px]">
          <div>
            <h1 className="text-[23px] font-semibold leading-7">What goes in, in which order</h1>
            <p className="text-quiet">
              Low and heat-proof parts first, then what minds heat, big cans and iron last. Each stage is measured
              before the next one begins.
            </p>
            <ol className="mt-3 space-y-4">
              {stages.map((stage, n) => (
                <li key={stage.name}>
                  <h2 className="flex flex-wrap items-baseline gap-x-3 border-b border-edge pb-0.5 text-[18px] font-semibold">
                    {n + 1}. {stage.name}
                    <span className="text-[14px] font-normal tabular-nums text-quiet">
                      {stage.placed} of {stage.parts.length} in
                    </span>
                  </h2>
                  <ul className="mt-1 grid gap-x-6 min-[620px]:grid-cols-2" aria-label={stage.name}>
                    {stage.parts.map((part) => (
                      <li key={part.ref}>
                        <label
                          className={`flex min-h-[28px] items-baseline gap-2 text-[14.5px] ${
                            next.do === 'place' && next.part.ref === part.ref ? 'bg-volt-soft' : ''
                          }`}
                        >
                          <input
                            type="checkbox"
                            checked={placed.has(tickOf(part))}
                            onChange={(e) => tick(part, e.target.checked)}
                          />
                          <span className="min-w-[42px] font-semibold">{part.ref}</span>
                          <span className="min-w-0">
                            {part.value} <span className="text-quiet">{part.what}</span>
                            {pinoutOf(part) && <span title="It has a right way round"> ↑</span>}
                          </span>
                        </label>
                      </li>
                    ))}
                  </ul>
                  {stage.tests.length > 0 && (
                    <p className="mt-1 text-[14.5px]">
                      Then measure{' '}
                      <Link className="font-semibold underline" href={roomPath(id, 'bench')}>
                        {stage.tests.join(', ').toLowerCase()}
                      </Link>
                      {stage.tested ? ': read.' : ', before anything of the next stage goes in.'}
                    </p>
                  )}
                </li>
              ))}
            </ol>
          </div>
          <aside className="min-[900px]:sticky min-[900px]:top-3 min-[900px]:self-start" aria-label="Next">
            <NextStep next={next} benchPath={roomPath(id, 'bench')} onPlaced={(part) => tick(part, true)} />
          </aside>
        </div>
        <Kit />
      </div>
    </Room>
  );
}

function NextStep({
  next,
  benchPath,
  onPlaced,
}: {
  next: AssemblyNext;
  benchPath: string;
  onPlaced(part: NetPart): void;
}) {
  if (next.do === 'done')
    return (
      <section className="border-l-[3px] border-volt pl-3">
        <h2 className="text-[19px] font-semibold">All of it is in, and every stage was read</h2>
        <p className="text-[14.5px]">What it does against load, and the sheet that stays with it, are next.</p>
      </section>
    );
  if (next.do === 'test')
    return (
      <section className="border-l-[3px] border-tight pl-3" data-testid="assembly-next">
        <h2 className="text-[19px] font-semibold">Now measure: {next.tests.join(', ').toLowerCase()}</h2>
        <p className="text-[14.5px]">
          Everything of “{next.stage}” is in its place. Nothing further goes in until it reads what it should: a fault
          found now is in these few parts.
        </p>
        <p role="note" className="mt-1 text-[14.5px] text-fail">
          The first time through a series lamp or a limited source; unplug and discharge through a resistor before you
          touch anything again, and check with the meter.
        </p>
        <Link className="btn btn-main mt-2 inline-flex" href={benchPath}>
          To the power-up
        </Link>
      </section>
    );
  return <NextPart key={next.part.ref} part={next.part} onPlaced={() => onPlaced(next.part)} />;
}

function NextPart({ part, onPlaced }: { part: NetPart; onPlaced(): void }) {
  const pinout = pinoutOf(part);
  return (
    <section className="border-l-[3px] border-volt pl-3" data-testid="assembly-next">
      <p className="text-[14px] text-quiet">Next</p>
      <h2 className="text-[22px] font-semibold leading-7">
        {part.ref}{' '}
        <span className="font-normal">
          {part.value}
          {part.rating && `, ${part.rating}`}
        </span>
      </h2>
      <p className="text-[15px]">{capitalised(part.what)}</p>
      <PinsTable pins={part.pins} />
      {pinout && <PinoutFigure pinout={pinout} />}
      {part.block === 'mains' && (
        <p role="note" className="mt-2 text-[14.5px] text-fail">
          Mains: unplugged while you work, every joint insulated, earth first. Local rules and a licensed electrician
          decide.
        </p>
      )}
      <button type="button" className="btn btn-main mt-2" onClick={onPlaced}>
        It is in
      </button>
    </section>
  );
}
