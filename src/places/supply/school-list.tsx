import type { Patch } from '@/core/design/design';
import type { ComparedId } from '@/core/picture/comparison';
import { FigureList } from '@/ui/figure-list';
import { MiniTerrace } from '@/ui/terrace/mini-terrace';
import type { SchoolReport } from '@/workers/solver.worker';

/** Ways of doing one thing side by side, each as a small terrace of this design with its own figures. */
export function SchoolList({
  reports,
  rows,
  onTake,
}: {
  reports: readonly SchoolReport[];
  /** What they are compared by; what a way does not have is left out. */
  rows: readonly ComparedId[];
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
              <FigureList
                label={`${report.name}: figures`}
                figures={rows.flatMap((id) => (report.answer.ok && report.answer.value.figures[id]) || [])}
              />
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
