'use client';

import { useState } from 'react';
import { COMPARED } from '@/core/picture/comparison';
import { formatQuantity } from '@/core/quantity/format';
import type { Figure } from '@/core/study/figure';
import { FigureButton } from '@/ui/figure-button';
import { StateSign } from '@/ui/state-sign';
import { MiniTerrace } from '@/ui/terrace/mini-terrace';
import { Working } from '@/ui/working';
import type { Beside } from '@/workers/solver.worker';

/** Two states on one terrace, every figure of both, what differs, the verdicts that moved, and the bill. */
export function Both({
  beside: { then, now, moved, differs, bill },
  then: thenName,
  now: nowName,
}: {
  beside: Beside;
  /** What each side is called. */
  then: string;
  now: string;
}) {
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
      <div className="content-start space-y-3">
        <figure className="border-t-[3px] border-volt pt-1">
          <figcaption className="flex flex-wrap gap-x-5 text-[14px]">
            <span className="min-w-0 truncate">
              <svg width="26" height="8" aria-hidden="true" className="mr-1.5 inline">
                <path d="M0 4H26" stroke="var(--volt)" strokeWidth="2.6" />
              </svg>
              <span className="font-semibold">{nowName}</span>
            </span>
            <span className="min-w-0 truncate">
              <svg width="26" height="8" aria-hidden="true" className="mr-1.5 inline">
                <path d="M0 4H26" stroke="var(--ink)" strokeWidth="1.3" strokeDasharray="2 2" />
              </svg>
              {thenName}, thin
            </span>
          </figcaption>
          <MiniTerrace summary={now.summary} older={then.summary} id="both" />
        </figure>
        <div>
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
        <div>
          <h2 className="text-[15px] font-semibold">What differs</h2>
          {differs.length === 0 ? (
            <p className="text-[14.5px]">Nothing of the supply itself.</p>
          ) : (
            <ul aria-label="What differs" className="text-[14px]">
              {differs.map((d) => (
                <li key={d.path} className="flex flex-wrap gap-x-3 border-t border-rule/60 py-0.5">
                  <span className="mr-auto text-quiet">{d.label}</span>
                  <span className="tabular-nums">
                    {d.before || 'none'} → <span className="font-semibold">{d.after || 'none'}</span>
                  </span>
                </li>
              ))}
            </ul>
          )}
        </div>
        <div>
          <h2 className="text-[15px] font-semibold">
            The bill: {formatQuantity(bill.beforeEur, 'EUR')} → {formatQuantity(bill.afterEur, 'EUR')}
            <span className="font-normal text-quiet"> ≈</span>
          </h2>
          <ul aria-label="What the bill gains and loses" className="text-[14px]">
            {bill.lines.map((l) => (
              <li key={l.what} className="flex flex-wrap gap-x-3 border-t border-rule/60 py-0.5">
                <span className="mr-auto">{l.what}</span>
                <span className="tabular-nums text-quiet">
                  {l.before.count} → {l.after.count}, {formatQuantity(l.after.eur - l.before.eur, 'EUR')}
                </span>
              </li>
            ))}
          </ul>
        </div>
      </div>
      <div>
        <table className="w-full text-[14px]">
          <thead className="text-left text-[13px] text-quiet">
            <tr>
              <td />
              <th className="max-w-[130px] truncate pl-3 text-right font-normal" title={thenName}>
                {thenName}
              </th>
              <th className="max-w-[130px] truncate pl-3 text-right font-normal" title={nowName}>
                {nowName}
              </th>
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
