'use client';

import { useState } from 'react';
import { DialogPanel } from './dialog-panel';
import { downloadDesign } from './download';
import { letterKeys, setLetterKeys } from './letter-keys';
import { useSession } from './session';

const KEYS: readonly [string, string][] = [
  ['Tab', 'from station to station, then to fields and verdicts'],
  ['↑ ↓', 'on a station or in a field: next preferred value'],
  ['Shift ↑ ↓', 'tenfold, or four steps along a list'],
  ['Enter', 'on a station: to its fields; in a field: take the value'],
  ['W', 'on a station: the working of its main figure'],
  ['Esc', 'in a field: back to the value before'],
  ['1 2 3', 'low, nominal, high line in front'],
  ['L', 'the lens: the tightest gap, magnified'],
  ['Ctrl Z, Ctrl Shift Z', 'undo, redo'],
  ['Ctrl K', 'all actions'],
  ['F1', 'in a field or on a button: what the words of its name mean'],
  ['?', 'this list'],
];

/** The list of keys. */
export function Keys({ onClose }: { onClose(): void }) {
  const [on, setOn] = useState(letterKeys);
  return (
    <DialogPanel onOpenChange={onClose} title="Keys">
      <dl className="grid grid-cols-[max-content_1fr] gap-x-5 gap-y-1">
        {KEYS.map(([key, what]) => (
          <div key={key} className="contents">
            <dt className="font-semibold">{key}</dt>
            <dd>{what}</dd>
          </div>
        ))}
      </dl>
      <label className="mt-4 flex items-center gap-2 border-t border-rule pt-3">
        <input
          type="checkbox"
          className="h-[18px] w-[18px] accent-volt"
          checked={on}
          onChange={(e) => {
            setLetterKeys(e.target.checked);
            setOn(e.target.checked);
          }}
        />
        Letters and digits alone do something
      </label>
    </DialogPanel>
  );
}

/** Two windows, one design: which of both is to stand. Nothing is decided by closing it. */
export function Conflict() {
  const session = useSession();
  return (
    <DialogPanel
      closes={false}
      onOpenChange={() => undefined}
      title="Changed in another window"
      description="This design was saved elsewhere after you opened it here. Nothing has been overwritten."
    >
      <div className="flex flex-wrap gap-2">
        <button type="button" className="btn btn-main" onClick={() => void session.settle('mine')}>
          Keep what I see here
        </button>
        <button type="button" className="btn" onClick={() => void session.settle('theirs')}>
          Take the other one
        </button>
        <button type="button" className="btn" onClick={() => downloadDesign(session.document.getState().design)}>
          Export mine first
        </button>
      </div>
      <p className="mt-3 text-[14px] text-quiet">Taking the other one is a step you can undo.</p>
    </DialogPanel>
  );
}
