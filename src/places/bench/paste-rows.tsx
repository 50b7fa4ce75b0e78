'use client';

import { useState } from 'react';
import { mainsToday } from '@/core/bench/readings';
import { readRows } from '@/core/bench/rows-csv';
import type { LoadRow } from '@/core/design/design';
import { useDesign } from '@/ui/session';

/** Rows out of a spreadsheet, a logger's file or another design. */
export function PasteRows({ onClose, onTake }: { onClose(): void; onTake(rows: LoadRow[]): void }) {
  const design = useDesign();
  const [text, setText] = useState('');
  const [at] = useState(() => new Date().toISOString());
  const read = text.trim() === '' ? null : readRows(text, at, mainsToday(design), design.demand.outputV);
  return (
    <div className="my-2 rounded border border-rule bg-raised p-3">
      <label className="text-[14px]">
        Cells or a CSV: load, reservoir, ripple, mains; or with a first row of load, mains, reservoir, ripple, output,
        metal, minutes, fed, note
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
        aria-label="File with a load line"
        className="mt-1 text-[13px]"
        onChange={(e) => {
          const file = e.target.files?.[0];
          if (file) void file.text().then(setText);
        }}
      />
      {read && read.errors.length > 0 && (
        <ul role="alert" className="text-[14px] text-fail">
          {read.errors.slice(0, 6).map((e) => (
            <li key={e}>{e}</li>
          ))}
          {read.errors.length > 6 && <li>and {read.errors.length - 6} more like these.</li>}
        </ul>
      )}
      <div className="mt-2 flex gap-2">
        <button
          type="button"
          className="btn btn-main"
          disabled={!read || read.rows.length === 0}
          onClick={() => read && onTake(read.rows)}
        >
          {read && read.rows.length > 0
            ? `Take ${read.rows.length} ${read.rows.length === 1 ? 'row' : 'rows'}`
            : 'Take them'}
        </button>
        <button type="button" className="btn" onClick={onClose}>
          Take nothing
        </button>
      </div>
    </div>
  );
}
