'use client';

import { useEffect, useId, useRef, useState, type KeyboardEvent, type Ref } from 'react';

/** What was typed counts once the hand has rested this long, though the field is not left, ms. */
export const REST_MS = 900;

interface Props {
  label: string;
  /** Under which name its hint stands. */
  hint?: string | undefined;
  /** In a table's cell its column says what it is: the label is for those who do not see the column. */
  inCell?: boolean;
  /** The value as it stands, as text. */
  shown: string;
  placeholder?: string | undefined;
  inputRef?: Ref<HTMLInputElement> | undefined;
  /** Takes a text where it can be read. @returns why it cannot, as a sentence; null when it was taken */
  take(text: string): string | null;
  /** The first letter is being typed over the value: what Escape goes back to. */
  begin(): void;
  /** Back to what stood there when the typing began. */
  back(): void;
  /** @returns whether the arrow did something */
  arrow?(direction: number): boolean;
}

/**
 * A field one types into. What cannot be read stays in it with a sentence under it, and the design keeps its last good
 * value; what can be read counts when the field is left, on Enter, and once the hand rests.
 */
export function TypedField({
  label,
  hint,
  inCell = false,
  shown,
  placeholder,
  inputRef,
  take,
  begin,
  back,
  arrow,
}: Props) {
  const id = useId();
  const [draft, setDraft] = useState<string | null>(null);
  const [fault, setFault] = useState<string | null>(null);
  const resting = useRef<ReturnType<typeof setTimeout> | undefined>(undefined);
  /** Whether something was taken while the typing went on. */
  const taken = useRef(false);
  useEffect(() => () => clearTimeout(resting.current), []);

  function settle() {
    clearTimeout(resting.current);
    taken.current = false;
    setDraft(null);
    setFault(null);
  }

  function type(text: string) {
    if (draft === null) begin();
    setDraft(text);
    clearTimeout(resting.current);
    resting.current = setTimeout(() => {
      // Half a number is no fault yet.
      if (take(text) === null) {
        taken.current = true;
        setFault(null);
      }
    }, REST_MS);
  }

  function commit(text: string) {
    clearTimeout(resting.current);
    if (text === shown) return settle();
    const wrong = take(text);
    if (wrong === null) return settle();
    setDraft(text);
    setFault(wrong);
  }

  function onKeyDown(event: KeyboardEvent<HTMLInputElement>) {
    // While something is being typed, undo means the typing.
    if (draft !== null && (event.ctrlKey || event.metaKey) && event.key.toLowerCase() === 'z') event.stopPropagation();
    if (event.key === 'Enter') commit(event.currentTarget.value);
    if (event.key === 'Escape') {
      if (taken.current) back();
      settle();
    }
    if ((event.key === 'ArrowUp' || event.key === 'ArrowDown') && fault === null) {
      const direction = (event.key === 'ArrowUp' ? 1 : -1) * (event.shiftKey ? 10 : 1);
      if (!arrow?.(direction)) return;
      event.preventDefault();
      settle();
    }
  }

  return (
    <div className="min-w-0" data-hint={hint}>
      <label htmlFor={id} title={label} className={inCell ? 'sr-only' : 'block truncate text-[13px] text-quiet'}>
        {label}
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
        onChange={(e) => type(e.target.value)}
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
