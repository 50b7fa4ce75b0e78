'use client';

import { Trash2 } from 'lucide-react';
import { useState } from 'react';
import { setAgainstRead, type SetKind } from '@/core/bench/set-against-read';
import type { Design } from '@/core/design/design';
import { CALIBRATION_MAX } from '@/core/design/how-many';
import { mainModel } from '@/core/design/outputs';
import { rangeFault } from '@/core/design/limits';
import { formatQuantity } from '@/core/quantity/format';
import { FigureRow } from '@/ui/figure-row';
import { IconButton } from '@/ui/icon-button';
import { Segments } from '@/ui/segments';
import { useDesign, useEdit } from '@/ui/session';
import { PairForm, type PairField } from './pair-form';

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
  const kinds = KINDS.filter((k) => has(design, k.value));
  const [chosen, setChosen] = useState<SetKind | null>(null);
  const kind = kinds.find((k) => k.value === chosen) ?? kinds[0]!;
  const what = kind.value;
  const all = design.bench.calibration;
  const told = setAgainstRead(design, what);
  const unit = what === 'amps' ? 'A' : 'V';
  const keep = (calibration: typeof all) => edit({ bench: { calibration } });
  return (
    <section aria-label="Set against read" className="mt-6 border-t-2 border-ink pt-4">
      <div className="flex flex-wrap items-center gap-x-6 gap-y-2">
        <h2 className="text-[19px] font-semibold">Set against read</h2>
        <Segments label="What is compared" value={what} options={kinds} onChange={(v) => setChosen(v as SetKind)} />
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
          {all.length < CALIBRATION_MAX && (
            <PairForm
              key={what}
              label="Next pair"
              fields={[field(kind.set, unit), field(kind.read, unit)]}
              onKeep={(set, read) => keep([...all, { what, set, read }])}
            />
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

/** What a supply has to set, and what was kept of it while it had; two meters anybody can hold together. */
function has(design: Design, what: SetKind): boolean {
  if (what === 'meter' || design.bench.calibration.some((s) => s.what === what)) return true;
  if (what === 'amps') return 'limitA' in design.regulator;
  const model = mainModel(design);
  return model !== null && model.lowestV < model.outputV;
}

const field = (label: string, unit: 'V' | 'A'): PairField => ({
  label,
  unit,
  placeholder: unit,
  fault: (value) => rangeFault('bench.set', value),
});

const off = (by: number, unit: 'V' | 'A') =>
  by === 0 ? 'the same' : `${by > 0 ? '+' : '−'}${formatQuantity(Math.abs(by), unit, 2)}`;
