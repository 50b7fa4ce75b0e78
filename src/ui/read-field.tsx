'use client';

import { useId, useState } from 'react';

export type Read<T> = { ok: true; value: T } | { ok: false; error: string };

interface Props<T> {
  label: string;
  /** The value as it stands, readable by `read`. */
  shown: string;
  placeholder?: string;
  read(text: string): Read<T>;
  onCommit(value: T): void;
}

/** A field of its own grammar. What cannot be read stays in it with a sentence under it; the design keeps its last good value. */
export function ReadField<T>({ label, shown, placeholder, read, onCommit }: Props<T>) {
  const id = useId();
  const [draft, setDraft] = useState<string | null>(null);
  const [fault, setFault] = useState<string | null>(null);
  const settle = () => {
    setDraft(null);
    setFault(null);
  };
  function commit(text: string) {
    if (text === shown) return settle();
    const result = read(text);
    if (!result.ok) {
      setDraft(text);
      return setFault(result.error);
    }
    settle();
    onCommit(result.value);
  }
  return (
    <div className="min-w-0">
      <label htmlFor={id} className="block truncate text-[13px] text-quiet">
        {label}
      </label>
      <input
        id={id}
        className="field"
        value={draft ?? shown}
        placeholder={placeholder}
        autoComplete="off"
        spellCheck={false}
        aria-invalid={fault !== null}
        aria-describedby={fault ? `${id}-fault` : undefined}
        onChange={(e) => setDraft(e.target.value)}
        onBlur={(e) => draft !== null && commit(e.target.value)}
        onKeyDown={(e) => {
          // While something is being typed, undo means the typing.
          if (draft !== null && (e.ctrlKey || e.metaKey) && e.key.toLowerCase() === 'z') e.stopPropagation();
          if (e.key === 'Enter') commit(e.currentTarget.value);
          if (e.key === 'Escape') settle();
        }}
      />
      {fault && (
        <p id={`${id}-fault`} role="alert" className="mt-0.5 text-[13px] leading-tight text-fail">
          {fault}
        </p>
      )}
    </div>
  );
}
