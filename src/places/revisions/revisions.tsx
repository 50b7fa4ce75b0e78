'use client';

import { History, GitCompareArrows } from 'lucide-react';
import { useEffect, useRef, useState, type FormEvent } from 'react';
import { LOG_TEXT_MAX, REVISION_NAME_MAX } from '@/core/design/how-many';
import { Alert } from '@/ui/alert';
import { fetchShelf } from '@/ui/api';
import { fetchRevision, fetchRevisions, keepRevision, type Revision } from '@/ui/revisions';
import { Room } from '@/ui/room';
import { useDesign, useSession, useView } from '@/ui/session';
import { Comparison, type Sides } from './comparison';
import { choicesOf } from './what-to-compare';

/** Revisions: how the design stood at the moments that matter, under a name; nothing is ever lost. */
export function Revisions() {
  const { document } = useSession();
  const id = useView((s) => s.id);
  const [kept, setKept] = useState<Revision[] | null>(null);
  const [fault, setFault] = useState<string | null>(null);
  const [done, setDone] = useState('');
  const [busy, setBusy] = useState(false);
  const [draft, setDraft] = useState({ name: '', why: '' });
  const [sides, setSides] = useState<Sides | null>(null);
  const [others, setOthers] = useState<{ id: string; name: string }[]>([]);
  const measured = useDesign().bench;
  const name = useRef<HTMLInputElement>(null);
  useEffect(() => {
    let current = true;
    void fetchRevisions(id).then((asked) => {
      if (!current) return;
      if (asked.ok) setKept(asked.value);
      else setFault(asked.refusal.sentence);
    });
    // What else is on the shelf may be laid beside it; without the list it is not offered.
    void fetchShelf().then((asked) => {
      if (current && asked.ok) setOthers(asked.value.filter((e) => e.id !== id && e.headline !== null));
    });
    return () => {
      current = false;
    };
  }, [id]);

  /** Keeps the present state; false, and why, where that could not be. */
  async function keep(naming: { name: string; why: string }, unlessKept: boolean): Promise<boolean> {
    setBusy(true);
    const asked = await keepRevision(id, { ...naming, design: document.getState().design }, unlessKept);
    setBusy(false);
    setFault(asked.ok ? null : asked.refusal.sentence);
    if (asked.ok) setKept(asked.value);
    return asked.ok;
  }

  async function write(event: FormEvent) {
    event.preventDefault();
    setDone('');
    if (draft.name.trim() === '') {
      setFault('Give it a name: as built, or second version, 22 V tap.');
      name.current?.focus();
      return;
    }
    if (!(await keep(draft, false))) return;
    setDone(`Kept as “${draft.name.trim()}”.`);
    setDraft({ name: '', why: '' });
    name.current?.focus();
  }

  async function goBack(to: Revision) {
    setDone('');
    const asked = await fetchRevision(id, to.id);
    if (!asked.ok) return setFault(asked.refusal.sentence);
    // What stands now is kept first: going back loses nothing.
    if (!(await keep({ name: `Before going back to ${to.name}`.slice(0, REVISION_NAME_MAX), why: '' }, true))) return;
    document.getState().replace(asked.value.design);
    setDone(`The design is now as “${to.name}” was. What stood before is kept in the list; undo brings it back too.`);
  }

  return (
    <Room name={null} className="">
      <div className="mx-auto max-w-[1000px] px-5 pb-12 pt-4">
        <h1 className="text-[23px] font-semibold leading-7">How it stood, under a name</h1>
        <p className="text-quiet">
          Kept by you, and by itself before a fit is taken or you go back. What is kept is never changed.
        </p>
        <form
          onSubmit={(e) => void write(e)}
          aria-label="Keep how it stands now"
          className="mt-4 grid items-end gap-x-3 gap-y-2 border-l-[3px] border-volt bg-raised px-4 py-3 min-[760px]:grid-cols-[minmax(0,1fr)_minmax(0,1.4fr)_auto]"
        >
          <label className="block text-[14px]">
            Name
            <input
              ref={name}
              className="field"
              maxLength={REVISION_NAME_MAX}
              placeholder="as built"
              value={draft.name}
              aria-invalid={fault !== null}
              aria-describedby="revision-fault"
              onChange={(e) => setDraft({ ...draft, name: e.target.value })}
            />
          </label>
          <label className="block text-[14px]">
            Why
            <input
              className="field"
              maxLength={LOG_TEXT_MAX}
              value={draft.why}
              onChange={(e) => setDraft({ ...draft, why: e.target.value })}
            />
          </label>
          <button type="submit" className="btn btn-main !min-h-[34px]" disabled={busy}>
            Keep it
          </button>
          <div id="revision-fault" className="text-[13.5px] empty:hidden min-[760px]:col-span-3">
            {fault && <Alert>{fault}</Alert>}
          </div>
        </form>
        <p role="status" className="mt-2 min-h-[22px] text-[14px]">
          {done}
        </p>
        {kept && (
          <div className="min-h-[36px]">
            {sides ? (
              <>
                <button type="button" className="btn float-right" onClick={() => setSides(null)}>
                  Close
                </button>
                <Comparison
                  choices={choicesOf(kept, others, measured.readings.length + measured.loadLine.length > 0)}
                  sides={sides}
                  onSides={setSides}
                />
              </>
            ) : (
              <button
                type="button"
                className="btn"
                onClick={() => setSides({ left: kept[0] ? `revision ${kept[0].id}` : 'now', right: 'now' })}
              >
                <GitCompareArrows size={15} /> Compare two states, or two designs
              </button>
            )}
          </div>
        )}
        {kept?.length === 0 && (
          <p className="mt-2 text-quiet">
            Nothing kept yet. Worth a name: the design as it went to the bench, and as it left it.
          </p>
        )}
        <ol aria-label="Kept">
          {kept?.map((r) => (
            <li
              key={r.id}
              className="grid items-start gap-x-4 gap-y-1 border-t border-rule py-2.5 min-[640px]:grid-cols-[150px_minmax(0,1fr)_auto]"
            >
              <p className="text-[14px] tabular-nums text-quiet">
                <time dateTime={r.keptAt}>{r.keptAt.slice(0, 16).replace('T', ' ')}</time> UTC
              </p>
              <div className="min-w-0 break-words">
                <h2 className="text-[16px] font-semibold">{r.name}</h2>
                {r.why !== '' && <p className="text-[14.5px]">{r.why}</p>}
              </div>
              <div className="flex gap-2">
                <button
                  type="button"
                  className="btn"
                  aria-pressed={sides?.left === `revision ${r.id}`}
                  aria-label={`Beside now: ${r.name}`}
                  onClick={() => setSides({ left: `revision ${r.id}`, right: 'now' })}
                >
                  <GitCompareArrows size={15} /> Beside now
                </button>
                <button
                  type="button"
                  className="btn"
                  disabled={busy}
                  aria-label={`Go back to it: ${r.name}`}
                  onClick={() => void goBack(r)}
                >
                  <History size={15} /> Go back to it
                </button>
              </div>
            </li>
          ))}
        </ol>
      </div>
    </Room>
  );
}
