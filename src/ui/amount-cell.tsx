'use client';

import { useRef } from 'react';
import { fieldLimit, rangeFault, type FieldPath } from '@/core/design/limits';
import { formatForInput } from '@/core/quantity/format';
import { parseLoad } from '@/core/quantity/load';
import { parseQuantity } from '@/core/quantity/parse';
import { TypedField } from './typed-field';

interface Props {
  path: FieldPath;
  label: string;
  value: number | null;
  /** Of the output it hangs on: ohms and watts are then read too. */
  volts?: number;
  placeholder?: string;
  onCommit(value: number | null): void;
}

/** A figure in a cell of the table. */
export function AmountCell({ path, label, value, volts, placeholder, onCommit }: Props) {
  const { unit, optional } = fieldLimit(path);
  const before = useRef(value);
  function take(text: string): string | null {
    const read =
      text.trim() === '' && optional
        ? { ok: true as const, value: null }
        : volts === undefined
          ? parseQuantity(text, unit)
          : parseLoad(text, volts);
    const wrong = read.ok ? (read.value === null ? null : rangeFault(path, read.value)) : read.error;
    if (wrong === null && read.ok && read.value !== value) onCommit(read.value);
    return wrong;
  }
  return (
    <td className="px-1">
      <TypedField
        inCell
        label={label}
        shown={value === null ? '' : formatForInput(value, unit)}
        placeholder={placeholder}
        take={take}
        begin={() => (before.current = value)}
        back={() => onCommit(before.current)}
      />
    </td>
  );
}
