'use client';

import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { MAINS_PRESETS } from '@/core/design/defaults';
import { fieldLimit, rangeFault, type FieldPath } from '@/core/design/limits';
import { parseQuantity } from '@/core/quantity/parse';
import { designFromTransformer } from '@/core/size/from-transformer';
import { createDesign } from '@/ui/api';

/** The other way in: a transformer is what there is. */
export function FromTransformer() {
  const router = useRouter();
  const [volts, setVolts] = useState('');
  const [size, setSize] = useState('');
  const [trouble, setTrouble] = useState<string | null>(null);

  const read = (text: string, path: FieldPath): number | string => {
    const parsed = parseQuantity(text, fieldLimit(path).unit);
    return parsed.ok ? (rangeFault(path, parsed.value) ?? parsed.value) : `${fieldLimit(path).label}: ${parsed.error}`;
  };

  async function begin() {
    const ratedV = read(volts, 'transformer.ratedV');
    const ratedVA = read(size, 'transformer.ratedVA');
    const fault = [ratedV, ratedVA].find((x) => typeof x === 'string');
    if (fault) return setTrouble(String(fault));
    const created = await createDesign(designFromTransformer(Number(ratedV), Number(ratedVA), MAINS_PRESETS[0]!.mains));
    if (created.ok) router.push(`/design/${created.value.id}`);
    else setTrouble(created.refusal.sentence);
  }

  return (
    <form
      className="mt-6 border-t border-rule pt-3"
      onSubmit={(e) => {
        e.preventDefault();
        void begin();
      }}
    >
      <h2 className="text-[18px] font-semibold">Or is a transformer what you have?</h2>
      <div className="mt-2 flex items-end gap-2">
        <label className="text-[13px] text-quiet">
          One winding, V
          <input
            className="field text-ink"
            value={volts}
            placeholder="18 V"
            onChange={(e) => setVolts(e.target.value)}
          />
        </label>
        <label className="text-[13px] text-quiet">
          Size
          <input
            className="field text-ink"
            value={size}
            placeholder="50 VA"
            onChange={(e) => setSize(e.target.value)}
          />
        </label>
        <button type="submit" className="btn">
          Begin with it
        </button>
      </div>
      {trouble && (
        <p role="alert" className="mt-1 text-[14px] text-fail">
          {trouble}
        </p>
      )}
    </form>
  );
}
