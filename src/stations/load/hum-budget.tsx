'use client';

import { useState } from 'react';
import { rippleRejectionDb } from '@/core/parts/regulator';
import { humBudget, RIPPLE_PP_PER_RMS } from '@/core/load/sums';
import { formatQuantity } from '@/core/quantity/format';
import { parseQuantity, type Unit } from '@/core/quantity/parse';
import { useDesign, useEdit, useView } from '@/ui/session';

const FIELDS = [
  { key: 'source', label: 'Signal at its input, RMS', unit: 'V', first: '5 mV' },
  { key: 'gain', label: 'Gain', unit: 'dB', first: '40' },
  { key: 'below', label: 'Hum below the signal', unit: 'dB', first: '70' },
  { key: 'rejection', label: 'What the load itself rejects', unit: 'dB', first: '40' },
] as const satisfies readonly { key: string; label: string; unit: Unit; first: string }[];

/** From the signal back to the ripple the rail may carry. */
export function HumBudget() {
  const { demand, regulator } = useDesign();
  const edit = useEdit();
  const ripple = useView((s) => s.picture?.points.low.outputRippleVpp ?? null);
  const [texts, setTexts] = useState<Record<string, string>>(() =>
    Object.fromEntries(FIELDS.map((f) => [f.key, f.first])),
  );
  const values = FIELDS.map((f) => parseQuantity(texts[f.key]!, f.unit));
  const [source, gain, below, rejection] = values;
  const budget =
    source?.ok && gain?.ok && below?.ok && rejection?.ok
      ? humBudget({ sourceV: source.value, gainDb: gain.value, belowDb: below.value, rejectionDb: rejection.value })
      : null;
  const allowedVpp = budget ? budget.railV * RIPPLE_PP_PER_RMS : 0;
  return (
    <details className="mt-5 max-w-[760px] rounded border border-rule bg-raised px-3 py-2">
      <summary className="cursor-pointer font-semibold">Hum budget: from the signal back to the rail</summary>
      <div className="mt-2 grid grid-cols-4 gap-3">
        {FIELDS.map((f, n) => {
          const read = values[n]!;
          return (
            <label key={f.key} className="text-[13px] text-quiet">
              {f.label}
              <input
                className="field text-ink"
                value={texts[f.key]}
                aria-invalid={!read.ok}
                onChange={(e) => setTexts({ ...texts, [f.key]: e.target.value })}
              />
              {!read.ok && <span className="block text-fail">{read.error}</span>}
            </label>
          );
        })}
      </div>
      {budget && (
        <p className="mt-2 text-[14px]">
          At the input hum may be {formatQuantity(budget.atInputV, 'V')} RMS; with what the load rejects, the rail may
          carry <strong>{formatQuantity(budget.railV, 'V')} RMS</strong>, about {formatQuantity(allowedVpp, 'V')} peak
          to peak of ripple. The signal comes out at {formatQuantity(budget.signalOutV, 'V')}, the hum at{' '}
          {formatQuantity(budget.humOutV, 'V')}.
          {ripple !== null && (
            <>
              {' '}
              This supply gives {formatQuantity(ripple, 'V')} p-p at low line
              {regulator.kind === 'fixed' && ` behind ${rippleRejectionDb(regulator.outputV)} dB of rejection`}:
              computed ripple only, without stray field and without what shared ground wires add.
            </>
          )}
        </p>
      )}
      {budget &&
        allowedVpp > 0 &&
        Math.abs(demand.rippleVpp / allowedVpp - 1) > 1e-3 &&
        allowedVpp >= 1e-6 &&
        allowedVpp <= 100 && (
          <button
            type="button"
            className="btn mt-2"
            onClick={() => edit({ demand: { rippleVpp: Number(allowedVpp.toPrecision(3)) } })}
          >
            Allow {formatQuantity(allowedVpp, 'V')} p-p of ripple
          </button>
        )}
    </details>
  );
}
