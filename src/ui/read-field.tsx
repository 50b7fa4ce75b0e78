'use client';

import { useRef } from 'react';
import { TypedField } from './typed-field';

export type Read<T> = { ok: true; value: T } | { ok: false; error: string };

interface Props<T> {
  label: string;
  /** The value as it stands, readable by `read`. */
  shown: string;
  placeholder?: string;
  read(text: string): Read<T>;
  onCommit(value: T): void;
}

/** A field of its own grammar. */
export function ReadField<T>({ label, shown, placeholder, read, onCommit }: Props<T>) {
  const before = useRef(shown);
  const take = (text: string): string | null => {
    const result = read(text);
    if (!result.ok) return result.error;
    onCommit(result.value);
    return null;
  };
  return (
    <TypedField
      label={label}
      shown={shown}
      placeholder={placeholder}
      take={take}
      begin={() => (before.current = shown)}
      back={() => void take(before.current)}
    />
  );
}
