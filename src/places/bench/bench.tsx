'use client';

import { useEffect, useRef, useState, type KeyboardEvent } from 'react';
import { judgedWhenFed, judgeReading, latestReadings, mainsToday } from '@/core/bench/readings';
import type { TestPoint } from '@/core/bench/test-point';
import type { Design, Reading } from '@/core/design/design';
import { FED_FROM } from '@/core/design/kinds';
import { termsOf } from '@/core/design/source';
import { formatQuantity } from '@/core/quantity/format';
import { useDesign, useEdit, useView } from '@/ui/session';
import { Explained } from '@/ui/explained';
import { Room } from '@/ui/room';
import { Working } from '@/ui/working';
import type { RemoteSolver } from '@/workers/client';
import { FED_ADVICE, FED_THROUGH, FED_WORDS } from './fed-words';
import { OneAtATime } from './one-at-a-time';
import { OwnInstruments } from './own-instruments';
import { useTypedReading } from './typed-reading';
import { WindowGauge } from './window-gauge';
import { useSolved } from '@/ui/use-solved';

const askBench = (solver: RemoteSolver, design: Design) => solver.bench(design);

/** Bench: is it right? A notebook page in the order of a staged power-up, read and typed without the mouse. */
export function Bench() {
  const design = useDesign();
  const edit = useEdit();
  const hazard = useView((s) => s.picture?.hazard ?? null);
  const [understood, setUnderstood] = useState(false);
  const [opened, setOpened] = useState<string | null>(null);
  const [own, setOwn] = useState(false);
  const [large, setLarge] = useState(false);
  const [fedFrom, setFedFrom] = useState<Reading['fedFrom']>(design.source.kind === 'mains' ? 'mains' : 'bench supply');
  const list = useRef<HTMLOListElement>(null);

  const { value: points, trouble } = useSolved(askBench);

  const there = points !== null;
  // Past the gate the first reading is next, whichever of gate and points comes last.
  useEffect(() => {
    if (understood && there) list.current?.querySelector<HTMLInputElement>('input[data-reading]')?.focus();
  }, [understood, there]);

  const dc = design.source.kind !== 'mains';
  const say = termsOf(design);
  const latest = latestReadings(design.bench.readings);
  const mainsV = mainsToday(design);

  function keep(point: TestPoint, value: number) {
    const reading: Reading = {
      point: point.id,
      value,
      mainsV: point.id === 'mains' ? value : mainsV,
      fedFrom,
      at: new Date().toISOString(),
    };
    edit({ bench: { readings: [...design.bench.readings, reading] } });
  }

  function next(from: HTMLElement, direction: number) {
    const inputs = [...(list.current?.querySelectorAll<HTMLInputElement>('input[data-reading]') ?? [])];
    inputs[inputs.indexOf(from as HTMLInputElement) + direction]?.focus();
  }

  const stages = points ? [...new Set(points.map((p) => p.stage))] : [];
  return (
    <Room name={null} className="">
      <div className="mx-auto max-w-[1060px] px-5 pb-12 pt-4">
        <div>
          <div>
            <h1 className="text-[23px] font-semibold leading-7">Power-up, stage by stage</h1>
            <p className="text-quiet">
              Type a reading, press Enter, go on to the next. Windows follow {dc ? `the ${say.source}` : 'the mains'}{' '}
              you read: <strong className="text-ink">{formatQuantity(mainsV, 'V')}</strong>
              {latest.has('mains') ? '' : ' (nominal; none read yet)'}.
            </p>
          </div>
          <div className="mt-2 flex flex-wrap items-center gap-x-3 gap-y-2">
            <label className="flex items-center gap-2 text-[14.5px]">
              Fed from
              <select
                className="field !w-[140px]"
                value={fedFrom}
                onChange={(e) => setFedFrom(e.target.value as Reading['fedFrom'])}
              >
                {FED_FROM.map((f) => (
                  <option key={f} value={f}>
                    {FED_WORDS[f]}
                  </option>
                ))}
              </select>
            </label>
            <button type="button" className="btn" aria-expanded={own} onClick={() => setOwn(!own)}>
              Your instruments
            </button>
            <button type="button" className="btn" aria-pressed={large} onClick={() => setLarge(!large)}>
              Large, one at a time
            </button>
            <p className="text-[14px] text-quiet">{FED_ADVICE[fedFrom]}</p>
          </div>
        </div>
        {own && <OwnInstruments />}
        {!understood ? (
          <section
            aria-label={`Before the ${say.source}`}
            className="mt-4 rounded border-2 border-fail bg-fail-soft p-4"
          >
            <h2 className="text-[18px] font-semibold text-fail">Before the {say.source}</h2>
            {hazard && <p className="mt-1 font-semibold">⚠ {hazard}</p>}
            <Before kind={design.source.kind} />
            <button
              type="button"
              className="btn btn-main mt-3"
              onClick={() => {
                setUnderstood(true);
              }}
            >
              I have read this and checked these
            </button>
          </section>
        ) : (
          hazard && <p className="mt-3 font-semibold text-fail">⚠ {hazard}</p>
        )}
        {trouble && (
          <p role="alert" className="mt-4 text-fail">
            The windows could not be worked out. {trouble}
          </p>
        )}
        {!points && !trouble && (
          <p className="mt-6 text-quiet" aria-live="polite">
            Simulating the test points…
          </p>
        )}
        {points && large && (
          <OneAtATime
            points={points}
            latest={latest}
            enabled={understood}
            judged={(r) => judgedWhenFed(design, r.fedFrom)}
            onKeep={keep}
          />
        )}
        {points && !large && (
          <ol ref={list} className="mt-4">
            {stages.map((stage, n) => (
              <li key={stage} className="border-t border-rule py-3">
                <h2 className="mb-1 text-[16px] font-semibold">
                  <span className="text-quiet">{n + 1}</span> {stage}
                </h2>
                <ul className="space-y-3">
                  {points
                    .filter((p) => p.stage === stage)
                    .map((p) => (
                      <Step
                        key={p.id}
                        point={p}
                        reading={latest.get(p.id)}
                        judged={(r) => judgedWhenFed(design, r.fedFrom)}
                        enabled={understood}
                        working={opened === p.id}
                        onWorking={() => setOpened(opened === p.id ? null : p.id)}
                        onKeep={(value) => keep(p, value)}
                        onMove={next}
                      />
                    ))}
                </ul>
              </li>
            ))}
          </ol>
        )}
      </div>
    </Room>
  );
}

