'use client';

import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { MAINS_PRESETS } from '@/core/design/defaults';
import { parseQuantity, type Unit } from '@/core/quantity/parse';
import { readingsFault, type BoxReadings } from '@/core/size/box-readings';
import { createDesign } from '@/ui/api';
import { asked } from '@/workers/asked';

const FIELDS: readonly { key: keyof BoxReadings; label: string; unit: Unit; hint: string }[] = [
  { key: 'mainsV', label: 'Mains then', unit: 'V', hint: '230 V' },
  { key: 'idleV', label: 'Reservoir, no load', unit: 'V', hint: '36.5 V' },
  { key: 'loadedV', label: 'Reservoir, loaded', unit: 'V', hint: '30 V' },
  { key: 'loadA', label: 'With a load of', unit: 'A', hint: '1.2 A' },
  { key: 'rippleVpp', label: 'Ripple then, p-p', unit: 'V', hint: '1.8 V' },
];

/** The third way in: a box that exists, and a meter. */
export function FromReadings() {
  const router = useRouter();
  const [texts, setTexts] = useState<Partial<Record<keyof BoxReadings, string>>>({});
  const [trouble, setTrouble] = useState<string | null>(null);

  async function begin() {
    const readings: Partial<BoxReadings> = {};
    for (const f of FIELDS) {
      const read = parseQuantity(texts[f.key] ?? '', f.unit);
      if (!read.ok) return setTrouble(`${f.label}: ${read.error}`);
      readings[f.key] = read.value;
    }
    const whole = readings as BoxReadings;
    const fault = readingsFault(whole);
    if (fault) return setTrouble(fault);
    const found = await asked((s) => s.fromReadings(whole, MAINS_PRESETS[0]!.mains));
    if (!found.ok) return setTrouble(`These readings do not fit a bridge and a reservoir: ${found.error}.`);
    const created = await createDesign(found.value);
    if (created.ok) return router.push(`/design/${created.value.id}`);
    setTrouble(created.refusal.sentence);
  }

  return (
    <form
      className="mt-5 border-t border-rule pt-3"
      onSubmit={(e) => {
        e.preventDefault();
        void begin();
      }}
    >
      <h2 className="text-[18px] font-semibold">Or an existing box and a meter?</h2>
      <div className="mt-2 grid grid-cols-2 gap-2">
        {FIELDS.map((f) => (
          <label key={f.key} className="text-[13px] text-quiet">
            {f.label}
            <input
              className="field text-ink"
              value={texts[f.key] ?? ''}
              placeholder={f.hint}
              onChange={(e) => setTexts({ ...texts, [f.key]: e.target.value })}
            />
          </label>
        ))}
        <button type="submit" className="btn self-end justify-center">
          Begin with them
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
