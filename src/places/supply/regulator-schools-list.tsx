'use client';

import type { Technology } from '@/core/study/regulator-schools';
import { figureText, type Figure } from '@/core/study/figure';
import { FigureButton } from '@/ui/figure-button';
import { Working } from '@/ui/working';
import { useState } from 'react';
import { useEdit } from '@/ui/session';
import type { RemoteSolver } from '@/workers/client';
import { SchoolList, Waiting } from './school-list';
import { useSolved } from '@/ui/use-solved';
import type { Design } from '@/core/design/design';

const askSchools = (solver: RemoteSolver, design: Design) => solver.regulatorSchools(design);

export function Side({ onTaken }: { onTaken(): void }) {
  const edit = useEdit();
  const { value: reports, trouble } = useSolved(askSchools);
  if (!reports) return <Waiting trouble={trouble} />;
  const take = (patch: Parameters<typeof edit>[0]) => {
    edit(patch);
    onTaken();
  };
  return (
    <div className="space-y-5">
      <SchoolList reports={reports.regulators} rows={ROWS} onTake={take} />
      {reports.cooling.length > 0 && (
        <section>
          <h3 className="mb-2 text-[17px] font-semibold">Fan or passive</h3>
          <SchoolList reports={reports.cooling} rows={COOLING} onTake={take} />
        </section>
      )}
      <Told technology={reports.technology} />
    </div>
  );
}

const ROWS = ['output', 'output-ripple', 'regulator', 'junction', 'cost', 'fails'] as const;
const COOLING = ['junction', 'sink', 'cost'] as const;

/** Linear beside a bought converter: what is simulated and what is estimated is told apart. */
function Told({ technology: t }: { technology: Technology }) {
  const [opened, setOpened] = useState<string | null>(null);
  const open = t.lines.flatMap((l) => [l.linear, l.switching]).find((f) => f.id === opened);
  const cell = (figure: Figure) => (
    <FigureButton
      figure={figure}
      text={figure.origin === 'rule of thumb' ? `about ${figureText(figure)}` : figureText(figure)}
      open={opened}
      onOpen={setOpened}
    />
  );
  return (
    <section>
      <h3 className="text-[17px] font-semibold">Linear or switching</h3>
      <table className="mt-1 w-full max-w-[640px] text-[14px]">
        <thead className="text-left text-[13px] text-quiet">
          <tr>
            <td />
            <th className="text-right font-normal">this one (watts and ripple simulated)</th>
            <th className="text-right font-normal">a bought converter (rules of thumb)</th>
          </tr>
        </thead>
        <tbody>
          {t.lines.map((l) => (
            <tr key={l.label} className="border-t border-rule/60">
              <td>{l.label}</td>
              <td className="text-right font-semibold">{cell(l.linear)}</td>
              <td className="text-right">{cell(l.switching)}</td>
            </tr>
          ))}
        </tbody>
      </table>
      {open && (
        <div className="mt-1.5 border-l-2 border-volt pl-3">
          <Working figure={open} />
        </div>
      )}
      <p className="mt-1 text-[14px]">{t.verdict}</p>
    </section>
  );
}
