'use client';

import { Trash2 } from 'lucide-react';
import { useRef, useState } from 'react';
import { setAgainstRead, type SetKind } from '@/core/bench/set-against-read';
import { SETTINGS_MAX } from '@/core/design/how-many';
import { rangeFault } from '@/core/design/limits';
import { formatQuantity } from '@/core/quantity/format';
import { parseQuantity } from '@/core/quantity/parse';
import { Alert } from '@/ui/alert';
import { FigureRow } from '@/ui/figure-row';
import { IconButton } from '@/ui/icon-button';
import { Segments } from '@/ui/segments';
import { useDesign, useEdit } from '@/ui/session';

const KINDS: readonly { value: SetKind; label: string; set: string; read: string; how: string }[] = [
  {
    value: 'volts',
    label: 'Volts set',
    set: 'Set',
    read: 'Read',
    how: 'The knob’s scale or panel meter against yours, at a light load, low and high in the range.',
  },
  {
    value: 'amps',
    label: 'Limit set',
    set: 'Set',
    read: 'Read',
    how: 'The limit’s scale against what your meter finds in series with a load that reaches it, a few seconds each.',
  },
  {
    value: 'meter',
    label: 'Meter against meter',
    set: 'Theirs',
    read: 'Yours',
    how: 'Two meters on the same terminals at the same time, low and high in the range.',
  },
];

/** What was set, or shown by another meter, against what the person's own read: what is off by a share, and what by a constant. */
export function SetAgainstRead() {
  const design = useDesign();
  const edit = useEdit();
  const [what, setWhat] = useState<SetKind>('volts');
  const kind = KINDS.find((k) => k.value === what)!;
  const all = design.bench.settings;
  const told = setAgainstRead(design, what);
  const unit = what === 'amps' ? 'A' : 'V';
  const keep = (settings: typeof all) => edit({ bench: { settings } });
  return (
    <section aria-label="Set against read" className="mt-6 border-t-2 border-ink pt-4">
      <div className="flex flex-wrap items-center gap-x-6 gap-y-2">
        <h2 className="text-[19px] font-semibold">Set against read</h2>
        <Segments label="What is compared" value={what} options={KINDS} onChange={(v) => setWhat(v as SetKind)} />
      </div>
      <p className="text-[14.5px] text-quiet">{kind.how}</p>
      <div className="mt-2 grid grid-cols-[minmax(0,1fr)] gap-x-8 gap-y-3 min-[900px]:grid-cols-[340px_minmax(0,1fr)]">
        <div>
          <ul aria-label="Pairs read">
            {all.map(
              (s, n) =>
                s.what === what && (
                  <li key={n} className="flex items-center gap-3 border-t border-rule/60 py-0.5 text-[15px]">
                    <span className="w-[84px] tabular-nums text-quiet">{formatQuantity(s.set, unit, 4)}</span>
                    <strong className="w-[84px] tabular-nums">{formatQuantity(s.read, unit, 4)}</strong>
                    <span className="flex-1 text-[14px] tabular-nums text-quiet">{off(s.read - s.set, unit)}</span>
                    <IconButton
                      label={`Remove the pair at ${formatQuantity(s.set, unit, 4)}`}
                      title="Remove it"
                      onClick={() => keep(all.filter((_, k) => k !== n))}
                    >
                      <Trash2 size={15} />
                    </IconButton>
                  </li>
                ),
            )}
          </ul>
          {all.length < SETTINGS_MAX && (
            <Next key={what} kind={kind} unit={unit} onKeep={(pair) => keep([...all, { what, ...pair }])} />
          )}
        </div>
        <div className="min-w-0">
          {typeof told === 'string' ? (
            <p className="text-[14.5px]">{told}</p>
          ) : (
            <>
              <p className="text-[18px] font-semibold" data-testid="scale-words">
                {told.sentence}
              </p>
              <FigureRow label="Of these pairs" figures={[told.gain, told.offset, told.left]} />
            </>
          )}
        </div>
      </div>
    </section>
  );
}

const off = (by: number, unit: 'V' | 'A') =>
  by === 0 ? 'the same' : `${by > 0 ? '+' : '−'}${formatQuantity(Math.abs(by), unit, 2)}`;

const NOTHING = { set: '', read: '' };

function Next({
  kind,
  unit,
  onKeep,
}: {
  kind: (typeof KINDS)[number];
  unit: 'V' | 'A';
  onKeep(pair: { set: number; read: number }): void;
}) {
  const [texts, setTexts] = useState(NOTHING);
  const [fault, setFault] = useState<string | null>(null);
  const first = useRef<HTMLInputElement>(null);
  function take() {
    const [set, read] = [parseQuantity(texts.set, unit), parseQuantity(texts.read, unit)];
    const wrong = !set.ok
      ? `${kind.set}: ${set.error}`
      : !read.ok
        ? `${kind.read}: ${read.error}`
        : (rangeFault('bench.set', set.value) ?? rangeFault('bench.set', read.value));
    setFault(wrong);
    if (wrong !== null || !set.ok || !read.ok) return;
    onKeep({ set: set.value, read: read.value });
    setTexts(NOTHING);
    first.current?.focus();
  }
  return (
    <form
      aria-label="Next pair"
      className="mt-2 flex flex-wrap items-end gap-2"
      onSubmit={(e) => {
        e.preventDefault();
        take();
      }}
    >
      {(['set', 'read'] as const).map((key, n) => (
        <label key={key} className="w-[84px] text-[13px] text-quiet">
          {kind[key]}
          <input
            ref={n === 0 ? first : undefined}
            className="field text-ink"
            inputMode="decimal"
            autoComplete="off"
            placeholder={unit}
            value={texts[key]}
            onChange={(e) => setTexts({ ...texts, [key]: e.target.value })}
          />
        </label>
      ))}
      <button type="submit" className="btn">
        Keep it
      </button>
      {fault && <Alert className="text-[13.5px]">{fault}</Alert>}
    </form>
  );
}
