'use client';

import Link from 'next/link';
import { useEffect, useRef, useState } from 'react';
import { mainsToday } from '@/core/bench/readings';
import type { LoadRow } from '@/core/design/design';
import { LOAD_ROWS_MAX } from '@/core/design/how-many';
import { mainModel } from '@/core/design/outputs';
import { planFault, type SweepEnd, type SweepPlan } from '@/core/instrument/sweep';
import { formatForInput, formatQuantity } from '@/core/quantity/format';
import { parseQuantity, type Unit } from '@/core/quantity/parse';
import { Alert } from '@/ui/alert';
import { simulatedWords, useInstruments } from '@/ui/instruments';
import { roomPath } from '@/ui/places';
import { useDesign, useEdit, useSession, useView } from '@/ui/session';
import { runRemoteSweep } from './run-sweep';

interface Asked {
  from: string;
  to: string;
  steps: string;
  settle: string;
  leastV: string;
  mostW: string;
  mostC: string;
  mostMinutes: string;
}

const FIELDS: readonly { key: keyof Asked; label: string; unit: Unit }[] = [
  { key: 'from', label: 'From', unit: 'A' },
  { key: 'to', label: 'To', unit: 'A' },
  { key: 'steps', label: 'Steps', unit: '' },
  { key: 'settle', label: 'Each hangs on', unit: 's' },
];
const LIMITS: readonly { key: keyof Asked; label: string; unit: Unit }[] = [
  { key: 'leastV', label: 'Volts below', unit: 'V' },
  { key: 'mostW', label: 'Watts above', unit: 'W' },
  { key: 'mostC', label: 'Metal above', unit: '°C' },
  { key: 'mostMinutes', label: 'Minutes', unit: '' },
];

