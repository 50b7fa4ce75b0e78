'use client';

import Link from 'next/link';
import { usePathname } from 'next/navigation';
import { useState } from 'react';
import { NAME_MAX } from '@/core/design/limits';
import { arrangementWords, ratingWords } from '@/core/design/words';
import { BANDS } from '@/core/picture/picture';
import { Mark } from './mark';
import { placesOf } from './places';
import { Segments } from './segments';
import { useDesign, useEdit, useHistory, useSession, useView } from './session';
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

/** The top line of an open design. */
export function DesignBar({ onKeys, onPalette }: { onKeys(): void; onPalette(): void }) {
  const { view } = useSession();
  const id = useView((s) => s.id);
  const save = useView((s) => s.save);
  const band = useView((s) => s.band);
  const hazard = useView((s) => s.picture?.hazard ?? null);
  const design = useDesign();
  const history = useHistory();
  const path = usePathname();
  const supply = path === `/design/${id}`;
  /** Bench and Sheet begin with a heading of their own. */
  const headless = !/\/(bench|sheet)$/.test(path);
  const banded = supply || path === `/design/${id}/scope`;
  const places = placesOf(design).map(([name, at]) => [name, `/design/${id}${at}`] as const);
  return (
    <header className="flex h-[52px] shrink-0 items-center gap-3 border-b border-rule px-3 print:hidden">
      <Link href="/" className="flex items-center gap-1.5" aria-label="Ember Rail: to the shelf">
        <Mark />
      </Link>
      <div className="min-w-0 flex-1">
        {headless && <h1 className="sr-only">{design.name}</h1>}
        <Name />
        <p className="truncate text-[12.5px] leading-4 text-quiet">
          {hazard && (
            <span className="font-semibold text-fail" title={hazard} data-testid="hazard">
              ⚠ hazardous voltage ·{' '}
            </span>
          )}
          {arrangementWords(design)}, {ratingWords(design)}{' '}
          <span aria-live="polite" className={save === 'saved' ? '' : 'text-ink'} data-testid="save-state">
            · {SAVE_WORDS[save]}
          </span>
        </p>
      </div>
      {banded && (
        <Segments
          label="Mains band in front"
          value={band}
          options={BANDS.map((b) => ({ value: b, label: b }))}
          onChange={(b) => view.setState({ band: b })}
        />
      )}
      <div className="flex">
        <button
          type="button"
          className="btn btn-bare !px-1.5"
          disabled={history.pastStates.length === 0}
          onClick={() => history.undo()}
          aria-label="Undo"
          title="Undo (Ctrl Z)"
        >
          <TurnedArrow />
        </button>
        <button
          type="button"
          className="btn btn-bare !px-1.5"
          disabled={history.futureStates.length === 0}
          onClick={() => history.redo()}
          aria-label="Redo"
          title="Redo (Ctrl Shift Z)"
        >
          <TurnedArrow forth />
        </button>
      </div>
      <nav aria-label="Stations of this design" className="flex h-full">
        {places.map(([name, href]) => (
          <Link
            key={href}
            href={href}
            aria-current={path === href ? 'page' : undefined}
            className="grid h-full place-items-center border-b-[3px] border-transparent px-3 max-[1180px]:px-[7px] aria-[current]:border-volt aria-[current]:font-semibold"
          >
            {name}
          </Link>
        ))}
      </nav>
      <div className="flex">
        <button type="button" className="btn btn-bare !px-1.5" onClick={onPalette} title="All actions (Ctrl K)">
          Actions
        </button>
        <button type="button" className="btn btn-bare !px-1.5" onClick={onKeys} title="Keys (?)">
          Keys
        </button>
      </div>
    </header>
  );
}

/** The design's name, typed over in place. */
function Name() {
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
    <div className="relative">
      <input
        aria-label="Name of the design"
        aria-invalid={fault !== null}
        aria-describedby={fault ? 'name-fault' : undefined}
        className="serif -ml-1 block w-full truncate rounded border border-transparent bg-transparent px-1 text-[17px] font-semibold leading-[22px] hover:border-rule"
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
          className="absolute left-0 top-full z-20 rounded border border-fail bg-raised px-2 text-[13px] text-fail"
        >
          {fault}
        </p>
      )}
    </div>
  );
}
