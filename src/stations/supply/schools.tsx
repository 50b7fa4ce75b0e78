'use client';

import { useEffect, useState } from 'react';
import { formatQuantity } from '@/core/quantity/format';
import { Dialog } from '@/ui/dialog';
import { MiniTerrace } from '@/ui/terrace/mini-terrace';
import { useDesign, useEdit } from '@/ui/session';
import { solver } from '@/workers/client';
import type { SchoolReport } from '@/workers/solver.worker';

/** Capacitor input, small first capacitor, choke input: the same supply three ways, side by side. */
export function Schools() {
  const design = useDesign();
  const [open, setOpen] = useState(false);
  if (design.rectifier.kind === 'doubler') return null;
  return (
    <div className="self-end">
      <button type="button" className="btn w-full" onClick={() => setOpen(true)}>
        Compare inputs
      </button>
      <Dialog
        open={open}
        onOpenChange={setOpen}
        title="Three ways into the reservoir"
        description="This supply’s own winding, load and reservoir, solved with each kind of input. Nothing changes until you take one."
        wide
      >
        {open && <Side onTaken={() => setOpen(false)} />}
      </Dialog>
    </div>
  );
}

function Side({ onTaken }: { onTaken(): void }) {
  const design = useDesign();
  const edit = useEdit();
  const [reports, setReports] = useState<SchoolReport[] | null>(null);
  useEffect(() => {
    let current = true;
    void solver('search')
      .schools(design)
      .then((found) => current && setReports(found));
    return () => {
      current = false;
    };
  }, [design]);
  if (!reports) {
    return (
      <p className="py-10 text-center text-quiet" aria-live="polite">
        Solving all three…
      </p>
    );
  }
  return (
    <ul className="grid grid-cols-3 gap-4">
      {reports.map((report) => (
        <li key={report.shape} className="flex min-w-0 flex-col border-t-[3px] border-volt pt-2">
          <h3 className="text-[17px] font-semibold">{report.name}</h3>
          <p className="min-h-[3.2em] text-[13.5px] leading-snug text-quiet">{report.creed}</p>
          {report.answer.ok ? (
            <>
              <MiniTerrace summary={report.answer.value.summary} id={`school-${report.shape}`} />
              <dl className="mt-1 grid grid-cols-[1fr_max-content] gap-x-3 gap-y-0.5 text-[14px]">
                {rows(report.answer.value).map(([label, value]) => (
                  <div key={label} className="contents">
                    <dt className="text-quiet">{label}</dt>
                    <dd className="text-right font-semibold tabular-nums">{value}</dd>
                  </div>
                ))}
              </dl>
            </>
          ) : (
            <p role="alert" className="text-fail">
              {report.answer.error}
            </p>
          )}
          <button
            type="button"
            className="btn mt-3 w-full justify-center"
            onClick={() => {
              edit(report.patch);
              onTaken();
            }}
          >
            Take this one
          </button>
        </li>
      ))}
    </ul>
  );
}

function rows(v: Extract<SchoolReport['answer'], { ok: true }>['value']): [string, string][] {
  return [
    ['Rail, nominal, full load', formatQuantity(v.railV, 'V')],
    ['Rises, low loaded to high idle', formatQuantity(v.risesPct, '%')],
    ['Ripple, p-p', formatQuantity(v.rippleV, 'V')],
    ['Winding, RMS', formatQuantity(v.windingA, 'A')],
    ['Charging pulse', formatQuantity(v.pulseA, 'A')],
    ['Parts, typical', `${v.costEur.toFixed(2)} EUR`],
    ['Verdicts that fail', String(v.fails)],
  ];
}
