'use client';

import { useRef, useState } from 'react';
import { csvColumns } from '@/core/drawer/csv';
import { ratingLine } from '@/core/drawer/rating-line';
import { KINDS } from '@/core/drawer/part';
import { Dialog } from '@/ui/dialog';
import { asked } from '@/workers/asked';
import type { PartsPreview } from '@/workers/solver.worker';
import { importParts } from './parts-api';

/** A parts file before it is taken: what each row becomes, which rows are refused and why. */
export function CsvImport({ onClose }: { onClose(taken: boolean): void }) {
  const input = useRef<HTMLInputElement>(null);
  const [text, setText] = useState('');
  const [preview, setPreview] = useState<PartsPreview | null>(null);
  const [busy, setBusy] = useState<string | null>(null);
  const [trouble, setTrouble] = useState<string | null>(null);

  async function read(file: File) {
    setBusy(`Reading ${file.name}…`);
    setTrouble(null);
    setPreview(null);
    const content = await file.text();
    setText(content);
    const read = await asked((solver) => solver.readParts(content));
    if (read.ok) setPreview(read.value);
    else setTrouble(read.error);
    setBusy(null);
  }

  async function take(refused: number) {
    setBusy('Taking it into the drawer…');
    const answer = await importParts(text, refused);
    setBusy(null);
    if (answer.ok) onClose(true);
    else setTrouble(answer.sentence);
  }

  return (
    <Dialog open wide onOpenChange={() => onClose(false)} title="Read parts from a CSV">
      <p className="text-[14px] text-quiet">
        The first row names the columns: {csvColumns().slice(0, 8).join(', ')}, and ratings such as{' '}
        {csvColumns().slice(8, 16).join(', ')}. Commas, semicolons or tabs; decimal points or commas; values as you
        write them (4700u, 2k2, 25 V). Nothing is taken before you say so.
      </p>
      <div className="my-3 flex items-center gap-3">
        <button type="button" className="btn" disabled={busy !== null} onClick={() => input.current?.click()}>
          Choose a file
        </button>
        <input
          ref={input}
          type="file"
          accept=".csv,.tsv,.txt,text/csv"
          className="sr-only"
          tabIndex={-1}
          aria-label="Parts file"
          onChange={(e) => {
            const file = e.target.files?.[0];
            if (file) void read(file);
            e.target.value = '';
          }}
        />
        <span aria-live="polite">{busy}</span>
      </div>
      {trouble && (
        <p role="alert" className="mb-2 text-fail">
          {trouble}
        </p>
      )}
      {preview && (
        <>
          <p className="mb-2">
            <strong>{preview.total - preview.refused}</strong> of {preview.total} rows become parts
            {preview.refused > 0 && (
              <>
                ; <strong className="text-fail">{preview.refused} are refused</strong>
              </>
            )}
            .
          </p>
          {preview.errors.length > 0 && (
            <ul className="mb-3 max-h-[22vh] overflow-auto rounded border border-rule px-3 py-1.5 text-[14px] text-fail">
              {preview.errors.map((e) => (
                <li key={e}>{e}</li>
              ))}
              {preview.refused > preview.errors.length && (
                <li>… and {preview.refused - preview.errors.length} more.</li>
              )}
            </ul>
          )}
          <table className="w-full text-[14px]">
            <thead className="text-left text-[13px] text-quiet">
              <tr>
                <th className="font-normal">Row</th>
                <th className="font-normal">Kind</th>
                <th className="font-normal">Part</th>
                <th className="font-normal">Ratings</th>
                <th className="text-right font-normal">Count</th>
              </tr>
            </thead>
            <tbody>
              {preview.first
                .flatMap((r) => ('part' in r ? [r] : []))
                .slice(0, 30)
                .map(({ row, part }) => (
                  <tr key={row} className="border-t border-rule/60">
                    <td>{row}</td>
                    <td>{KINDS[part.kind].name}</td>
                    <td>{part.name}</td>
                    <td className="text-quiet">{ratingLine(part)}</td>
                    <td className="text-right">{part.count}</td>
                  </tr>
                ))}
            </tbody>
          </table>
          <div className="mt-3 flex gap-2">
            <button
              type="button"
              className="btn btn-main"
              disabled={busy !== null || preview.total === preview.refused}
              onClick={() => void take(preview.refused)}
            >
              {preview.refused > 0
                ? `Take the ${preview.total - preview.refused} good rows`
                : `Take all ${preview.total} rows`}
            </button>
            <button type="button" className="btn" onClick={() => onClose(false)}>
              Take nothing
            </button>
          </div>
        </>
      )}
    </Dialog>
  );
}