/** What has to be right before the first power, by what gives it. */
function Before({ kind }: { kind: Design['source']['kind'] }) {
  if (kind === 'mains')
    return (
      <ul className="mt-1 list-disc space-y-0.5 pl-5">
        <li>
          Mains and a charged reservoir can kill. Pull the plug before touching, measure before touching, discharge
          through a resistor, then check with a meter.
        </li>
        <li>
          Time-lag fuse and rated switch in the primary, protective earth on all exposed metal, nothing live within
          reach.
        </li>
        <li>
          First power through a series lamp (40–60 W for a small transformer, 100 W above 100 VA). One hand, never alone
          above 60 V DC, eye protection.
        </li>
        <li>
          Electrolytics and diodes the right way round. Local codes and a licensed electrician or qualified engineer
          decide, not this page.
        </li>
      </ul>
    );
  return (
    <ul className="mt-1 list-disc space-y-0.5 pl-5">
      <li>
        {kind === 'battery'
          ? 'A battery drives whatever its resistance allows into a short: fuse close to its terminal, no rings, no loose spanners.'
          : 'A bought, approved adapter; the mains stays inside it. Check DC and polarity with a meter before the first plug.'}
      </li>
      <li>Which way round: measure the polarity at the plug, then the diode and every electrolytic.</li>
      <li>
        First power through a bench supply with its limit at 100 to 150 % of the idle draw, or through a fuse. Eye
        protection: electrolytics the wrong way round explode.
      </li>
      <li>
        Unplug before touching; discharge the reservoir through a resistor. Local codes and a qualified person decide,
        not this page.
      </li>
    </ul>
  );
}

interface StepProps {
  point: TestPoint;
  reading: Reading | undefined;
  /** Whether a reading can be held against the window: not through a lamp. */
  judged(reading: Reading): boolean;
  enabled: boolean;
  working: boolean;
  onWorking(): void;
  onKeep(value: number): void;
  onMove(from: HTMLElement, direction: number): void;
}

