'use client';

import { Download, Eye, FileUp, History } from 'lucide-react';
import { useRouter } from 'next/navigation';
import { useRef, useState } from 'react';
import { Alert } from '@/ui/alert';
import { lookInto, makeBackup, putInPlace, type Copy, type Look } from '@/ui/backup';
import { save } from '@/ui/download';
import { PageHead } from '@/ui/page-head';
import { ThemeSwitch } from '@/ui/theme-switch';

/** Backup: everything in one file, and back again after a look inside. */
export function Backup({ last, copies }: { last: string | null; copies: readonly Copy[] }) {
  const router = useRouter();
  const input = useRef<HTMLInputElement>(null);
  const [busy, setBusy] = useState<string | null>(null);
  const [trouble, setTrouble] = useState<string | null>(null);
  const [done, setDone] = useState('');
  const [look, setLook] = useState<{ of: string; look: Look } | null>(null);

  async function during(what: string, work: () => Promise<void>) {
    setBusy(what);
    setTrouble(null);
    setDone('');
    await work();
    setBusy(null);
  }
  const make = () =>
    during('Gathering everything…', async () => {
      const made = await makeBackup();
      if (!made.ok) return setTrouble(`No backup was made. ${made.sentence}`);
      const day = new Date().toISOString().slice(0, 10);
      save(`ember-rail-${day}.backup`, made.file);
      setDone('Made. Keep it somewhere else than on this machine.');
      router.refresh();
    });
  const open = (of: string, what: Blob | { copy: string }) =>
    during(`Looking into ${of}…`, async () => {
      const asked = await lookInto(what);
      setLook(asked.ok ? { of, look: asked.value } : null);
      if (!asked.ok) setTrouble(`${of}: ${asked.refusal.sentence}`);
    });
  const restore = (token: string, of: string) =>
    during('Putting it in place…', async () => {
      const asked = await putInPlace(token);
      if (!asked.ok) return setTrouble(`Nothing was replaced. ${asked.refusal.sentence}`);
      setLook(null);
      setDone(`Everything is now as in ${of}. How it stood before lies beside the file as ${asked.value.before}.`);
      router.refresh();
    });

  return (
    <div className="mx-auto max-w-[860px] px-5 pb-12">
      <PageHead title="Backup">
        <ThemeSwitch />
      </PageHead>
      <main>
        <section aria-label="Make a backup" className="border-l-[3px] border-volt bg-raised px-4 py-3">
          <p className="text-[17px]">
            {last === null ? (
              'No backup was made yet.'
            ) : (
              <>
                Last made on <time dateTime={last}>{last.slice(0, 10)}</time>, {ago(last)}.
              </>
            )}
          </p>
          <p className="mt-0.5 text-quiet">
            Every design with its revisions, log and pictures, the drawer and the instruments, in one file. The program
            goes on meanwhile.
          </p>
          <button type="button" className="btn btn-main mt-2" disabled={busy !== null} onClick={() => void make()}>
            <Download size={16} /> Make a backup
          </button>
        </section>
        <p role="status" className="mt-3 min-h-[24px]">
          {busy ?? done}
        </p>
        {trouble && <Alert className="pb-2">{trouble}</Alert>}
        <section aria-label="Restore" className="mt-2">
          <h2 className="text-[19px] font-semibold">Bring one back</h2>
          <p className="text-quiet">You see what is in it first. Nothing is replaced before you say so.</p>
          <input
            ref={input}
            type="file"
            className="hidden"
            aria-label="File of a backup"
            onChange={(e) => {
              const chosen = e.target.files?.[0];
              e.target.value = '';
              if (chosen) void open(chosen.name, chosen);
            }}
          />
          <button type="button" className="btn mt-2" disabled={busy !== null} onClick={() => input.current?.click()}>
            <FileUp size={16} /> Look into a file
          </button>
          {look && (
            <Inside
              of={look.of}
              look={look.look}
              busy={busy !== null}
              onRestore={() => void restore(look.look.token, look.of)}
              onLeave={() => setLook(null)}
            />
          )}
        </section>
        <section aria-label="Copies made by itself" className="mt-6">
          <h2 className="text-[19px] font-semibold">Copies made by itself</h2>
          <p className="text-quiet">
            One for each day the program was begun, the last seven; one before each change of version, and before each
            restore. They lie beside the file, so they go where it goes.
          </p>
          {copies.length === 0 ? (
            <p className="mt-2">None yet: the first is made when the program is begun on another day.</p>
          ) : (
            <ul className="mt-2">
              {copies.map((c) => (
                <li key={c.name} className="flex flex-wrap items-center gap-x-4 gap-y-1 border-t border-rule py-1.5">
                  <span className="mr-auto break-all">
                    <span className="font-semibold">{c.name}</span>{' '}
                    <span className="text-quiet">
                      {c.madeAt.slice(0, 16).replace('T', ' ')} UTC, {(c.bytes / 1e6).toFixed(1)} MB
                    </span>
                  </span>
                  <button
                    type="button"
                    className="btn"
                    disabled={busy !== null}
                    aria-label={`Look into it: ${c.name}`}
                    onClick={() => void open(c.name, { copy: c.name })}
                  >
                    <Eye size={15} /> Look into it
                  </button>
                </li>
              ))}
            </ul>
          )}
        </section>
      </main>
    </div>
  );
}

