'use client';

import Link from 'next/link';
import { useState } from 'react';
import type { FaultReport, Suspect } from '@/core/bench/find-fault';
import { mainModel } from '@/core/design/outputs';
import { formatQuantity } from '@/core/quantity/format';
import { roomPath } from '@/ui/places';
import { Room } from '@/ui/room';
import { useDesign, useView } from '@/ui/session';
import { Working } from '@/ui/working';
import { FaultTerrace } from './fault-terrace';
import { useFaults, type Weighing } from './use-faults';

/** Less belief than this is not listed by itself. */
const LISTED = 0.005;

/** Faults: what may be wrong with the built supply, weighed by everything that was read of it. */
export function Faults() {
  const design = useDesign();
  const id = useView((s) => s.id);
  const hazard = useView((s) => s.picture?.hazard ?? null);
  const weighing = useFaults();
  const { value: report, of, trouble } = weighing;
  const stale = of !== null && of !== design;
  return (
    <Room name={null} className="">
      <div className="mx-auto max-w-[1240px] px-5 pb-12 pt-4">
        <div className="flex min-h-[34px] flex-wrap items-center justify-between gap-x-6">
          <h1 className="text-[23px] font-semibold leading-7">What may be wrong with it</h1>
          <HowFar weighing={weighing} />
        </div>
        <p className="max-w-[860px] text-quiet">
          Every fault is built into this very design and solved, with its parts anywhere in their tolerances, and held
          against all you read on{' '}
          <Link className="underline" href={roomPath(id, 'bench')}>
            Power-up
          </Link>{' '}
          and{' '}
          <Link className="underline" href={roomPath(id, 'line')}>
            Load line
          </Link>
          .
        </p>
        {hazard && <p className="mt-1 font-semibold text-fail">⚠ {hazard}</p>}
        {trouble && (
          <p role="alert" className="text-fail">
            The faults could not be weighed. {trouble}
          </p>
        )}
        {typeof report === 'string' && <p className="mt-4">{report}</p>}
        {report !== null && typeof report !== 'string' && (
          <div className={stale ? 'opacity-60' : ''} aria-busy={stale} data-testid="fault-report">
            <Weighed report={report} />
          </div>
        )}
      </div>
    </Room>
  );
}

/** How far the weighing is, and its stop. */
function HowFar({ weighing: { progress, stopped, stop, again } }: { weighing: Weighing }) {
  if (stopped)
    return (
      <p className="flex items-center gap-3 text-[14.5px]">
        Stopped before all were weighed.
        <button type="button" className="btn" onClick={again}>
          Weigh them
        </button>
      </p>
    );
  return (
    progress && (
      <p className="flex items-center gap-3 text-[14.5px] text-quiet">
        <span aria-live="polite">Building each fault into the design…</span>
        {progress.of > 0 && (
          <progress value={progress.done} max={progress.of} aria-label="Faults weighed" className="h-2 w-40" />
        )}
        <button type="button" className="btn" onClick={stop}>
          Stop
        </button>
      </p>
    )
  );
}

function Weighed({ report }: { report: FaultReport }) {
  const [opened, setOpened] = useState<string | null>(null);
  const listed = report.suspects.filter((s, n) => n < 2 || s.probability >= LISTED);
  const rest = report.suspects.filter((s) => !listed.includes(s));
  const open = report.suspects.find((s) => s.fault === opened) ?? report.suspects[0]!;
  return (
    <div className="mt-3 grid grid-cols-[minmax(0,1fr)] gap-x-8 gap-y-5 min-[1000px]:grid-cols-[minmax(0,1fr)_minmax(320px,440px)]">
      <section aria-label="Suspects">
        <ol className="space-y-1">
          {listed.map((s) => (
            <li key={s.fault}>
              <button
                type="button"
                aria-pressed={s.fault === open.fault}
                className={`grid w-full grid-cols-[74px_minmax(0,1fr)] items-center gap-3 border-l-[3px] px-3 py-1.5 text-left ${s.fault === open.fault ? 'border-volt bg-raised' : 'border-transparent'}`}
                onClick={() => setOpened(s.fault)}
                data-testid="suspect"
              >
                <span className="whitespace-nowrap text-[21px] font-semibold tabular-nums">{share(s.probability)}</span>
                <span>
                  <span className="text-[16.5px] font-semibold">{s.name}</span>
                  {s.where && <span className="text-quiet">, {s.where}</span>}
                  <span aria-hidden="true" className="mt-1 block h-[5px] bg-sunk">
                    <span
                      className={`block h-full ${s.fault === 'none' ? 'bg-volt' : 'bg-ember'}`}
                      style={{ width: `${100 * s.probability}%` }}
                    />
                  </span>
                </span>
              </button>
            </li>
          ))}
        </ol>
        {rest.length > 0 && (
          <p className="mt-2 px-3 text-[13.5px] text-quiet">
            Weighed too, and below half a per cent each: {rest.map((s) => lowerFirst(s.name)).join('; ')}.
          </p>
        )}
        <section aria-label="Worth reading next" className="mt-5 border-t border-rule px-3 pt-3">
          <h2 className="text-[18px] font-semibold">Worth reading next</h2>
          {report.next.length === 0 ? (
            <p className="text-[14.5px]">Nothing would change this much. Confirm the first, unpowered.</p>
          ) : (
            <ol className="mt-1 list-decimal space-y-1 pl-5 text-[15px]">
              {report.next.map((n) => (
                <li key={n.label}>
                  {n.label}
                  <span className="text-[13.5px] text-quiet">
                    , {n.minutes} min, {n.powered ? 'powered' : 'no power'}; {tells(n.gain)}
                  </span>
                </li>
              ))}
            </ol>
          )}
        </section>
      </section>
      <Opened suspect={open} sound={report.sound} />
    </div>
  );
}

