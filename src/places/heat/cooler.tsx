'use client';

import { mainModel } from '@/core/design/outputs';
import type { Design } from '@/core/design/design';
import { termsOf } from '@/core/design/source';
import { formatNominal, formatQuantity } from '@/core/quantity/format';
import { useDesign, useEdit } from '@/ui/session';
import { Alert } from '@/ui/alert';
import { useSolved } from '@/ui/use-solved';
import type { RemoteSolver } from '@/workers/client';

const askCooler = (solver: RemoteSolver, design: Design) => solver.cooler(design);

/** At which current it limits itself, and what would make it cooler: simulated on this design. */
export function Cooler() {
  const design = useDesign();
  const edit = useEdit();
  const { value: found, trouble } = useSolved(askCooler, { waitMs: 250 });
  if (trouble) return <Alert>What would make it cooler was not found out. {trouble}</Alert>;
  if (!found?.limit) return null;
  const { amps, limitC } = found.limit;
  const model = mainModel(design);
  const lowestV = model && model.lowestV < model.outputV - 0.01 ? model.lowestV : null;
  return (
    <div className="mt-3">
      <p className="text-[15px]">
        {amps === null
          ? `Even five times the load keeps its junction under ${formatNominal(limitC, '°C')}.`
          : amps === 0
            ? `Its junction passes ${formatNominal(limitC, '°C')} at any load.`
            : `At ${formatQuantity(amps, 'A')} for long${lowestV === null ? '' : `, set to ${formatNominal(lowestV, 'V')},`} its junction reaches ${formatNominal(limitC, '°C')}.`}
      </p>
      <table className="mt-1 w-full max-w-[780px] text-[14px]">
        <thead className="text-left text-[13px] text-quiet">
          <tr>
            <th className="font-normal">What would make it cooler, simulated</th>
            <th className="text-right font-normal">junction</th>
            <th className="text-right font-normal">metal</th>
            <th className="text-right font-normal">headroom at {termsOf(design).low}</th>
            <th className="text-right font-normal">limits itself at</th>
            <td />
          </tr>
        </thead>
        <tbody>
          {found.ways.map((w, n) => (
            <tr key={w.label} className="border-t border-rule/60">
              <td>{w.label}</td>
              <td className="text-right font-semibold">{formatQuantity(w.junctionC, '°C')}</td>
              <td className="text-right">{formatQuantity(w.sinkC, '°C')}</td>
              <td className={`text-right ${w.headroomV < 0 ? 'font-semibold text-fail' : ''}`}>
                {formatQuantity(w.headroomV, 'V')}
              </td>
              <td className="text-right">
                {w.limitA === null ? 'no load asked of it' : formatQuantity(w.limitA, 'A')}
              </td>
              <td className="text-right">
                {n > 0 && (
                  <button
                    type="button"
                    className="btn !min-h-[26px]"
                    aria-label={`Take ${w.label}`}
                    onClick={() => edit(w.patch)}
                  >
                    Take
                  </button>
                )}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}
