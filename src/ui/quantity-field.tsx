'use client';

import { useRef, type Ref } from 'react';
import { fieldLimit, rangeFault, type FieldPath } from '@/core/design/limits';
import { formatForInput } from '@/core/quantity/format';
import { parseQuantity, severalAlike, type ParseResult } from '@/core/quantity/parse';
import { TypedField } from './typed-field';

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
  const before = useRef(value);

  function read(text: string): { value: number | null } | { fault: string } {
    if (text.trim() === '' && limit.optional) return { value: null };
    const parsed = reader ? reader(text) : parseQuantity(text, limit.unit);
    if (!parsed.ok) return { fault: parsed.error };
    const out = rangeFault(path, parsed.value) ?? check?.(parsed.value) ?? null;
    return out ? { fault: out } : { value: parsed.value };
  }

  function take(text: string): string | null {
    const count = several ? severalAlike(text, limit.unit) : null;
    if (count && rangeFault(path, count.each) === null && rangeFault('reservoir.cans', count.count) === null) {
      several!(count.count, count.each);
      return null;
    }
    const result = read(text);
    if ('fault' in result) return result.fault;
    if (result.value !== value) onCommit(result.value);
    return null;
  }

  function arrow(direction: number): boolean {
    if (!step || value === null) return false;
    const next = Math.min(limit.max, Math.max(limit.min, step(value, direction)));
    if (next !== value) onCommit(next);
    return true;
  }

  return (
    <TypedField
      label={label ?? limit.label}
      hint={path}
      shown={value === null ? '' : formatForInput(value, limit.unit)}
      placeholder={placeholder}
      inputRef={inputRef}
      take={take}
      begin={() => (before.current = value)}
      back={() => onCommit(before.current)}
      arrow={arrow}
    />
  );
}