/** The load line taken by the electronic load: a plan, its limits, and rows as they are read. */
export function Sweep() {
  const design = useDesign();
  const edit = useEdit();
  const session = useSession();
  const id = useView((s) => s.id);
  const { bench, trouble } = useInstruments();
  const { outputA, outputV } = design.demand;
  const [asked, setAsked] = useState<Asked>(() => ({
    from: '0 A',
    to: formatForInput(outputA, 'A'),
    steps: '6',
    settle: '6 s',
    leastV: formatForInput(Number((0.5 * outputV).toPrecision(2)), 'V'),
    mostW: formatForInput(Number((2 * outputV * outputA).toPrecision(2)), 'W'),
    mostC: '90 °C',
    mostMinutes: '20',
  }));
  const [meterOn, setMeterOn] = useState<SweepPlan['meterOn']>('reservoir');
  const [running, setRunning] = useState<AbortController | null>(null);
  const [rows, setRows] = useState<LoadRow[]>([]);
  const [end, setEnd] = useState<SweepEnd | null>(null);
  const [fault, setFault] = useState<string | null>(null);
  const current = useRef<AbortController | null>(null);
  // Leaving the page is stopping: the load is not left on behind a closed door.
  useEffect(() => () => current.current?.abort(), []);

  const load = bench?.instruments.find((i) => i.kind === 'load');
  const meter = bench?.instruments.find((i) => i.kind === 'meter');
  const regulated = mainModel(design) !== null;

  function plan(): SweepPlan | string {
    const read: Record<string, number> = {};
    for (const f of [...FIELDS, ...LIMITS]) {
      const value = parseQuantity(asked[f.key], f.unit);
      if (!value.ok) return `${f.label}: ${value.error}`;
      read[f.key] = value.value;
    }
    const { from, to, steps, settle } = read as Record<keyof Asked, number>;
    if (!Number.isInteger(steps) || steps < 2 || steps > 100) return 'Steps: a whole number from 2 to 100.';
    const planned: SweepPlan = {
      amps: Array.from({ length: steps }, (_, n) => Number((from + ((to - from) * n) / (steps - 1)).toPrecision(6))),
      settleS: settle,
      sourceV: mainsToday(design),
      meterOn: meter ? meterOn : 'none',
      limits: {
        leastV: read['leastV']!,
        mostA: Math.max(from, to),
        mostW: read['mostW']!,
        mostC: regulated ? read['mostC']! : null,
        mostMinutes: read['mostMinutes']!,
      },
    };
    if (design.bench.loadLine.length + steps > LOAD_ROWS_MAX)
      return `A load line holds ${LOAD_ROWS_MAX} rows: remove some first.`;
    return planFault(planned) ?? planned;
  }

  async function start() {
    const planned = plan();
    if (typeof planned === 'string') return setFault(planned);
    setFault(null);
    setEnd(null);
    setRows([]);
    const stop = new AbortController();
    current.current = stop;
    setRunning(stop);
    session.document.beginGesture();
    const told = await runRemoteSweep({ design, plan: planned, metal: regulated }, stop.signal, (row) => {
      setRows((before) => [...before, row]);
      // As it stands now: rows may have been changed by hand meanwhile.
      edit({ bench: { loadLine: [...session.document.getState().design.bench.loadLine, row] } });
    });
    session.document.endGesture();
    setRunning(null);
    if ('fault' in told) setFault(told.fault);
    else setEnd(told);
  }

  const field = (f: (typeof FIELDS)[number]) => (
    <label key={f.key} className="w-[104px] text-[13.5px] text-quiet">
      {f.label}
      <input
        className="field text-ink"
        disabled={running !== null}
        value={asked[f.key]}
        autoComplete="off"
        onChange={(e) => setAsked({ ...asked, [f.key]: e.target.value })}
      />
    </label>
  );
  if (trouble) return <Alert>{trouble}</Alert>;
  if (!bench) return <p className="py-2 text-quiet">Asking who is there…</p>;
  if (!load)
    return (
      <p className="border-l-[3px] border-rule bg-raised px-4 py-3 text-[14.5px]">
        No electronic load is entered yet. Enter yours, or start stand-ins, under{' '}
        <Link className="underline" href={roomPath(id, 'instruments')}>
          Instruments
        </Link>
        .
      </p>
    );
  const last = rows.at(-1);
  return (
    <section aria-label="Sweep" className="border-l-[3px] border-volt bg-raised px-4 py-3">
      <p className="font-semibold text-tight">{simulatedWords(bench)}</p>
      {bench.playing && bench.playing.name !== design.name && (
        <p className="font-semibold text-fail">
          ⚠ The stand-ins play ‘{bench.playing.name}’: their rows would not be this supply’s. Start them anew under
          Instruments.
        </p>
      )}
      <div className="mt-1 flex flex-wrap gap-x-3 gap-y-2">{FIELDS.map(field)}</div>
      <p className="mt-2 text-[13.5px] font-semibold">Stops by itself at</p>
      <div className="flex flex-wrap gap-x-3 gap-y-2">
        {LIMITS.filter((f) => f.key !== 'mostC' || regulated).map(field)}
        {meter && (
          <label className="w-[150px] text-[13.5px] text-quiet">
            The meter is on
            <select
              className="field text-ink"
              disabled={running !== null}
              value={meterOn}
              onChange={(e) => setMeterOn(e.target.value as SweepPlan['meterOn'])}
            >
              <option value="reservoir">the reservoir</option>
              <option value="output">the output</option>
              <option value="none">nothing of it</option>
            </select>
          </label>
        )}
      </div>
      <div className="mt-3 flex flex-wrap items-center gap-3">
        {running ? (
          <button type="button" className="btn btn-main" onClick={() => running.abort()}>
            Stop, load off
          </button>
        ) : (
          <button type="button" className="btn btn-main" onClick={() => void start()}>
            Start the sweep
          </button>
        )}
        <p className="min-h-[22px] text-[14.5px]" aria-live="polite" data-testid="sweep-state">
          {running &&
            `Load on. ${rows.length} of ${asked.steps} read${last ? `; ${formatQuantity(last.loadA, 'A')} at ${formatQuantity(last.outputV ?? last.reservoirV ?? 0, 'V')}` : ''}.`}
          {!running && end && (
            <>
              {end.complete ? '● ' : '✕ '}
              {end.why} {rows.length} {rows.length === 1 ? 'row' : 'rows'} kept.{' '}
              {end.off ? (
                'The load says it is off.'
              ) : (
                <strong className="text-fail">
                  ⚠ Whether the load is off is not known: {end.offFault} Look at it.
                </strong>
              )}
            </>
          )}
        </p>
      </div>
      {fault && <Alert className="mt-1 text-[14px]">{fault}</Alert>}
    </section>
  );
}
