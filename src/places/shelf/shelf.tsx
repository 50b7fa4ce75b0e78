'use client';

import { FileUp, Plus } from 'lucide-react';
import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { useDeferredValue, useEffect, useMemo, useState } from 'react';
import { STAGES, type StageOfLife } from '@/core/design/kinds';
import { STAGE_WORDS } from '@/core/design/stage-words';
import type { Summary } from '@/core/picture/summary';
import type { ShelfEntry } from '@/server/designs';
import {
  createDesign,
  fetchDesign,
  fetchShelf,
  fetchSummaries,
  removeDesign,
  restoreDesign,
  saveDesign,
  type Refusal,
} from '@/ui/api';
import { download, downloadDesign, fileName } from '@/ui/download';
import { guide } from '@/ui/guided';
import { Mark } from '@/ui/mark';
import { ThemeSwitch } from '@/ui/theme-switch';
import { Entry } from './entry';
import { SHELF_PAGE } from './page-size';

type Order = 'recent' | 'worst' | 'name';
/** What of the shelf is looked at: all but what is retired, or one stage. */
type Held = 'kept' | StageOfLife;

/** How often the shelf asks again while something on it is being looked at, ms. */
const ASK_AGAIN_MS = 700;

/** What stands on the shelf: as the page brought it, and asked for again while summaries are still being made. */
function useShelf(given: ShelfEntry[]): { entries: ShelfEntry[]; stale: Set<string> } {
  const [asked, setAsked] = useState<{ given: ShelfEntry[]; entries: ShelfEntry[] } | null>(null);
  const entries = asked?.given === given ? asked.entries : given;
  const stale = useMemo(() => new Set(given.filter((e) => e.waiting).map((e) => e.id)), [given]);
  const waiting = entries.some((e) => e.waiting);
  useEffect(() => {
    if (!waiting) return;
    const timer = setTimeout(() => {
      void fetchShelf().then((answer) => answer.ok && setAsked({ given, entries: answer.value }));
    }, ASK_AGAIN_MS);
    return () => clearTimeout(timer);
  }, [waiting, given, entries]);
  return { entries, stale };
}