const HERE = {
  none: 'is not here',
  same: 'is here just so',
  older: 'would replace an older state',
  newer: 'would replace a NEWER state',
} as const;

function Inside({
  of,
  look,
  busy,
  onRestore,
  onLeave,
}: {
  of: string;
  look: Look;
  busy: boolean;
  onRestore(): void;
  onLeave(): void;
}) {
  const many = (n: number, one: string) => `${n} ${one}${n === 1 ? '' : 's'}`;
  return (
    <div className="mt-3 border-2 border-tight px-4 py-3" data-testid="look">
      <h3 className="text-[17px] font-semibold">In {of}</h3>
      <p>
        {many(look.designs.length, 'design')}, {many(look.revisions, 'revision')}, {many(look.photos, 'picture')},{' '}
        {many(look.parts, 'part')} in the drawer
        {look.lastChange && `; last changed on ${look.lastChange.slice(0, 10)}`}.
      </p>
      <ul className="mt-1.5 max-h-[300px] overflow-y-auto text-[14.5px]">
        {look.designs.map((d, n) => (
          <li key={n} className="flex flex-wrap gap-x-3 border-t border-rule py-0.5">
            <span className="mr-auto font-semibold">{d.name}</span>
            <span className="tabular-nums text-quiet">{d.updatedAt.slice(0, 10)}</span>
            <span className={d.here === 'newer' ? 'font-semibold text-fail' : ''}>{HERE[d.here]}</span>
          </li>
        ))}
        {look.gone.map((name, n) => (
          <li key={`gone ${n}`} className="flex flex-wrap gap-x-3 border-t border-rule py-0.5">
            <span className="mr-auto font-semibold">{name}</span>
            <span className="font-semibold text-fail">is here, not in it: would leave the shelf</span>
          </li>
        ))}
      </ul>
      <p className="mt-2">
        All that is here is replaced by what is in it. How it stands now is kept beside the file first, as a copy you
        can look into and bring back the same way.
      </p>
      <div className="mt-2 flex flex-wrap gap-2">
        <button type="button" className="btn btn-main" disabled={busy} onClick={onRestore}>
          <History size={16} /> Put it in place of what is here
        </button>
        <button type="button" className="btn" disabled={busy} onClick={onLeave}>
          Leave it
        </button>
      </div>
    </div>
  );
}

/** How long ago a day is, in words a person uses. */
function ago(at: string): string {
  const days = Math.floor((Date.now() - Date.parse(at)) / 86_400_000);
  return days < 1 ? 'today' : days === 1 ? 'yesterday' : `${days} days ago`;
}
