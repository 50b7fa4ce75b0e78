'use client';

import { useState } from 'react';
import type { Consumer } from '@/core/design/design';
import type { Output } from '@/core/design/outputs';
import { readConsumers } from '@/core/load/consumers-csv';

/** Consumers out of a spreadsheet or a file. */
export function Paste({
  outputs,
  onClose,
  onTake,
}: {
  outputs: readonly Output[];
  onClose(): void;
  onTake(consumers: Consumer[]): void;
}) {
  const [text, setText] = useState('');
  const read = text.trim() === '' ? null : readConsumers(text, outputs);
  return (
    <div className="my-2 rounded border border-rule bg-raised p-3">
      <label className="text-[14px]">
        Cells from a spreadsheet or a CSV: name, count, typical, peak; or with a first row of name, count, on, output,
        kind, standing, typical, peak, duty, start
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
        aria-label="File with a load table"
        className="mt-1 text-[13px]"
        onChange={(e) => {
          const file = e.target.files?.[0];
          if (file) void file.text().then(setText);
        }}
      />
      {read?.errors.map((e) => (
        <p key={e} role="alert" className="text-[14px] text-fail">
          {e}
        </p>
      ))}
      <div className="mt-2 flex gap-2">
        <button
          type="button"
          className="btn btn-main"
          disabled={!read || read.consumers.length === 0}
          onClick={() => read && onTake(read.consumers)}
        >
          {read && read.consumers.length > 0 ? `Take ${read.consumers.length} lines` : 'Take them'}
        </button>
        <button type="button" className="btn" onClick={onClose}>
          Take nothing
        </button>
      </div>
    </div>
  );
}
