'use client';

import Link from 'next/link';
import { usePathname } from 'next/navigation';
import { useState } from 'react';
import { NAME_MAX } from '@/core/design/how-many';
import { arrangementWords, ratingWords } from '@/core/design/words';
import { Mark } from './mark';
import { roomAt } from './places';
import { useDesign, useEdit, useHistory, useView } from './session';
import { StateSign } from './state-sign';
import { stateInWords } from './state-in-words';
import { ThemeSwitch } from './theme-switch';
import { TurnedArrow } from './turned-arrow';
import type { SaveState } from './view';

const SAVE_WORDS: Record<SaveState, string> = {
  saved: 'Saved',
  unsaved: 'Saving soon',
  saving: 'Saving…',
  offline: 'Not saved: retrying',
  conflict: 'Changed elsewhere',
  gone: 'Deleted elsewhere',
};

/** The top line of an open design: what it is called, how it stands, whether it is saved. */
export function DesignBar({ onKeys, onPalette }: { onKeys(): void; onPalette(): void }) {
  const save = useView((s) => s.save);
  const picture = useView((s) => s.picture);
  const current = useView((s) => s.current);
  const design = useDesign();
  const history = useHistory();
  const hazard = picture?.hazard ?? null;
  const state = stateInWords(picture, current);
  const room = roomAt(
    usePathname(),
    useView((s) => s.id),
  );
  const what = `${arrangementWords(design)}, ${ratingWords(design)}`;
  return (
    <div className="flex min-h-[38px] items-center gap-x-3 px-3 max-[639px]:flex-wrap">
      <Link href="/" className="grid h-8 w-8 place-items-center" aria-label="Ember Rail: to the shelf">
        <Mark />
      </Link>
      <Name title={what} />
      <p className="min-w-[60px] flex-1 truncate text-[13px] text-quiet max-[1099px]:hidden" title={what}>
        {what}
      </p>
      <span className="min-[1100px]:hidden min-[640px]:flex-1" />
      <p
        className={`flex items-center gap-1.5 whitespace-nowrap font-semibold ${room === 'supply' ? 'full:hidden' : ''}`}
        data-testid="design-state"
      >
        {state.sign && <StateSign state={state.sign} size={13} />}
        <span className={state.sign === 'fails' ? 'text-fail' : ''}>{state.words}</span>
      </p>
      {hazard && (
        <p className="whitespace-nowrap text-[13.5px] font-semibold text-fail" title={hazard} data-testid="hazard">
          ⚠ hazardous voltage
        </p>
      )}
      <p
        aria-live={save === 'saved' || save === 'unsaved' || save === 'saving' ? 'off' : 'polite'}
        className={`min-w-[44px] whitespace-nowrap text-[13.5px] ${save === 'saved' ? 'text-quiet' : 'text-ink'}`}
        data-testid="save-state"
      >
        {SAVE_WORDS[save]}
      </p>
      <div className="flex">
        <button
          type="button"
          className="btn btn-bare !px-1.5"
          aria-disabled={history.pastStates.length === 0}
          onClick={() => history.undo()}
          aria-label="Undo"
          title="Undo (Ctrl Z)"
        >
          <TurnedArrow />
        </button>
        <button
          type="button"
          className="btn btn-bare !px-1.5"
          aria-disabled={history.futureStates.length === 0}
          onClick={() => history.redo()}
          aria-label="Redo"
          title="Redo (Ctrl Shift Z)"
        >
          <TurnedArrow forth />
        </button>
        <button type="button" className="btn btn-bare !px-1.5" onClick={onPalette} title="All actions (Ctrl K)">
          Actions
        </button>
        <button type="button" className="btn btn-bare !px-1.5" onClick={onKeys} title="Keys (?)">
          Keys
        </button>
        <ThemeSwitch />
      </div>
    </div>
  );
}

/** The design's name, typed over in place. */
function Name({ title }: { title: string }) {
  const { name } = useDesign();
  const edit = useEdit();
  const [draft, setDraft] = useState<string | null>(null);
  const [fault, setFault] = useState<string | null>(null);
  function commit() {
    if (draft === null) return;
    const text = draft.trim();
    if (text === '') return setFault('Give it a name: the field cannot stay empty.');
    if (text.length > NAME_MAX) return setFault(`${text.length} letters; ${NAME_MAX} fit on the label.`);
    setFault(null);
    setDraft(null);
    if (text !== name) edit({ name: text });
  }
  return (
    <div className="relative min-w-[120px] max-[639px]:flex-1 min-[640px]:max-w-[52%]">
      <input
        aria-label="Name of the design"
        aria-invalid={fault !== null}
        aria-describedby={fault ? 'name-fault' : undefined}
        title={`${draft ?? name}: ${title}`}
        className="serif -ml-1 block max-w-full min-w-[120px] truncate rounded border border-transparent bg-transparent px-1 text-[17px] font-semibold leading-[26px] hover:border-rule"
        size={Math.max(8, (draft ?? name).length)}
        value={draft ?? name}
        onChange={(e) => setDraft(e.target.value)}
        onBlur={commit}
        onKeyDown={(e) => {
          if (draft !== null && (e.ctrlKey || e.metaKey) && e.key.toLowerCase() === 'z') e.stopPropagation();
          if (e.key === 'Enter') e.currentTarget.blur();
          if (e.key === 'Escape') {
            setDraft(null);
            setFault(null);
          }
        }}
      />
      {fault && (
        <p
          id="name-fault"
          role="alert"
          className="absolute left-0 top-full z-20 w-max max-w-[80vw] rounded border border-fail bg-raised px-2 text-[13px] text-fail"
        >
          {fault}
        </p>
      )}
    </div>
  );
}
