'use client';

import { figureText } from '@/core/study/figure';
import { Printer, Tag } from 'lucide-react';
import dynamic from 'next/dynamic';
import { useState } from 'react';
import type { Design } from '@/core/design/design';
import { NOTE_MAX } from '@/core/design/how-many';
import { arrangementWords, ratingWords } from '@/core/design/words';
import { report } from '@/core/sheet/report';
import type { Paper } from '@/core/sheet/pdf';
import { summaryOf } from '@/core/picture/summary';
import { MiniTerrace } from '@/ui/terrace/mini-terrace';
import { useDesign, useEdit, useSession, useView } from '@/ui/session';
import { useSolved } from '@/ui/use-solved';
import { Alert } from '@/ui/alert';
import type { RemoteSolver } from '@/workers/client';
import { Room } from '@/ui/room';
import { TakeAlong } from './take-along';

const Working = dynamic(() => import('@/ui/working').then((m) => m.Working), { ssr: false });
// Its code is made by a package of its own, and only where a label is wanted.
const LabelMaker = dynamic(() => import('./label-maker').then((m) => m.LabelMaker), { ssr: false });

const askBench = (solver: RemoteSolver, design: Design) => solver.bench(design);
const askMost = (solver: RemoteSolver, design: Design) => solver.most(design);