/** Shelf: which supply, and what state is it in? */
export function Shelf({
  entries: given,
  drawn,
  notice,
  backup,
}: {
  entries: ShelfEntry[];
  drawn: Record<string, Summary>;
  /** Why nothing can be changed; null where it can. */
  notice: string | null;
  /** What reminds of a backup; null where none is due. */
  backup: string | null;
}) {
  const router = useRouter();
  const { entries, stale } = useShelf(given);
  const [gone, setGone] = useState<{ id: string; name: string } | null>(null);
  const [refusal, setRefusal] = useState<(Refusal & { what: string }) | null>(null);
  const [search, setSearch] = useState('');
  const [order, setOrder] = useState<Order>('recent');
  const [held, setHeld] = useState<Held>('kept');
  const [shown, setShown] = useState(SHELF_PAGE);
  const wanted = useDeferredValue(search.trim().toLowerCase());

  const list = useMemo(() => {
    const found = entries.filter(
      (e) =>
        e.id !== gone?.id &&
        (held === 'kept' ? e.stage !== 'retired' : e.stage === held) &&
        (wanted === '' || `${e.name} ${e.headline?.rating ?? ''}`.toLowerCase().includes(wanted)),
    );
    if (order === 'name') found.sort((a, b) => a.name.localeCompare(b.name));
    if (order === 'worst') found.sort((a, b) => trouble(b) - trouble(a));
    return found;
  }, [entries, gone, wanted, order, held]);

  // Terraces that come into view later than the page are fetched then.
  const [fetched, setFetched] = useState<Record<string, Summary>>({});
  const visible = list.slice(0, shown);
  const missing = visible
    .filter((e) => e.headline && !e.waiting && !(drawn[e.id] && !stale.has(e.id)) && !fetched[e.id])
    .slice(0, 100)
    .map((e) => e.id)
    .join(',');
  useEffect(() => {
    if (missing === '') return;
    let current = true;
    void fetchSummaries(missing).then((found) => current && setFetched((before) => ({ ...before, ...found })));
    return () => {
      current = false;
    };
  }, [missing]);

  async function remove(entry: ShelfEntry) {
    const answer = await removeDesign(entry.id);
    if (answer.ok) setGone({ id: entry.id, name: entry.name });
    else setRefusal({ what: `‘${entry.name}’ was not deleted.`, ...answer.refusal });
    router.refresh();
  }

  async function bringBack() {
    if (!gone) return;
    const answer = await restoreDesign(gone.id);
    if (answer.ok) setGone(null);
    else setRefusal({ what: `‘${gone.name}’ was not put back.`, ...answer.refusal });
    router.refresh();
  }

  async function duplicate(entry: ShelfEntry) {
    const what = `‘${entry.name}’ was not duplicated.`;
    const found = await fetchDesign(entry.id);
    if (!found.ok) return setRefusal({ what, ...found.refusal });
    const { design } = found.value;
    const created = await createDesign({ ...design, name: `${design.name.slice(0, 72)}, copy` });
    if (created.ok) router.refresh();
    else setRefusal({ what, ...created.refusal });
  }

  async function goOn(entry: ShelfEntry, stage: StageOfLife) {
    const what = `‘${entry.name}’ was not changed.`;
    const found = await fetchDesign(entry.id);
    if (!found.ok) return setRefusal({ what, ...found.refusal });
    const saved = await saveDesign({ ...found.value, design: { ...found.value.design, stage } });
    if (saved.ok) router.refresh();
    else setRefusal({ what, ...saved.refusal });
  }

  /** On a design of their own: what is broken there is nobody's. */
  async function firstSteps() {
    const what = 'The first steps could not be begun.';
    const { exampleForFirstSteps } = await import('@/core/design/first-steps');
    const created = await createDesign(exampleForFirstSteps());
    if (!created.ok) return setRefusal({ what, ...created.refusal });
    guide(created.value.id);
    router.push(`/design/${created.value.id}`);
  }

  async function take(entry: ShelfEntry) {
    const found = await fetchDesign(entry.id);
    if (found.ok) return downloadDesign(found.value.design);
    // What cannot be read is handed over as it was stored.
    const text = found.said['text'];
    if (typeof text === 'string') download(`${fileName(entry.name)}-as-stored.json`, text, 'application/json');
    else setRefusal({ what: `‘${entry.name}’ was not exported.`, ...found.refusal });
  }

  return (
    <div className="mx-auto max-w-[1240px] px-5 pb-10">
      <header className="flex flex-wrap items-center gap-x-3 gap-y-2 py-4">
        <Mark size={34} />
        <div className="mr-auto">
          <h1 className="text-[25px] font-semibold leading-7">Ember Rail</h1>
          <p className="text-[14px] text-quiet">Transformer-fed linear supplies, from load to sheet</p>
        </div>
        <button type="button" className="btn btn-bare" onClick={() => void firstSteps()}>
          First steps
        </button>
        <Link href="/glossary" className="btn btn-bare">
          Words
        </Link>
        <ThemeSwitch />
        <Link href="/new?way=file" className="btn">
          <FileUp size={16} /> Import
        </Link>
        <Link href="/drawer" className="btn">
          Drawer
        </Link>
        <Link href="/backup" className="btn">
          Backup
        </Link>
        <Link href="/new" className="btn btn-main">
          <Plus size={16} /> Begin a supply
        </Link>
      </header>
      {notice && (
        <p role="status" className="mb-3 rounded border-2 border-tight px-3 py-2">
          {notice}
        </p>
      )}
      {backup && (
        <p className="mb-3 rounded border border-edge bg-raised px-3 py-1.5">
          {backup}{' '}
          <Link href="/backup" className="font-semibold underline">
            Make one
          </Link>
        </p>
      )}
      {refusal && (
        <p role="alert" className="mb-3 flex items-start gap-3 rounded border-2 border-fail bg-fail-soft px-3 py-2">
          <span className="flex-1">
            <strong className="text-fail">{refusal.what}</strong>{' '}
            {refusal.path && <code className="font-semibold">{refusal.path}</code>}
            {refusal.path && ': '}
            {refusal.sentence}
          </span>
          <button type="button" className="btn !min-h-[24px]" onClick={() => setRefusal(null)}>
            Dismiss
          </button>
        </p>
      )}
      {gone && (
        <p role="status" className="mb-3 flex items-center gap-3 rounded border border-edge bg-raised px-3 py-2">
          <span key={gone.id} tabIndex={-1} className="flex-1" ref={(told) => told?.focus()}>
            ‘{gone.name}’ is off the shelf.
          </span>
          <button type="button" className="btn" onClick={() => void bringBack()}>
            Put it back
          </button>
        </p>
      )}
      <main>
        {(entries.length > 3 || entries.some((e) => e.stage === 'retired')) && (
          <div className="mb-3 flex flex-wrap items-center gap-3">
            <input
              className="field max-w-[320px]"
              type="search"
              placeholder="Find by name or rating"
              aria-label="Find a design"
              value={search}
              onChange={(e) => setSearch(e.target.value)}
            />
            <select
              className="field !w-auto"
              aria-label="Order"
              value={order}
              onChange={(e) => setOrder(e.target.value as Order)}
            >
              <option value="recent">Last changed first</option>
              <option value="worst">In trouble first</option>
              <option value="name">By name</option>
            </select>
            <select
              className="field !w-auto"
              aria-label="Which of them"
              value={held}
              onChange={(e) => setHeld(e.target.value as Held)}
            >
              <option value="kept">All but retired</option>
              {STAGES.map((s) => (
                <option key={s} value={s}>
                  {STAGE_WORDS[s]}
                </option>
              ))}
            </select>
            <span className="text-quiet">
              {list.length} of {entries.length}
            </span>
          </div>
        )}
        {entries.length === 0 || (gone && entries.length === 1 && entries[0]!.id === gone.id) ? (
          <section className="mx-auto mt-16 max-w-md text-center">
            <h2 className="text-[22px] font-semibold">The shelf is empty</h2>
            <p className="mt-2 text-quiet">
              Say what a supply has to feed, and you get a set of standard parts that passes at low line and high line,
              with the reasons.
            </p>
            <div className="mt-4 flex justify-center gap-2">
              <Link href="/new" className="btn btn-main">
                <Plus size={16} /> Begin a supply
              </Link>
              <button type="button" className="btn" onClick={() => void firstSteps()}>
                First steps, five minutes
              </button>
            </div>
          </section>
        ) : (
          <ul className="grid grid-cols-[repeat(auto-fill,minmax(min(300px,100%),1fr))] gap-4">
            {visible.map((e) => (
              <Entry
                key={e.id}
                entry={e}
                summary={drawn[e.id] ?? fetched[e.id]}
                onStage={(stage) => void goOn(e, stage)}
                onRemove={() => void remove(e)}
                onDuplicate={() => void duplicate(e)}
                onExport={() => void take(e)}
              />
            ))}
          </ul>
        )}
        {list.length === 0 && entries.length > 0 && !(gone && entries.length === 1) && (
          <p className="mt-8 text-center text-quiet">
            {search
              ? `Nothing on the shelf matches ‘${search}’.`
              : held === 'kept'
                ? 'All that is left here is retired.'
                : `Nothing here is at that stage: ${STAGE_WORDS[held].toLowerCase()}.`}
          </p>
        )}
        {list.length > shown && (
          <button type="button" className="btn mx-auto mt-5" onClick={() => setShown(shown + 4 * SHELF_PAGE)}>
            Show more of {list.length}
          </button>
        )}
      </main>
    </div>
  );
}

function trouble(entry: ShelfEntry): number {
  return entry.headline === null ? 1e6 : 100 * entry.headline.fails + entry.headline.tight;
}