function Step({ point, reading, judged, enabled, working, onWorking, onKeep, onMove }: StepProps) {
  const id = `reading-${point.id}`;
  const { draft, setDraft, fault, setFault, shown, commit } = useTypedReading(point, reading, onKeep);
  const verdict = reading && judged(reading) ? judgeReading(point, reading.value) : null;

  function onKeyDown(event: KeyboardEvent<HTMLInputElement>) {
    if (draft !== null && (event.ctrlKey || event.metaKey) && event.key.toLowerCase() === 'z') event.stopPropagation();
    if (event.key === 'Enter' && commit(event.currentTarget.value)) onMove(event.currentTarget, 1);
    if (event.key === 'ArrowDown' || event.key === 'ArrowUp') {
      event.preventDefault();
      onMove(event.currentTarget, event.key === 'ArrowDown' ? 1 : -1);
    }
    if (event.key === 'Escape') {
      setDraft(null);
      setFault(null);
    }
  }

  return (
    <li
      className="grid grid-cols-[minmax(0,1fr)] items-start gap-x-4 gap-y-1 min-[900px]:grid-cols-[minmax(0,1fr)_250px_130px_minmax(150px,210px)]"
      data-testid={`step-${point.id}`}
    >
      <div className="min-w-0">
        <label htmlFor={id} className="text-[15.5px] font-semibold">
          {point.label}
        </label>
        <p className="text-[14px] leading-snug text-quiet">
          <Explained text={point.how} />
        </p>
        {point.caution && <p className="mt-0.5 text-[14px] font-semibold leading-snug text-fail">⚠ {point.caution}</p>}
      </div>
      <div>
        <button
          type="button"
          className="num w-full"
          aria-expanded={working}
          onClick={onWorking}
          aria-label={`Expected ${formatQuantity(point.low, point.unit)} to ${formatQuantity(point.high, point.unit)}: show the working`}
        >
          {formatQuantity(point.low, point.unit)} to {formatQuantity(point.high, point.unit)}
        </button>
        <WindowGauge point={point} value={reading?.value} />
      </div>
      <div>
        <input
          id={id}
          data-reading
          className="field !h-[34px] text-[16px]"
          inputMode="decimal"
          autoComplete="off"
          disabled={!enabled}
          placeholder={point.unit}
          value={shown}
          aria-invalid={fault !== null}
          aria-describedby={`${id}-said`}
          // A new reading takes the place of the old one.
          onFocus={(e) => e.currentTarget.select()}
          onChange={(e) => setDraft(e.target.value)}
          onBlur={(e) => commit(e.target.value)}
          onKeyDown={onKeyDown}
        />
      </div>
      <div id={`${id}-said`} aria-live="polite" className="text-[14px] leading-snug">
        {fault && <p className="text-fail">{fault}</p>}
        {!fault && reading && !verdict && (
          <p className="text-quiet">Read {FED_THROUGH[reading.fedFrom]}: kept, not held against the window.</p>
        )}
        {!fault && verdict && (
          <>
            <p className={`font-semibold ${verdict.state === 'as expected' ? 'text-volt' : 'text-fail'}`}>
              {verdict.state === 'as expected'
                ? '● As expected'
                : `✕ ${verdict.state === 'too low' ? 'Too low' : 'Too high'} by ${formatQuantity(Math.abs(verdict.offBy), point.unit === '°C' ? 'K' : point.unit, 2)}`}
            </p>
            {verdict.hint && <p>{verdict.hint}</p>}
            <p className="text-[13px] text-quiet">
              {when(reading!.at)}
              {point.id === 'mains' ? '' : ` at ${formatQuantity(reading!.mainsV, 'V')}`}
              {reading!.fedFrom === 'mains' ? '' : `, ${FED_WORDS[reading!.fedFrom]}`}
            </p>
          </>
        )}
      </div>
      {working && (
        <div className="mt-2 border-l-2 min-[900px]:col-span-4 border-volt pl-3">
          <Working figure={point.expected} />
        </div>
      )}
    </li>
  );
}

function when(iso: string): string {
  return `${iso.slice(0, 10)} ${iso.slice(11, 16)} UTC`;
}
