'use client';

import { useState } from 'react';
import type { BoxFace, Enclosure } from '@/core/design/design';
import { BOX_OWN_MAX, NAME_MAX } from '@/core/design/how-many';
import { fieldLimit, rangeFault } from '@/core/design/limits';
import { parseQuantity } from '@/core/quantity/parse';
import { ChoiceField } from '@/ui/choice-field';

type Own = Enclosure['own'][number];
const FACES: readonly { value: BoxFace; label: string }[] = [
  { value: 'floor', label: 'on the floor' },
  { value: 'front', label: 'in the front' },
  { value: 'rear', label: 'in the rear' },
];
const CARRIES: readonly { value: Own['carries']; label: string }[] = [
  { value: 'low', label: 'low volts' },
  { value: 'mains', label: 'mains' },
  { value: 'input', label: 'a small-signal input' },
];
const SIDES = [
  ['wMm', 'Width, mm'],
  ['dMm', 'Depth, mm'],
  ['hMm', 'Height, mm'],
] as const;

/** Something else that goes into the box: a meter, a terminal strip, the amplifier itself. */
export function OwnParts({ box, onChange }: { box: Enclosure; onChange(own: Own[]): void }) {
  const [name, setName] = useState('');
  const [sides, setSides] = useState({ wMm: '', dMm: '', hMm: '' });
  const [face, setFace] = useState<BoxFace>('floor');
  const [carries, setCarries] = useState<Own['carries']>('low');
  const [fault, setFault] = useState<string | null>(null);
  const add = () => {
    const size = { wMm: 0, dMm: 0, hMm: 0 };
    if (name.trim() === '') return setFault('What is it? Give it a name.');
    if (box.own.some((o) => o.name === name.trim())) return setFault(`There is a '${name.trim()}' already.`);
    if (box.own.length >= BOX_OWN_MAX) return setFault(`No more than ${BOX_OWN_MAX} parts of your own.`);
    for (const [side, label] of SIDES) {
      const read = parseQuantity(sides[side], fieldLimit('box.sizeMm').unit);
      const wrong = read.ok ? rangeFault('box.sizeMm', read.value) : read.error;
      if (wrong !== null) return setFault(`${label.split(',')[0]}: ${wrong}`);
      if (read.ok) size[side] = read.value;
    }
    const number = Math.max(0, ...box.own.map((o) => Number(/\d+$/.exec(o.id)?.[0] ?? 0))) + 1;
    onChange([...box.own, { id: `own ${number}`, name: name.trim(), face, carries, ...size }]);
    setFault(null);
    setName('');
    setSides({ wMm: '', dMm: '', hMm: '' });
  };
  return (
    <details className="border-t border-rule pt-2">
      <summary className="cursor-pointer text-[15px] font-semibold">
        Parts of your own{box.own.length > 0 && ` (${box.own.length})`}
      </summary>
      <ul className="mt-1 text-[14px]">
        {box.own.map((o) => (
          <li key={o.id} className="flex items-baseline gap-2 border-t border-rule/60 py-1">
            <span className="min-w-0 flex-1 [overflow-wrap:anywhere]">
              {o.name}, {o.wMm} × {o.dMm} × {o.hMm} mm
            </span>
            <button
              type="button"
              className="btn btn-bare"
              aria-label={`Remove ${o.name}`}
              onClick={() => onChange(box.own.filter((p) => p.id !== o.id))}
            >
              Remove
            </button>
          </li>
        ))}
      </ul>
      <form
        className="mt-2 grid grid-cols-3 gap-2"
        onSubmit={(e) => {
          e.preventDefault();
          add();
        }}
      >
        <label className="col-span-3 text-[13px] text-quiet">
          What it is
          <input
            className="field"
            value={name}
            maxLength={NAME_MAX}
            onChange={(e) => setName(e.target.value)}
            placeholder="panel meter"
          />
        </label>
        {SIDES.map(([side, label]) => (
          <label key={side} className="text-[13px] text-quiet">
            {label}
            <input
              className="field"
              inputMode="decimal"
              value={sides[side]}
              onChange={(e) => setSides({ ...sides, [side]: e.target.value })}
            />
          </label>
        ))}
        <ChoiceField label="Stands" value={face} options={FACES} onChange={(v) => setFace(v)} />
        <div className="col-span-2">
          <ChoiceField label="On it" value={carries} options={CARRIES} onChange={(v) => setCarries(v)} />
        </div>
        {fault && (
          <p role="alert" className="col-span-3 text-[14px] text-fail">
            {fault}
          </p>
        )}
        <button type="submit" className="btn col-span-3 justify-self-start">
          Fit it
        </button>
      </form>
    </details>
  );
}
