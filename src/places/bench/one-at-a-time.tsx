'use client';

import { useEffect, useRef, useState } from 'react';
import { judgeReading } from '@/core/bench/readings';
import { Explained } from '@/ui/explained';
import type { TestPoint } from '@/core/bench/test-point';
import type { Reading } from '@/core/design/design';
import { formatQuantity } from '@/core/quantity/format';
import { Working } from '@/ui/working';
import { useTypedReading } from './typed-reading';

interface Props {
  points: readonly TestPoint[];
  latest: ReadonlyMap<string, Reading>;
  enabled: boolean;
  judged(reading: Reading): boolean;
  onKeep(point: TestPoint, value: number): void;
}

/** The power-up for a tablet a metre away: one point fills the page; Enter keeps a reading, Enter again goes on. */
export function OneAtATime({ points, latest, enabled, judged, onKeep }: Props) {
  const [at, setAt] = useState(() =>
    Math.max(
      0,
      points.findIndex((p) => !latest.has(p.id)),
    ),
  );
  const point = points[Math.min(at, points.length - 1)]!;
  return (
    <section aria-label="One at a time" className="mt-4 border-t border-rule pt-4" data-testid="large-step">
      <div className="flex flex-wrap items-center gap-3 text-[19px]">
        <p className="mr-auto text-quiet">
          {at + 1} of {points.length}, {point.stage}
        </p>
        <button
          type="button"
          className="btn !min-h-[48px] text-[18px]"
          disabled={at === 0}
          onClick={() => setAt(at - 1)}
        >
          ← Back
        </button>
        <button
          type="button"
          className="btn !min-h-[48px] text-[18px]"
          disabled={at >= points.length - 1}
          onClick={() => setAt(at + 1)}
        >
          On →
        </button>
      </div>
      <Large
        key={point.id}
        point={point}
        reading={latest.get(point.id)}
        enabled={enabled}
        judged={judged}
        onKeep={(v) => onKeep(point, v)}
        onNext={() => setAt(Math.min(at + 1, points.length - 1))}
      />
    </section>
  );
}

function Large({
  point,
  reading,
  enabled,
  judged,
  onKeep,
  onNext,
}: {
  point: TestPoint;
  reading: Reading | undefined;
  enabled: boolean;
  judged(reading: Reading): boolean;
  onKeep(value: number): void;
  onNext(): void;
}) {
  const { draft, setDraft, fault, shown, commit } = useTypedReading(point, reading, onKeep);
  const verdict = reading && judged(reading) ? judgeReading(point, reading.value) : null;
  const [working, setWorking] = useState(false);
  const field = useRef<HTMLInputElement>(null);
  useEffect(() => field.current?.focus(), [enabled]);
  return (
    <div className="mt-2">
      <h2 className="text-[34px] font-semibold leading-tight">{point.label}</h2>
      <p className="text-[20px] leading-snug">
        <Explained text={point.how} />
      </p>
      {point.caution && <p className="mt-1 text-[20px] font-semibold leading-snug text-fail">⚠ {point.caution}</p>}
      <div className="mt-4 flex flex-wrap items-center gap-x-8 gap-y-3">
        <input
          ref={field}
          className="field !h-[88px] !w-[300px] text-[46px] font-semibold"
          aria-label={point.label}
          aria-invalid={fault !== null}
          aria-describedby="large-said"
          inputMode="decimal"
          autoComplete="off"
          disabled={!enabled}
          placeholder={point.unit}
          value={shown}
          onFocus={(e) => e.currentTarget.select()}
          onChange={(e) => setDraft(e.target.value)}
          onBlur={(e) => commit(e.target.value)}
          // The first Enter keeps it and shows what it means, the second goes on.
          onKeyDown={(e) => {
            if (e.key !== 'Enter') return;
            if (draft === null) onNext();
            else commit(e.currentTarget.value);
          }}
        />
        <button
          type="button"
          className="num text-[30px]"
          aria-expanded={working}
          onClick={() => setWorking(!working)}
          aria-label={`Expected ${formatQuantity(point.low, point.unit)} to ${formatQuantity(point.high, point.unit)}: show the working`}
        >
          {formatQuantity(point.low, point.unit)} <span className="text-quiet">to</span>{' '}
          {formatQuantity(point.high, point.unit)}
        </button>
      </div>
      {working && (
        <div className="mt-2 border-l-2 border-volt pl-3">
          <Working figure={point.expected} />
        </div>
      )}
      <div id="large-said" aria-live="polite" className="mt-3 min-h-[96px] text-[24px] leading-snug">
        {fault && <p className="text-fail">{fault}</p>}
        {!fault && reading && !verdict && <p className="text-quiet">Kept, not held against the window.</p>}
        {!fault && verdict && (
          <>
            <p className={`text-[30px] font-semibold ${verdict.state === 'as expected' ? 'text-volt' : 'text-fail'}`}>
              {verdict.state === 'as expected'
                ? '● As expected'
                : `✕ ${verdict.state === 'too low' ? 'Too low' : 'Too high'}`}
            </p>
            {verdict.hint && <p>{verdict.hint}</p>}
          </>
        )}
      </div>
    </div>
  );
}
