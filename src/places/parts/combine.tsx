'use client';

import { useState } from 'react';
import { inParallel, inSeries, primariesInSeries, tapOf, type Combined, type Secondary } from '@/core/parts/combine';
import { formatQuantity } from '@/core/quantity/format';
import { parseQuantity } from '@/core/quantity/parse';
import { ChoiceField } from '@/ui/choice-field';
import { useEdit } from '@/ui/session';

type Way = 'series' | 'opposing' | 'parallel' | 'cores' | 'tap';

const WAYS: readonly { value: Way; label: string }[] = [
  { value: 'series', label: 'two windings in series, aiding' },
  { value: 'opposing', label: 'two windings in series, opposing' },
  { value: 'parallel', label: 'two windings in parallel' },
  { value: 'cores', label: 'two cores, primaries in series' },
  { value: 'tap', label: 'a tap of one winding' },
];

/** Several secondaries, taps and cores become the one winding the rectifier sees. */
export function Combine() {
  const edit = useEdit();
  const [way, setWay] = useState<Way>('series');
  const [texts, setTexts] = useState({ aV: '12 V', aA: '2 A', bV: '6 V', bA: '3 A', share: '50' });
  const read = {
    aV: parseQuantity(texts.aV, 'V'),
    aA: parseQuantity(texts.aA, 'A'),
    bV: parseQuantity(texts.bV, 'V'),
    bA: parseQuantity(texts.bA, 'A'),
    share: parseQuantity(texts.share, '%'),
  };
  const fields =
    way === 'tap'
      ? ([
          ['aV', 'Winding'],
          ['aA', 'Its current'],
          ['share', 'Tap at, % of turns'],
        ] as const)
      : ([
          ['aV', 'First'],
          ['aA', 'Its current'],
          ['bV', 'Second'],
          ['bA', 'Its current'],
        ] as const);
  const bad = fields.map(([key]) => read[key]).find((r) => !r.ok || !(r.value > 0));
  const a: Secondary = { volts: read.aV.ok ? read.aV.value : 0, amps: read.aA.ok ? read.aA.value : 0 };
  const b: Secondary = { volts: read.bV.ok ? read.bV.value : 0, amps: read.bA.ok ? read.bA.value : 0 };
  const result: Combined | null = bad
    ? null
    : way === 'tap'
      ? tapOf(a, read.share.ok ? read.share.value / 100 : 0)
      : way === 'parallel'
        ? inParallel([a, b])
        : way === 'cores'
          ? primariesInSeries(a, b)
          : inSeries([
              { ...a, aiding: true },
              { ...b, aiding: way === 'series' },
            ]);
  return (
    <details className="max-w-[720px] rounded border border-rule bg-raised px-3 py-2">
      <summary className="cursor-pointer font-semibold">Several windings, a tap, or two cores</summary>
      <div className="mt-2 grid grid-cols-4 items-end gap-3">
        <div className="col-span-4 max-w-[340px]">
          <ChoiceField label="Joined as" value={way} options={WAYS} onChange={(v: Way) => setWay(v)} />
        </div>
        {fields.map(([key, label]) => {
          const r = read[key];
          return (
            <label key={key} className="text-[13px] text-quiet">
              {label}
              <input
                className="field text-ink"
                value={texts[key]}
                aria-invalid={!r.ok}
                onChange={(e) => setTexts({ ...texts, [key]: e.target.value })}
              />
              {!r.ok && <span className="block text-fail">{r.error}</span>}
            </label>
          );
        })}
      </div>
      {result?.ok === false && <p className="mt-2 text-[14px] text-fail">{result.why}</p>}
      {result?.ok && (
        <div className="mt-2 flex items-center gap-3 text-[14px]">
          <p>
            <strong>
              {formatQuantity(result.volts, 'V')}, {formatQuantity(result.amps, 'A')}
            </strong>{' '}
            ({formatQuantity(result.volts * result.amps, 'VA')}): {result.how}.
          </p>
          <button
            type="button"
            className="btn"
            onClick={() =>
              edit({
                transformer: {
                  ratedV: Number(result.volts.toPrecision(4)),
                  ratedVA: Number((result.volts * result.amps).toPrecision(3)),
                  source: { kind: 'plate' },
                },
              })
            }
          >
            Use it
          </button>
        </div>
      )}
    </details>
  );
}