/** Sheet: what will I want to know in two years? One page that stays with the box. */
export function Sheet() {
  const session = useSession();
  const design = useDesign();
  const edit = useEdit();
  const picture = useView((s) => s.picture);
  const trouble = useView((s) => s.trouble);
  const { value: points, trouble: benchTrouble } = useSolved(askBench);
  const { value: most, trouble: mostTrouble } = useSolved(askMost);
  const [opened, setOpened] = useState<string | null>(null);
  const [paper, setPaper] = useState<Paper>('A4');
  const [labelled, setLabelled] = useState(false);

  // What could not be found is said above the sheet and left out of it; what is still on its way is waited for.
  const found = (points || benchTrouble) && (most || mostTrouble);
  const page = picture && found ? report(picture, points ?? [], most ?? []) : null;
  return (
    <Room name="Sheet" className="bg-sunk print:bg-transparent">
      <style>{`@page { size: ${paper === 'A4' ? 'A4' : 'letter'}; margin: 11mm 12mm; }`}</style>
      <div className="mx-auto max-w-[860px] px-5 py-3 print:hidden">
        {page && picture && (
          <TakeAlong picture={picture} page={page} paper={paper}>
            <button type="button" className="btn" onClick={() => window.print()}>
              <Printer size={16} /> Print
            </button>
            <button type="button" className="btn" aria-expanded={labelled} onClick={() => setLabelled(!labelled)}>
              <Tag size={16} /> Label
            </button>
            <label className="ml-auto flex items-center gap-2">
              Paper
              <select className="field !w-auto" value={paper} onChange={(e) => setPaper(e.target.value as Paper)}>
                <option value="A4">A4</option>
                <option value="LETTER">Letter</option>
              </select>
            </label>
          </TakeAlong>
        )}
        {labelled && picture && (
          <div className="w-full border-l-[3px] border-volt bg-raised px-4 py-3">
            <LabelMaker picture={picture} />
          </div>
        )}
      </div>
      {trouble && (
        <Alert className="mx-auto max-w-[860px] px-5 pb-2">
          Not solved: the figures below are from before your last change. {trouble}
        </Alert>
      )}
      {!trouble && (benchTrouble ?? mostTrouble) && (
        <Alert className="mx-auto max-w-[860px] px-5 pb-2">
          {benchTrouble
            ? `The test points are missing or older than your last change. ${benchTrouble}`
            : `The most it gives is missing or older than your last change. ${mostTrouble!}`}
        </Alert>
      )}
      {!page || !picture ? (
        <p className="p-8 text-center text-quiet" aria-live="polite">
          Gathering the sheet…
        </p>
      ) : (
        <article
          className="mx-auto mb-10 max-w-[860px] border border-rule bg-paper px-9 py-6 text-[13.5px] leading-snug print:m-0 print:max-w-none print:border-0 print:p-0 print:text-[7pt] print:leading-[1.1] [&_h2]:print:text-[9pt] [&_section]:print:mt-1"
          data-testid="sheet"
        >
          <header className="flex items-start justify-between gap-6 border-b-2 border-ink pb-2">
            <div className="min-w-0">
              <h1 dir="auto" className="text-left text-[22px] font-semibold leading-tight break-words">
                {design.name}
              </h1>
              <p>{arrangementWords(design)}</p>
            </div>
            <p className="serif shrink-0 text-right text-[19px] font-semibold leading-tight">
              {ratingWords(design)}
              <br />
              <span className="text-[12px] font-normal">Ember Rail, {new Date().toISOString().slice(0, 10)}</span>
            </p>
          </header>
          <section
            aria-label="Cautions"
            className="mt-2 columns-1 gap-x-5 border-2 border-ink px-3 py-1.5 print:columns-2"
          >
            {page.cautions.map((c) => (
              <p key={c} className="break-inside-avoid">
                ⚠ {c}
              </p>
            ))}
          </section>
          <div className="mt-2 grid grid-cols-[1fr_1.15fr] gap-x-6">
            <section>
              <h2 className="text-[15px] font-semibold">Rating plate</h2>
              <table className="w-full">
                <tbody>
                  {page.plate.map(([k, v]) => (
                    <tr key={k} className="align-top">
                      <th scope="row" className="w-[38%] pr-2 text-left font-normal text-quiet">
                        {k}
                      </th>
                      <td className="font-semibold">{v}</td>
                    </tr>
                  ))}
                </tbody>
              </table>
            </section>
            <div className="self-center">
              <MiniTerrace summary={summaryOf(picture)} id="sheet" />
            </div>
          </div>
          <section className="mt-2">
            <h2 className="text-[15px] font-semibold">What it is made of</h2>
            <table className="w-full">
              <tbody>
                {page.parts.map((p) => (
                  <tr key={p.station} className="border-t border-rule align-top">
                    <th scope="row" className="w-[15%] text-left font-normal text-quiet">
                      {p.station}
                    </th>
                    {p.what !== '' && <td className="w-[22%] font-semibold">{p.what}</td>}
                    <td colSpan={p.what === '' ? 2 : 1}>{p.detail}</td>
                  </tr>
                ))}
              </tbody>
            </table>
          </section>
          <section className="mt-2">
            <h2 className="text-[15px] font-semibold">Margins, simulated, at the corner that decides</h2>
            <table className="w-full">
              <thead>
                <tr className="text-left text-quiet">
                  <th className="font-normal">Verdict</th>
                  <th className="font-normal">State</th>
                  <th className="font-normal">Figure</th>
                  <th className="font-normal">Limit</th>
                  <th className="font-normal">At</th>
                </tr>
              </thead>
              <tbody>
                {page.margins.map((m) => (
                  <tr key={m.title} className="border-t border-rule">
                    <th scope="row" className="text-left font-normal">
                      {m.title}
                    </th>
                    <td
                      className={
                        m.state === 'fails' ? 'font-bold text-fail' : m.state === 'tight' ? 'font-semibold' : ''
                      }
                    >
                      {m.state === 'fails' ? '✕ fails' : m.state}
                    </td>
                    <td>
                      <button
                        type="button"
                        className="num min-h-[24px] font-semibold print:min-h-0 print:border-0"
                        aria-expanded={opened === m.title}
                        aria-label={`${m.title}: ${figureText(m.figure)}, its working`}
                        onClick={() => setOpened(opened === m.title ? null : m.title)}
                      >
                        {figureText(m.figure)}
                      </button>
                    </td>
                    <td>{m.limit}</td>
                    <td className="text-quiet">{m.condition}</td>
                  </tr>
                ))}
              </tbody>
            </table>
            {page.margins
              .filter((m) => m.title === opened)
              .map((m) => (
                <div key={m.title} className="mt-1 border-l-2 border-volt pl-3 print:hidden">
                  <Working figure={m.figure} />
                </div>
              ))}
          </section>
          <section className="mt-2">
            <h2 className="text-[15px] font-semibold">Expected and read</h2>
            <table className="w-full">
              <thead>
                <tr className="text-left text-quiet">
                  <th className="font-normal">Stage</th>
                  <th className="font-normal">Point</th>
                  <th className="font-normal">Expected</th>
                  <th className="font-normal">Read</th>
                  <th className="font-normal">Judged</th>
                </tr>
              </thead>
              <tbody>
                {page.readings.map((r) => (
                  <tr key={r.label} className="border-t border-rule">
                    <td className="text-quiet">{r.stage}</td>
                    <th scope="row" className="text-left font-normal">
                      {r.label}
                    </th>
                    <td>{r.expected}</td>
                    <td className="min-w-[90px] font-semibold">
                      {r.read || <span className="text-quiet">__________</span>}
                    </td>
                    <td className={r.judged.startsWith('too') ? 'font-bold text-fail' : ''}>{r.judged}</td>
                  </tr>
                ))}
              </tbody>
            </table>
          </section>
          {page.tryFirst.length > 0 && (
            <section className="mt-2">
              <h2 className="text-[15px] font-semibold">When it fails, try first</h2>
              <p>In this order, unloaded but for the last: the first one outside its window is where to look.</p>
              <ol>
                {page.tryFirst.map((t) => (
                  <li key={t.label} className="border-t border-rule">
                    <span className="font-semibold">
                      {t.label}, {t.should}.
                    </span>{' '}
                    <span className="text-quiet">Less:</span> {t.low} <span className="text-quiet">More:</span> {t.high}
                  </li>
                ))}
              </ol>
            </section>
          )}
          {page.changed.length > 0 && (
            <section className="mt-2">
              <h2 className="text-[15px] font-semibold">Last done to it, and why</h2>
              <ul>
                {page.changed.map((c, n) => (
                  <li key={n} className="border-t border-rule">
                    <span className="text-quiet">{c.day}</span> <span className="font-semibold">{c.what}</span> {c.why}
                  </li>
                ))}
              </ul>
            </section>
          )}
          <section className="mt-2">
            <h2 className="text-[15px] font-semibold">
              <label htmlFor="note">Notes</label>
            </h2>
            <textarea
              id="note"
              className="field !h-auto min-h-[44px] resize-y py-1 leading-snug print:hidden"
              rows={2}
              maxLength={NOTE_MAX}
              value={design.note}
              onFocus={() => session.document.beginGesture()}
              onBlur={() => session.document.endGesture()}
              onKeyDown={(e) => {
                if ((e.ctrlKey || e.metaKey) && ['z', 'y'].includes(e.key.toLowerCase())) e.stopPropagation();
              }}
              placeholder="What was changed and why; where the box stands."
              onChange={(e) => edit({ note: e.target.value })}
            />
            <p className="hidden whitespace-pre-wrap print:block">{design.note}</p>
          </section>
        </article>
      )}
    </Room>
  );
}
