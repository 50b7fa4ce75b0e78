import type { Patch } from '@/core/design/design';
import { MiniTerrace } from '@/ui/terrace/mini-terrace';
import type { SchoolReport } from '@/workers/solver.worker';

export type SchoolFigures = Extract<SchoolReport['answer'], { ok: true }>['value'];

/** Ways of doing one thing side by side, each as a small terrace of this design with its own figures. */
export function SchoolList({
  reports,
  rows,
  onTake,
}: {
  reports: readonly SchoolReport[];
  rows(figures: SchoolFigures): [string, string][];
  onTake(patch: Patch): void;
}) {
  return (
    <ul className={`grid gap-4 ${reports.length === 2 ? 'grid-cols-2' : 'grid-cols-3'}`}>
      {reports.map((report) => (
        <li key={report.id} className="flex min-w-0 flex-col border-t-[3px] border-volt pt-2">
          <h3 className="text-[17px] font-semibold">{report.name}</h3>
          <p className="min-h-[4.2em] text-[13.5px] leading-snug text-quiet">{report.creed}</p>
          {report.answer.ok ? (
            <>
              <MiniTerrace summary={report.answer.value.summary} id={`school-${report.id}`} />
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
          <button type="button" className="btn mt-3 w-full justify-center" onClick={() => onTake(report.patch)}>
            Take this one
          </button>
        </li>
      ))}
    </ul>
  );
}

/** In the place of a comparison that is being solved, or could not be. */
export function Waiting({ trouble }: { trouble: string | null }) {
  return trouble ? (
    <p role="alert">{trouble}</p>
  ) : (
    <p className="py-10 text-center text-quiet" aria-live="polite">
      Solving them…
    </p>
  );
}
