'use client';

import { useId, useState, type KeyboardEvent, type Ref } from 'react';
import { fieldLimit, rangeFault, type FieldPath } from '@/core/design/limits';
import { formatForInput } from '@/core/quantity/format';
import { parseQuantity, severalAlike, type ParseResult } from '@/core/quantity/parse';

interface Props {
  path: FieldPath;
  /** Null: not given, the typical value is taken. */
  value: number | null;
  onCommit(value: number | null): void;
  /** The neighbouring preferred value; arrow keys go through it. */
  step?(value: number, direction: number): number;
  label?: string | undefined;
  placeholder?: string;
  inputRef?: Ref<HTMLInputElement>;
  /** Reads what is typed, where more than the field's own unit is understood. */
  read?(text: string): ParseResult;
  /** Takes several alike, typed as '68 x 220 uF'; left out, what they come to together is the value. */
  several?(count: number, each: number): void;
  /** What else can be wrong with it, as a sentence: against another field, for example. */
  check?(value: number): string | null;
}

/**
 * A number typed as builders write it. What cannot be read stays in the field with a sentence under it; the design
 * keeps its last good value until then.
 */
export function QuantityField({
  path,
  value,
  onCommit,
  step,
  label,
  placeholder,
  inputRef,
  read: reader,
  several,
  check,
}: Props) {
  const limit = fieldLimit(path);
  const id = useId();
  const shown = value === null ? '' : formatForInput(value, limit.unit);
  const [draft, setDraft] = useState<string | null>(null);
  const [fault, setFault] = useState<string | null>(null);

  function read(text: string): { value: number | null } | { fault: string } {
    if (text.trim() === '' && limit.optional) return { value: null };
    const parsed = reader ? reader(text) : parseQuantity(text, limit.unit);
    if (!parsed.ok) return { fault: parsed.error };
    const out = rangeFault(path, parsed.value) ?? check?.(parsed.value) ?? null;
    return out ? { fault: out } : { value: parsed.value };
  }

  function commit(text: string) {
    if (text === shown) {
      setDraft(null);
      setFault(null);
      return;
    }
    const count = several ? severalAlike(text, limit.unit) : null;
    if (count && rangeFault(path, count.each) === null && rangeFault('reservoir.cans', count.count) === null) {
      setDraft(null);
      setFault(null);
      several!(count.count, count.each);
      return;
    }
    const result = read(text);
    if ('fault' in result) {
      setDraft(text);
      setFault(result.fault);
      return;
    }
    setDraft(null);
    setFault(null);
    if (result.value !== value) onCommit(result.value);
  }

  function onKeyDown(event: KeyboardEvent<HTMLInputElement>) {
    // While something is being typed, undo means the typing.
    if (draft !== null && (event.ctrlKey || event.metaKey) && event.key.toLowerCase() === 'z') event.stopPropagation();
    if (event.key === 'Enter') commit(event.currentTarget.value);
    if (event.key === 'Escape') {
      setDraft(null);
      setFault(null);
    }
    if ((event.key === 'ArrowUp' || event.key === 'ArrowDown') && step && value !== null && fault === null) {
      event.preventDefault();
      const direction = (event.key === 'ArrowUp' ? 1 : -1) * (event.shiftKey ? 10 : 1);
      const next = Math.min(limit.max, Math.max(limit.min, step(value, direction)));
      setDraft(null);
      if (next !== value) onCommit(next);
    }
  }

  return (
    <div className="min-w-0">
      <label htmlFor={id} className="block truncate text-[13px] text-quiet">
        {label ?? limit.label}
      </label>
      <input
        id={id}
        ref={inputRef}
        className="field"
        value={draft ?? shown}
        placeholder={placeholder}
        autoComplete="off"
        spellCheck={false}
        aria-invalid={fault !== null}
        aria-describedby={fault ? `${id}-fault` : undefined}
        onChange={(e) => setDraft(e.target.value)}
        onBlur={(e) => draft !== null && commit(e.target.value)}
        onKeyDown={onKeyDown}
      />
      {fault && (
        <p id={`${id}-fault`} role="alert" className="mt-0.5 text-[13px] leading-tight text-fail">
          {fault}
        </p>
      )}
    </div>
  );
}
