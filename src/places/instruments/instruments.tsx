'use client';

import { Download } from 'lucide-react';
import { useEffect, useRef, useState } from 'react';
import { INSTRUMENT_KINDS } from '@/core/instrument/commands';
import { Alert } from '@/ui/alert';
import { INSTRUMENT_WORDS, playStandIns, simulatedWords, useInstruments } from '@/ui/instruments';
import { Room } from '@/ui/room';
import { useDesign } from '@/ui/session';
import { Entered } from './entered';
import { StandInPanel } from './stand-in-panel';

/** The demo's build of a supply: always the same one. */
const DEMO_BUILD = { seed: 12, faulty: false, speed: 60 };

/** Instruments: what reads and loads the supply by itself, over the network of the house. */
export function Instruments() {
  const design = useDesign();
  const { bench, trouble, look } = useInstruments();
  const begun = useRef(false);
  // The demo brings its instruments along: around the supply that is open, where nobody entered others.
  useEffect(() => {
    if (!bench?.demo || bench.instruments.length > 0 || begun.current) return;
    begun.current = true;
    void playStandIns({ design, ...DEMO_BUILD }).then(look);
  }, [bench, design, look]);

  const simulated = bench && simulatedWords(bench);
  return (
    <Room name={null} className="">
      <div className="mx-auto max-w-[1080px] px-5 pb-12 pt-4">
        <h1 className="text-[23px] font-semibold leading-7">Instruments on the network</h1>
        <p className="max-w-[820px] text-quiet">
          They are spoken to by this program alone, at addresses you enter and confirm, on this machine or in the house.
          Their words are the common ones; where a make differs, change the line.
        </p>
        <p className="mt-2 min-h-[24px] font-semibold text-tight" data-testid="simulated">
          {simulated}
        </p>
        {trouble && <Alert>{trouble}</Alert>}
        {!bench && !trouble && <p className="mt-4 text-quiet">Asking who is there…</p>}
        {bench && (
          <>
            <StandInPanel bench={bench} onChange={look} />
            <ul className="mt-4">
              {INSTRUMENT_KINDS.map((kind) => {
                const instrument = bench.instruments.find((i) => i.kind === kind);
                return (
                  <Entered
                    key={`${kind} ${instrument?.host ?? ''} ${instrument?.port ?? ''}`}
                    kind={kind}
                    name={INSTRUMENT_WORDS[kind]}
                    instrument={instrument}
                    onChange={look}
                  />
                );
              })}
            </ul>
            <Said />
          </>
        )}
      </div>
    </Room>
  );
}

/** The last lines that went either way. */
const SHOWN = 14;

function Said() {
  const [lines, setLines] = useState<string[] | null>(null);
  const show = async () => {
    const response = await fetch('/api/instruments/log').catch(() => null);
    setLines(response?.ok ? (await response.text()).trim().split('\n').filter(Boolean) : []);
  };
  return (
    <section aria-label="What was said" className="mt-5 border-t border-rule pt-3">
      <div className="flex flex-wrap items-center gap-2">
        <h2 className="mr-auto text-[17px] font-semibold">What was said</h2>
        <button type="button" className="btn" onClick={() => void show()}>
          {lines === null ? 'Show it' : 'Look again'}
        </button>
        <a className="btn" href="/api/instruments/log" download="instrument-log.txt">
          <Download size={15} /> Save the log
        </a>
      </div>
      {lines && (
        <pre
          className="mt-2 overflow-x-auto bg-sunk px-3 py-2 text-[12.5px] leading-[1.45]"
          tabIndex={0}
          aria-label="Last lines of the log"
        >
          {lines.length === 0 ? 'Nothing yet.' : lines.slice(-SHOWN).join('\n')}
        </pre>
      )}
    </section>
  );
}
