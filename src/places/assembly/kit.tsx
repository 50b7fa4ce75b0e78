'use client';

import { useRef } from 'react';
import { kitOf, type KitLine } from '@/core/build/kit';
import type { Design } from '@/core/design/design';
import { CAME_MAX } from '@/core/design/how-many';
import { Alert } from '@/ui/alert';
import { useDesign, useEdit } from '@/ui/session';
import { TypedField } from '@/ui/typed-field';
import { useSolved } from '@/ui/use-solved';
import type { RemoteSolver } from '@/workers/client';

const askBill = (solver: RemoteSolver, design: Design) => solver.bill(design);

/** Kit: the parcel counted against the bill, line by line. */
export function Kit() {
  const design = useDesign();
  const edit = useEdit();
  const { value: bill, trouble } = useSolved(askBill);
  const kit = bill && kitOf(design, bill);
  const counted = kit?.filter((k) => k.came !== null).length ?? 0;
  const missing = kit?.reduce((sum, k) => sum + k.missing, 0) ?? 0;
  function count(line: string, came: number | null) {
    const rest = design.build.kit.filter((k) => k.line !== line);
    edit({ build: { kit: came === null ? rest : [...rest, { line, came }] } });
  }
  return (
    <section aria-label="Kit" className="mt-8">
      <h2 className="text-[19px] font-semibold">
        What came in the parcel{' '}
        {kit && (
          <span className="text-[14.5px] font-normal text-quiet" aria-live="polite">
            {counted} of {kit.length} lines counted{missing > 0 ? `, ${missing} missing` : ''}
          </span>
        )}
      </h2>
      {trouble && <Alert>{trouble}</Alert>}
      {!kit && !trouble && <p className="text-quiet">Solving…</p>}
      {kit && (
        <div className="relative overflow-x-auto">
          <table className="mt-1 w-full min-w-[640px] text-[14.5px]">
            <thead className="text-left text-[13px] text-quiet">
              <tr>
                <th className="font-normal">References</th>
                <th className="font-normal">Part</th>
                <th className="text-right font-normal">wanted</th>
                <th className="w-[110px] pl-4 font-normal">came</th>
                <td />
              </tr>
            </thead>
            <tbody>
              {kit.map((k) => (
                <tr key={k.line} className="border-t border-rule/60 align-baseline">
                  <td className="py-1 font-semibold">{k.references}</td>
                  <td className="py-1">{k.what}</td>
                  <td className="text-right tabular-nums">{k.wanted}</td>
                  <td className="pl-4">
                    <Came line={k} onCount={(came) => count(k.line, came)} />
                  </td>
                  <td className={`pl-4 ${k.missing > 0 ? 'font-semibold text-fail' : 'text-tight'}`}>
                    {k.question ?? (k.came !== null ? <span className="text-quiet">all there</span> : '')}
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        </div>
      )}
    </section>
  );
}

/** How many came; empty where nobody has counted. */
function Came({ line, onCount }: { line: KitLine; onCount(came: number | null): void }) {
  const before = useRef(line.came);
  return (
    <TypedField
      label={`Came: ${line.references} ${line.what}`}
      inCell
      shown={line.came === null ? '' : String(line.came)}
      begin={() => (before.current = line.came)}
      back={() => onCount(before.current)}
      take={(text) => {
        const came = text.trim() === '' ? null : Number(text);
        if (came !== null && (!Number.isInteger(came) || came < 0 || came > CAME_MAX))
          return `A count: a whole number up to ${CAME_MAX}.`;
        onCount(came);
        return null;
      }}
    />
  );
}
