'use client';

import { Alert } from '@/ui/alert';
import { Room } from '@/ui/room';
import { useDesign } from '@/ui/session';
import { CheckList } from './check-list';
import { MainsCaution } from './mains-caution';
import { useMainsReport } from './use-mains-report';

/** The checklist before a box is plugged in for the first time: what speaks against it, what is left to look at. */
export function Checklist() {
  const { mainsSide: side, source } = useDesign();
  const { value: report, trouble } = useMainsReport();
  const wrong = report?.points.filter((p) => p.state === 'wrong').length ?? 0;
  const look = report?.points.filter((p) => p.state === 'look' && !side.ticked.includes(p.id)).length ?? 0;
  return (
    <Room name={source.kind === 'mains' ? 'Before the plug goes in' : 'Before it is joined'}>
      <MainsCaution />
      {trouble && <Alert className="mb-2">{trouble} What is shown is from the last values that could be solved.</Alert>}
      <section aria-label="Checklist" className="max-w-[900px]">
        <h2 className="text-[20px] font-semibold" aria-live="polite">
          {report
            ? wrong > 0
              ? `${wrong} ${wrong === 1 ? 'point stands' : 'points stand'} against plugging it in`
              : look > 0
                ? `Nothing speaks against it; ${look} left to look at`
                : 'Everything is looked at'
            : 'Looking…'}
        </h2>
        {report && <CheckList points={report.points} report={report} />}
      </section>
    </Room>
  );
}
