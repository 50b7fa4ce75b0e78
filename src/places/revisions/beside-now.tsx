'use client';

import { useEffect, useMemo, useState } from 'react';
import type { Design } from '@/core/design/design';
import { COMPARED } from '@/core/picture/comparison';
import type { Figure } from '@/core/study/figure';
import { Alert } from '@/ui/alert';
import { FigureButton } from '@/ui/figure-button';
import { fetchRevision, type Revision } from '@/ui/revisions';
import { useView } from '@/ui/session';
import { StateSign } from '@/ui/state-sign';
import { MiniTerrace } from '@/ui/terrace/mini-terrace';
import { useSolved } from '@/ui/use-solved';
import { Working } from '@/ui/working';
import type { RemoteSolver } from '@/workers/client';
import type { Beside } from '@/workers/solver.worker';

/** A kept state beside the present one: both terraces, every figure of both, and the verdicts that moved. */
export function BesideNow({ revision }: { revision: Revision }) {
  const designId = useView((s) => s.id);
  const [then, setThen] = useState<Design | null>(null);
  const [refused, setRefused] = useState<string | null>(null);
  useEffect(() => {
    let current = true;
    void fetchRevision(designId, revision.id).then((asked) => {
      if (!current) return;
      if (asked.ok) setThen(asked.value.design);
      else setRefused(asked.refusal.sentence);
    });
    return () => {
      current = false;
    };
  }, [designId, revision.id]);
  const ask = useMemo(() => then && ((solver: RemoteSolver, now: Design) => solver.beside(now, then)), [then]);
  const { value, trouble } = useSolved(ask);
  if (refused ?? trouble) return <Alert className="py-2">{refused ?? trouble}</Alert>;
  if (!value)
    return (
      <p className="py-4 text-quiet" aria-live="polite">
        Solving both…
      </p>
    );
  return <Both beside={value} id={revision.id} name={revision.name} />;
}

function Both({ beside: { then, now, moved }, id, name }: { beside: Beside; id: string; name: string }) {
  const [opened, setOpened] = useState<string | null>(null);
  const rows = COMPARED.filter((row) => then.figures[row] ?? now.figures[row]);
  const side = (figure: Figure | undefined, which: 'then' | 'now') =>
    figure && { ...figure, id: `${which}-${figure.id}` };
  const all = rows
    .flatMap((row) => [side(then.figures[row], 'then') ?? [], side(now.figures[row], 'now') ?? []])
    .flat();
  const open = all.find((f) => f.id === opened);
  const cell = (figure: Figure | undefined) =>
    figure ? (
      <FigureButton figure={figure} open={opened} onOpen={setOpened} />
    ) : (
      <span className="text-quiet">none</span>
    );
  return (
    <div className="grid gap-x-8 gap-y-3 py-2 min-[900px]:grid-cols-[minmax(0,1fr)_minmax(0,1fr)]" data-testid="beside">
      <div className="grid grid-cols-2 content-start gap-3">
        {(
          [
            [name, then.summary, 'then'],
            ['Now', now.summary, 'now'],
          ] as const
        ).map(([title, summary, which]) => (
          <figure key={which} className="min-w-0 border-t-[3px] border-volt pt-1">
            <figcaption className="truncate text-[14px] font-semibold">{title}</figcaption>
            <MiniTerrace summary={summary} id={`${which}-${id}`} />
          </figure>
        ))}
        <div className="col-span-2">
          {moved.length === 0 ? (
            <p className="text-[14.5px]">Every verdict stands as it did.</p>
          ) : (
            <ul aria-label="Verdicts that moved" className="space-y-0.5 text-[14.5px]">
              {moved.map((m) => (
                <li key={m.id} className="flex flex-wrap items-center gap-x-2">
                  {m.before ? <StateSign state={m.before.state} /> : <span className="text-quiet">not judged</span>}
                  <span aria-hidden="true">→</span>
                  {m.after ? <StateSign state={m.after.state} /> : <span className="text-quiet">not judged</span>}
                  <span className="font-semibold">{m.title}</span>
                  <span className="tabular-nums text-quiet">
                    {m.before?.figure ?? ''} → {m.after?.figure ?? ''}
                  </span>
                </li>
              ))}
            </ul>
          )}
        </div>
      </div>
      <div>
        <table className="w-full text-[14px]">
          <thead className="text-left text-[13px] text-quiet">
            <tr>
              <td />
              <th className="text-right font-normal">then</th>
              <th className="text-right font-normal">now</th>
            </tr>
          </thead>
          <tbody>
            {rows.map((row) => (
              <tr key={row} className="border-t border-rule/60">
                <th className="text-left font-normal">{(now.figures[row] ?? then.figures[row])!.label}</th>
                <td className="text-right">{cell(side(then.figures[row], 'then'))}</td>
                <td className="text-right">{cell(side(now.figures[row], 'now'))}</td>
              </tr>
            ))}
          </tbody>
        </table>
        {open && (
          <div className="mt-2 border-l-2 border-volt pl-3">
            <Working figure={open} />
          </div>
        )}
      </div>
    </div>
  );
}
