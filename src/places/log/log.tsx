'use client';

import { Download, ImagePlus, Pencil, Trash2 } from 'lucide-react';
import { useDeferredValue, useRef, useState, type FormEvent } from 'react';
import { logDays, logMarkdown } from '@/core/sheet/log';
import type { LogEntry } from '@/core/design/design';
import { LOG_MAX, LOG_TEXT_MAX, PHOTOS_MAX } from '@/core/design/how-many';
import { download, fileName } from '@/ui/download';
import { IconButton } from '@/ui/icon-button';
import { PhotoStrip } from '@/ui/photo-strip';
import { keepPhoto } from '@/ui/photos';
import { Room } from '@/ui/room';
import { useDesign, useEdit } from '@/ui/session';
import { StageChoice } from '@/ui/stage-choice';

const today = () => new Date().toISOString().slice(0, 10);
const blank = (): LogEntry => ({ day: today(), what: '', why: '', photos: [] });

/** Log: what was done to the box, when and why; the readings of each day stand with it. */
export function Log() {
  const design = useDesign();
  const edit = useEdit();
  const [draft, setDraft] = useState<LogEntry>(blank);
  /** Place in the log of the entry that is being changed. */
  const [changing, setChanging] = useState<number | null>(null);
  const [fault, setFault] = useState<string | null>(null);
  const [search, setSearch] = useState('');
  const [taking, setTaking] = useState(0);
  const what = useRef<HTMLInputElement>(null);
  const wanted = useDeferredValue(search);
  const days = logDays(design, wanted);
  const name = fileName(design.name);

  async function saveCsv() {
    const { logCsv } = await import('@/core/sheet/log-csv');
    download(`${name}-log.csv`, logCsv(design), 'text/csv');
  }

  function write(event: FormEvent) {
    event.preventDefault();
    const entry = { day: draft.day, what: draft.what.trim(), why: draft.why.trim(), photos: draft.photos };
    const wrong = faultOf(entry, changing === null && design.log.length >= LOG_MAX);
    setFault(wrong);
    if (wrong) return;
    edit({ log: changing === null ? [...design.log, entry] : design.log.map((e, n) => (n === changing ? entry : e)) });
    setDraft({ ...blank(), day: entry.day });
    setChanging(null);
    what.current?.focus();
  }

  /** Keeps pictures one after the other; what cannot be kept is said, the others stay. */
  async function takeIn(files: readonly File[]) {
    const refused: string[] = [];
    setTaking(files.length);
    for (const file of files) {
      const asked = await keepPhoto(file);
      if (asked.ok)
        setDraft((d) =>
          d.photos.includes(asked.value.id) || d.photos.length >= PHOTOS_MAX
            ? d
            : { ...d, photos: [...d.photos, asked.value.id] },
        );
      else refused.push(`${file.name}: ${asked.refusal.sentence}`);
      setTaking((n) => n - 1);
    }
    if (draft.photos.length + files.length - refused.length > PHOTOS_MAX)
      refused.push(`An entry holds ${PHOTOS_MAX} pictures: make two of it.`);
    setFault(refused.length > 0 ? refused.join(' ') : null);
  }

  return (
    <Room name={null} className="">
      <div className="mx-auto max-w-[1000px] px-5 pb-12 pt-4">
        <div className="flex flex-wrap items-end gap-x-3 gap-y-2">
          <div className="mr-auto">
            <h1 className="text-[23px] font-semibold leading-7">What was done to it, and why</h1>
            <p className="text-quiet">What you read on the bench stands with its day.</p>
          </div>
          <label className="flex items-center gap-2 text-[14px]">
            It is
            <StageChoice
              of={design.name}
              value={design.stage}
              onChoose={(stage) => edit({ stage })}
              className="field !w-auto"
            />
          </label>
          <button type="button" className="btn" onClick={() => void saveCsv()}>
            <Download size={15} /> CSV
          </button>
          <button
            type="button"
            className="btn"
            onClick={() => download(`${name}-log.md`, logMarkdown(design), 'text/markdown')}
          >
            <Download size={15} /> Markdown
          </button>
        </div>
        <form
          onSubmit={write}
          aria-label="An entry"
          className="mt-4 grid items-end gap-x-3 gap-y-2 border-l-[3px] border-volt bg-raised px-4 py-3 min-[760px]:grid-cols-[150px_minmax(0,1fr)_minmax(0,1fr)_auto]"
        >
          <label className="block text-[14px]">
            Day
            <input
              type="date"
              className="field"
              value={draft.day}
              onChange={(e) => setDraft({ ...draft, day: e.target.value })}
            />
          </label>
          <label className="block text-[14px]">
            What was done
            <input
              ref={what}
              className="field"
              value={draft.what}
              aria-invalid={fault !== null}
              aria-describedby="log-fault"
              onChange={(e) => setDraft({ ...draft, what: e.target.value })}
            />
          </label>
          <label className="block text-[14px]">
            Why
            <input className="field" value={draft.why} onChange={(e) => setDraft({ ...draft, why: e.target.value })} />
          </label>
          <button type="submit" className="btn btn-main !min-h-[34px]" disabled={taking > 0}>
            {changing === null ? 'Write it down' : 'Change it'}
          </button>
          <div className="min-[760px]:col-span-4">
            <div className="flex flex-wrap items-center gap-x-3 gap-y-1 text-[14px]">
              <label className="btn has-[:focus-visible]:outline-2 has-[:focus-visible]:outline-volt">
                <ImagePlus size={15} /> {taking > 0 ? `Keeping ${taking}…` : 'Add pictures'}
                <input
                  type="file"
                  multiple
                  accept="image/jpeg,image/png,image/webp"
                  className="sr-only"
                  onChange={(e) => {
                    void takeIn([...(e.target.files ?? [])]);
                    e.target.value = '';
                  }}
                />
              </label>
              <span className="text-quiet">
                Name a part or a test point, C1 or TP3, and they stand beside it on the circuit.
              </span>
            </div>
            <PhotoStrip
              pictures={draft.photos.map((id) => ({ id, day: draft.day, what: draft.what }))}
              onRemove={(gone) => setDraft({ ...draft, photos: draft.photos.filter((id) => id !== gone) })}
            />
          </div>
          <p id="log-fault" role="alert" className="min-h-[20px] text-[13.5px] text-fail min-[760px]:col-span-4">
            {fault}
          </p>
        </form>
        <label className="mt-4 flex max-w-[360px] items-center gap-2 text-[14px]">
          Find
          <input type="search" className="field" value={search} onChange={(e) => setSearch(e.target.value)} />
        </label>
        {days.length === 0 && (
          <p className="mt-4 text-quiet">
            {wanted.trim() !== ''
              ? 'Nothing in the log holds these words.'
              : 'Nothing yet. A first entry could be: switched on through the series lamp; it stayed dark.'}
          </p>
        )}
        <ol className="mt-2" aria-label="Days">
          {days.map((d) => (
            <li
              key={d.day}
              className="grid gap-x-4 border-t border-rule py-2.5 min-[640px]:grid-cols-[110px_minmax(0,1fr)]"
              data-testid="log-day"
            >
              <h2 className="text-[15px] font-semibold tabular-nums">{d.day}</h2>
              <ul className="space-y-1">
                {d.entries.map(({ at, entry }) => (
                  <li key={at} className="flex items-start gap-2">
                    <div className="min-w-0 flex-1 break-words">
                      <span className="font-semibold">{entry.what}</span>
                      {entry.why !== '' && <span className="block text-[14.5px]">{entry.why}</span>}
                      <PhotoStrip pictures={entry.photos.map((id) => ({ id, day: entry.day, what: entry.what }))} />
                    </div>
                    <IconButton
                      label={`Change: ${entry.what}`}
                      title="Change this entry"
                      onClick={() => {
                        setDraft(entry);
                        setChanging(at);
                        what.current?.focus();
                      }}
                    >
                      <Pencil size={15} />
                    </IconButton>
                    <IconButton
                      label={`Remove: ${entry.what}`}
                      title="Remove this entry"
                      onClick={() => {
                        edit({ log: design.log.filter((_, n) => n !== at) });
                        setChanging(null);
                        what.current?.focus();
                      }}
                    >
                      <Trash2 size={15} />
                    </IconButton>
                  </li>
                ))}
                {d.read.length > 0 && <li className="text-[14px] text-quiet">Read: {d.read.join('; ')}.</li>}
              </ul>
            </li>
          ))}
        </ol>
      </div>
    </Room>
  );
}

function faultOf({ day, what, why }: LogEntry, full: boolean): string | null {
  if (full) return `A log holds ${LOG_MAX} entries: remove one, or keep the older ones as a file.`;
  if (day === '') return 'Which day was it? It is written like 2026-01-31.';
  if (what === '') return 'Say what was done: a few words are enough.';
  if (Math.max(what.length, why.length) > LOG_TEXT_MAX)
    return `An entry holds ${LOG_TEXT_MAX} letters in each of its two lines: make two of it.`;
  return null;
}
