'use client';

import { useId, useState } from 'react';
import { CONDITION_WORDS, KINDS, KNOWN_BY, type Part, type PartDraft, type PartKind } from '@/core/drawer/part';
import { formatForInput } from '@/core/quantity/format';
import { parseQuantity, type Unit } from '@/core/quantity/parse';
import { ChoiceField } from '@/ui/choice-field';
import { Dialog } from '@/ui/dialog';
import { partFaults } from '@/core/drawer/part-schema';
import { addPart, changePart } from './parts-api';

interface Props {
  /** Null for a new one. */
  part: Part | null;
  kind: PartKind;
  /** The part as it was kept, or null. */
  onClose(changed: Part | null): void;
}

/** One part, every rating typed as builders write it. What cannot be read stays where it was typed, with a sentence. */
export function PartForm({ part, kind, onClose }: Props) {
  const fields = KINDS[part?.kind ?? kind].ratings;
  const [texts, setTexts] = useState<Record<string, string>>(() => ({
    name: part?.name ?? '',
    count: String(part?.count ?? 1),
    price: part?.priceEur === null || part === null ? '' : String(part.priceEur),
    place: part?.place ?? '',
    note: part?.note ?? '',
    ...Object.fromEntries(
      fields.map((f) => {
        const value = part?.ratings[f.key] ?? null;
        return [f.key, value === null ? '' : formatForInput(value, f.unit)];
      }),
    ),
  }));
  const [known, setKnown] = useState<PartDraft['known']>(part?.known ?? 'typical');
  const [condition, setCondition] = useState<PartDraft['condition']>(part?.condition ?? 'new');
  const [faults, setFaults] = useState<Record<string, string>>({});
  const [trouble, setTrouble] = useState<string | null>(null);
  const set = (key: string) => (value: string) => setTexts((old) => ({ ...old, [key]: value }));

  async function keep() {
    const found: Record<string, string> = {};
    const read = (key: string, unit: Unit): number | null => {
      const text = texts[key]!.trim();
      if (text === '') return null;
      const parsed = parseQuantity(text, unit);
      if (parsed.ok) return parsed.value;
      found[key] = parsed.error;
      return null;
    };
    const draft: PartDraft = {
      kind: part?.kind ?? kind,
      name: texts['name']!.trim(),
      ratings: Object.fromEntries(fields.map((f) => [f.key, read(f.key, f.unit)])),
      known,
      condition,
      count: read('count', '') ?? 0,
      priceEur: read('price', 'EUR'),
      place: texts['place']!,
      note: texts['note']!,
    };
    // What could not be read says so itself; the rest is looked at by the schema, every field of it.
    for (const [path, sentence] of Object.entries(partFaults(draft))) {
      found[path === 'priceEur' ? 'price' : path.replace(/^ratings\./, '')] ??= sentence;
    }
    setFaults(found);
    if (Object.keys(found).length > 0) return setTrouble('Not kept yet: what is marked has to be put right first.');
    const answer = await (part ? changePart({ ...draft, id: part.id }) : addPart(draft));
    if (answer.ok) onClose(answer.value);
    else setTrouble(answer.sentence);
  }

  return (
    <Dialog
      open
      onOpenChange={() => onClose(null)}
      title={part ? part.name : `New among the ${KINDS[kind].name.toLowerCase()}`}
    >
      <form
        className="grid grid-cols-2 gap-x-3 gap-y-2"
        noValidate
        onSubmit={(e) => {
          e.preventDefault();
          void keep();
        }}
      >
        <div className="col-span-2">
          <Text label="Name" value={texts['name']!} onChange={set('name')} fault={faults['name']} autoFocus />
        </div>
        {fields.map((f) => (
          <Text
            key={f.key}
            label={`${f.label}${f.required ? '' : ', if known'}`}
            value={texts[f.key]!}
            onChange={set(f.key)}
            fault={faults[f.key]}
          />
        ))}
        <Text label="Count" value={texts['count']!} onChange={set('count')} fault={faults['count']} />
        <Text label="Price each, EUR" value={texts['price']!} onChange={set('price')} fault={faults['price']} />
        <Text label="Place" value={texts['place']!} onChange={set('place')} fault={faults['place']} />
        <Text label="Note" value={texts['note']!} onChange={set('note')} fault={faults['note']} />
        <ChoiceField
          label="Ratings known from"
          value={known}
          options={KNOWN_BY.map((value) => ({ value, label: value }))}
          onChange={(v: PartDraft['known']) => setKnown(v)}
        />
        <ChoiceField
          label="Condition"
          value={condition}
          options={CONDITION_WORDS.map((value) => ({ value, label: value }))}
          onChange={(v: PartDraft['condition']) => setCondition(v)}
        />
        {trouble && (
          <p role="alert" className="col-span-2 text-fail">
            {trouble}
          </p>
        )}
        <div className="col-span-2 flex gap-2">
          <button type="submit" className="btn btn-main">
            Keep it
          </button>
          <button type="button" className="btn" onClick={() => onClose(null)}>
            Leave it
          </button>
        </div>
      </form>
    </Dialog>
  );
}

function Text({
  label,
  value,
  onChange,
  fault,
  autoFocus,
}: {
  label: string;
  value: string;
  onChange(value: string): void;
  fault?: string | undefined;
  autoFocus?: boolean;
}) {
  const id = useId();
  return (
    <div>
      <label htmlFor={id} className="block text-[13px] text-quiet">
        {label}
      </label>
      <input
        id={id}
        className="field"
        value={value}
        autoFocus={autoFocus}
        autoComplete="off"
        aria-invalid={fault !== undefined}
        aria-describedby={fault ? `${id}-fault` : undefined}
        onChange={(e) => onChange(e.target.value)}
      />
      {fault && (
        <p id={`${id}-fault`} role="alert" className="text-[13px] text-fail">
          {fault}
        </p>
      )}
    </div>
  );
}
