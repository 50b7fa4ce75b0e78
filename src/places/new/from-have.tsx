'use client';

import { useEffect, useState } from 'react';
import { applyPatch, type Design } from '@/core/design/design';
import { NAME_MAX } from '@/core/design/how-many';
import { fieldLimit, rangeFault, type FieldPath } from '@/core/design/limits';
import { usesOf, withPart } from '@/core/drawer/fit';
import type { Part } from '@/core/drawer/part';
import { ratingLine } from '@/core/drawer/rating-line';
import { parseQuantity } from '@/core/quantity/parse';
import { FEED_HINTS } from '@/core/size/feeds';
import { designFromSource } from '@/core/size/from-source';
import { designFromTransformer } from '@/core/size/from-transformer';
import { Alert } from '@/ui/alert';
import { fetchParts } from '@/ui/drawer/parts-api';
import { useKeptTexts } from './kept-text';
import { MainsChoice, presetOf } from './mains-choice';
import { OneOf } from './one-of';
import { Preview } from './preview';
import { TextField } from './text-field';
import { Awaited, WayIn } from './way-in';

const KINDS = {
  transformer: 'A transformer',
  'ac-adapter': 'An AC adapter',
  'dc-adapter': 'A DC adapter, unregulated',
  'dc-regulated': 'A DC adapter, regulated',
  battery: 'A battery',
  drawer: 'A transformer from the drawer',
} as const;
type Kind = keyof typeof KINDS;

interface Entry {
  key: 'volts' | 'amount';
  label: string;
  path: FieldPath;
  placeholder: string;
}

/** What is printed on each, and where its limits stand. */
const FIELDS: Readonly<Record<Exclude<Kind, 'drawer'>, readonly Entry[]>> = {
  transformer: [
    { key: 'volts', label: 'One winding, V', path: 'transformer.ratedV', placeholder: '18 V' },
    { key: 'amount', label: 'Size', path: 'transformer.ratedVA', placeholder: '50 VA' },
  ],
  'ac-adapter': [
    { key: 'volts', label: 'Its volts', path: 'transformer.ratedV', placeholder: '12 V' },
    { key: 'amount', label: 'Its amperes', path: 'source.ratedA', placeholder: '1 A' },
  ],
  'dc-adapter': [
    { key: 'volts', label: 'Its volts', path: 'source.ratedV', placeholder: '12 V' },
    { key: 'amount', label: 'Its amperes', path: 'source.ratedA', placeholder: '1 A' },
  ],
  'dc-regulated': [
    { key: 'volts', label: 'Its volts', path: 'source.ratedV', placeholder: '12 V' },
    { key: 'amount', label: 'Its amperes', path: 'source.ratedA', placeholder: '2 A' },
  ],
  battery: [
    { key: 'volts', label: 'Its volts, as printed', path: 'source.ratedV', placeholder: '12 V' },
    { key: 'amount', label: 'It holds, Ah', path: 'source.capacityAh', placeholder: '7 Ah' },
  ],
};

/** What have I got: a part in hand, and the supply that can be made around it. */
export function FromHave() {
  const [texts, setTexts] = useKeptTexts('have', {
    kind: 'transformer',
    volts: '',
    amount: '',
    part: '',
    mains: '',
    name: '',
  });
  const [parts, setParts] = useState<Part[] | null>(null);
  const [trouble, setTrouble] = useState<string | null>(null);
  const kind = (texts['kind']! in KINDS ? texts['kind'] : 'transformer') as Kind;
  const fields = kind === 'drawer' ? [] : FIELDS[kind];
  useEffect(() => {
    if (kind !== 'drawer') return;
    void fetchParts(['transformer']).then((answer) => {
      if (answer.ok) setParts(answer.value.parts.filter((p) => p.count > 0));
      else setTrouble(answer.sentence);
    });
  }, [kind]);

  const read = fields.map((f) => {
    const text = texts[f.key]!;
    if (text.trim() === '') return { fault: null, value: null };
    const parsed = parseQuantity(text, fieldLimit(f.path).unit);
    const fault = parsed.ok ? rangeFault(f.path, parsed.value) : parsed.error;
    return { fault, value: parsed.ok && fault === null ? parsed.value : null };
  });
  const { mains } = presetOf(texts['mains']);
  const [volts, amount] = read.map((r) => r.value);
  const name = texts['name']!.trim().slice(0, NAME_MAX);

  function made(): Design | null {
    if (kind === 'drawer') {
      const part = parts?.find((p) => p.id === texts['part']);
      if (!part) return null;
      const base = designFromTransformer(part.ratings['secondaryV']!, part.ratings['sizeVA']!, mains);
      const use = usesOf(part, base, 'transformer')[0];
      return use ? { ...applyPatch(base, withPart(base, part, use)), name: name || part.name } : null;
    }
    if (volts === null || volts === undefined || amount === null || amount === undefined) return null;
    const design =
      kind === 'transformer'
        ? designFromTransformer(volts, amount, mains)
        : designFromSource(kind, volts, amount, mains);
    return name ? { ...design, name } : design;
  }

  return (
    <WayIn
      form={
        <div className="space-y-3">
          <div>
            <label htmlFor="have-kind" className="block text-[14px] font-semibold">
              In hand
            </label>
            <select id="have-kind" className="field" value={kind} onChange={(e) => setTexts({ kind: e.target.value })}>
              {Object.entries(KINDS).map(([id, words]) => (
                <option key={id} value={id}>
                  {words}
                </option>
              ))}
            </select>
            {kind !== 'drawer' && kind !== 'transformer' && (
              <p className="mt-0.5 text-[13px] leading-snug text-quiet">{FEED_HINTS[kind]}</p>
            )}
          </div>
          {(kind === 'transformer' || kind === 'ac-adapter' || kind === 'drawer') && (
            <MainsChoice id="have-mains" value={texts['mains']!} onChange={(id) => setTexts({ mains: id })} />
          )}
          {fields.length > 0 && (
            <div className="grid grid-cols-2 gap-3">
              {fields.map((f, n) => (
                <TextField
                  key={f.key}
                  label={f.label}
                  value={texts[f.key]!}
                  placeholder={f.placeholder}
                  fault={read[n]!.fault}
                  onChange={(e) => setTexts({ [f.key]: e.target.value })}
                />
              ))}
            </div>
          )}
          {kind === 'drawer' && (
            <>
              {trouble && <Alert>{trouble}</Alert>}
              {parts?.length === 0 && <p className="text-quiet">No transformer lies in the drawer.</p>}
              <OneOf
                legend="On hand"
                options={(parts ?? []).map((p) => ({ id: p.id, name: p.name, what: ratingLine(p) }))}
                chosen={texts['part']}
                onChoose={(id) => setTexts({ part: id })}
              />
            </>
          )}
          <TextField
            label="Name"
            hint="optional"
            value={texts['name']!}
            onChange={(e) => setTexts({ name: e.target.value })}
          />
        </div>
      }
      proposal={
        <Preview
          design={made()}
          lead="A starting point around what you have, with the load it bears by rule of thumb; nothing in it is fixed."
          awaited={
            <Awaited title="The supply around it comes back,">
              rectifier, reservoir and the load it bears, solved at low, nominal and high mains: what it can feed shows
              before anything is bought.
            </Awaited>
          }
        />
      }
    />
  );
}
