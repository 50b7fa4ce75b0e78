'use client';

import { termsOf } from '@/core/design/source';
import type { Technology } from '@/core/study/regulator-schools';
import { formatQuantity } from '@/core/quantity/format';
import { useDesign, useEdit } from '@/ui/session';
import type { RemoteSolver } from '@/workers/client';
import { SchoolList, Waiting, type SchoolFigures } from './school-list';
import { useSolved } from '@/ui/use-solved';
import type { Design } from '@/core/design/design';

const askSchools = (solver: RemoteSolver, design: Design) => solver.regulatorSchools(design);

export function Side({ onTaken }: { onTaken(): void }) {
  const design = useDesign();
  const edit = useEdit();
  const { value: reports, trouble } = useSolved(askSchools);
  if (!reports) return <Waiting trouble={trouble} />;
  const take = (patch: Parameters<typeof edit>[0]) => {
    edit(patch);
    onTaken();
  };
  return (
    <div className="space-y-5">
      <SchoolList reports={reports.regulators} rows={(v) => rows(v, termsOf(design).low)} onTake={take} />
      {reports.cooling.length > 0 && (
        <section>
          <h3 className="mb-2 text-[17px] font-semibold">Fan or passive</h3>
          <SchoolList reports={reports.cooling} rows={coolingRows} onTake={take} />
        </section>
      )}
      <Told technology={reports.technology} />
    </div>
  );
}

function rows(v: SchoolFigures, low: string): [string, string][] {
  return [
    ['Output', formatQuantity(v.outputV, 'V')],
    [`Ripple on it, ${low}`, formatQuantity(v.outputRippleV, 'V')],
    ['Burns at its worst', formatQuantity(v.regulatorW, 'W')],
    ['Junction then', v.junctionC === null ? '–' : formatQuantity(v.junctionC, '°C')],
    ['Parts, typical', `${v.costEur.toFixed(2)} EUR`],
    ['Verdicts that fail', String(v.fails)],
  ];
}

function coolingRows(v: SchoolFigures): [string, string][] {
  return [
    ['Junction at its worst', v.junctionC === null ? '–' : formatQuantity(v.junctionC, '°C')],
    ['Metal', v.sinkC === null ? '–' : formatQuantity(v.sinkC, '°C')],
    ['Parts, typical', `${v.costEur.toFixed(2)} EUR`],
  ];
}

/** Linear beside a bought converter: what is simulated and what is estimated is told apart. */
function Told({ technology: t }: { technology: Technology }) {
  const lines: [string, string, string][] = [
    [
      'Lost while delivering ' + formatQuantity(t.deliveredW, 'W'),
      formatQuantity(t.linearLostW, 'W'),
      `about ${formatQuantity(t.switchingLostW, 'W', 2)}`,
    ],
    [
      'Ripple and noise on the output',
      formatQuantity(t.linearRippleV, 'V'),
      `about ${formatQuantity(t.switchingRippleV, 'V', 1)}`,
    ],
    ['Weight', `about ${t.linearKg.toFixed(1)} kg`, `about ${t.switchingKg.toFixed(1)} kg`],
    ['Parts or price', `${t.linearEur.toFixed(0)} EUR, typical`, `about ${t.switchingEur.toFixed(0)} EUR`],
  ];
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
          {lines.map(([label, linear, switching]) => (
            <tr key={label} className="border-t border-rule/60">
              <td>{label}</td>
              <td className="text-right font-semibold">{linear}</td>
              <td className="text-right">{switching}</td>
            </tr>
          ))}
        </tbody>
      </table>
      <p className="mt-1 text-[14px]">{t.verdict}</p>
    </section>
  );
}
