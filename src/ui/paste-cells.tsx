'use client';

import { useState } from 'react';

/** What was read of a text: how much can be taken, and a sentence for what cannot. */
export interface CellsRead<T> {
  items: T[];
  errors: readonly string[];
}

/** How many sentences are shown one by one. */
const SAID = 6;

/** Cells of a spreadsheet, typed, pasted or out of a file: looked at before anything of them is taken. */
export function PasteCells<T>({
  label,
  fileLabel,
  noun,
  read,
  onTake,
  onClose,
}: {
  label: string;
  fileLabel: string;
  /** What one and several of them are called. */
  noun: readonly [string, string];
  read(text: string): CellsRead<T>;
  onTake(items: T[]): void;
  onClose(): void;
}) {
  const [text, setText] = useState('');
  const found = text.trim() === '' ? null : read(text);
  const count = found?.items.length ?? 0;
  return (
    <div className="my-2 rounded border border-rule bg-raised p-3">
      <label className="text-[14px]">
        {label}
        <textarea
          className="field mt-1 !h-[110px] py-1 font-mono text-[13px]"
          value={text}
          autoFocus
          onChange={(e) => setText(e.target.value)}
        />
      </label>
      <input
        type="file"
        accept=".csv,.tsv,.txt,text/csv"
        aria-label={fileLabel}
        className="mt-1 text-[13px]"
        onChange={(e) => {
          const file = e.target.files?.[0];
          if (file) void file.text().then(setText);
        }}
      />
      {found && found.errors.length > 0 && (
        <ul role="alert" className="text-[14px] text-fail">
          {found.errors.slice(0, SAID).map((e) => (
            <li key={e}>{e}</li>
          ))}
          {found.errors.length > SAID && <li>and {found.errors.length - SAID} more like these.</li>}
        </ul>
      )}
      <div className="mt-2 flex gap-2">
        <button
          type="button"
          className="btn btn-main"
          disabled={count === 0}
          onClick={() => found && onTake(found.items)}
        >
          {count > 0 ? `Take ${count} ${noun[count === 1 ? 0 : 1]}` : 'Take them'}
        </button>
        <button type="button" className="btn" onClick={onClose}>
          Take nothing
        </button>
      </div>
    </div>
  );
}