/** One suspect: what it explains and what not, and how it is proved. */
function Opened({ suspect: s, sound }: { suspect: Suspect; sound: FaultReport['sound'] }) {
  const regulated = mainModel(useDesign()) !== null;
  const missed = s.readings.filter((r) => !r.explained);
  return (
    <section aria-label={s.name} className="space-y-2" data-testid="opened-suspect">
      <h2 className="text-[18px] font-semibold">
        {s.name}
        {s.where && <span className="font-normal text-quiet">, {s.where}</span>}
      </h2>
      {s.caution && <p className="font-semibold text-fail">⚠ {s.caution}</p>}
      {sound && (
        <FaultTerrace
          sound={sound}
          faulty={s.fault === 'none' ? null : s.line}
          readings={s.readings}
          regulated={regulated}
        />
      )}
      <p className="text-[15px]">
        <strong>To be sure:</strong> {s.confirm}
      </p>
      {s.readings.length > 0 && (
        <>
          <p className="text-[14px]">
            {missed.length === 0
              ? `It explains all ${s.readings.length} readings.`
              : `It explains ${s.readings.length - missed.length} of ${s.readings.length} readings; not ${missed.map((r) => r.label).join(', ')}.`}
          </p>
          <table className="w-full text-[14px]">
            <thead className="text-left text-[13px] text-quiet">
              <tr>
                <th className="font-normal">Reading</th>
                <th className="text-right font-normal">read</th>
                <th className="text-right font-normal">sound</th>
                <th className="text-right font-normal">{s.fault === 'none' ? 'at best fit' : 'with this fault'}</th>
                <th className="pl-3 font-normal">explained</th>
              </tr>
            </thead>
            <tbody>
              {s.readings.map((r) => (
                <tr key={r.label} className="border-t border-rule/60">
                  <td className="py-0.5">{r.label}</td>
                  <td className="text-right tabular-nums">{formatQuantity(r.read, r.unit)}</td>
                  <td className="text-right tabular-nums text-quiet">{formatQuantity(r.sound, r.unit)}</td>
                  <td className="text-right tabular-nums">{formatQuantity(r.computed, r.unit)}</td>
                  <td className={`pl-3 ${r.explained ? '' : 'font-semibold text-fail'}`}>
                    {r.explained ? 'yes' : '✕ no'}
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
          <p className="text-[13px] text-quiet">
            Computed {s.fault === 'none' ? '' : 'with the fault as bad as fits best and '}with every part where it fits
            best inside its spread.
          </p>
        </>
      )}
      <h3 className="pt-2 text-[15px] font-semibold">Its share of belief</h3>
      <Working figure={s.figure} named={false} />
    </section>
  );
}

function share(probability: number): string {
  if (probability > 0.995) return '> 99 %';
  if (probability < 0.005) return '< 1 %';
  return `${Math.round(100 * probability)} %`;
}

const tells = (bits: number) =>
  bits > 0.7 ? 'would all but decide it' : bits > 0.25 ? 'would tell much' : 'would tell a little';

const lowerFirst = (text: string) => text[0]!.toLowerCase() + text.slice(1);
