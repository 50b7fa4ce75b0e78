'use client';

import { formatQuantity } from '@/core/quantity/format';
import { billSums, type BillLine } from '@/core/study/bill-sums';
import { download, fileName } from '@/ui/download';
import { useDesign } from '@/ui/session';
import type { RemoteSolver } from '@/workers/client';
import { useSolved } from '@/ui/use-solved';
import dynamic from 'next/dynamic';
import { Fragment, useState } from 'react';
import { FigureButton } from '@/ui/figure-button';
import { Working } from '@/ui/working';
import type { Design } from '@/core/design/design';

// Below the bill, and only once it is there: the page stands without it.
const Order = dynamic(() => import('./order').then((m) => m.Order), { ssr: false });
const askBill = (solver: RemoteSolver, design: Design) => solver.bill(design);

/** Bill of materials: what it takes, what each part has to bear, what is in the drawer, what has to be bought. */
export function Bill() {
  const design = useDesign();

  const { value: lines, trouble } = useSolved(askBill);
  const [opened, setOpened] = useState<string | null>(null);

  if (trouble)
    return (
      <p role="alert" className="text-fail">
        {trouble} The bill needs a supply that can be solved.
      </p>
    );
  if (!lines) return <p className="text-quiet">Adding up…</p>;
  const sums = billSums(lines);
  async function saveCsv(list: readonly BillLine[]) {
    const { billCsv } = await import('@/core/study/bill-csv');
    download(`${fileName(design.name)}-bill.csv`, billCsv(list), 'text/csv');
  }
  return (
    <div className="max-w-[1100px]">
      <table className="w-full border-collapse text-[14px]">
        <thead className="text-left text-[13px] text-quiet">
          <tr>
            <th className="px-2 font-normal">On the drawing</th>
            <th className="px-2 font-normal">Part</th>
            <th className="px-2 text-right font-normal">Count</th>
            <th className="px-2 font-normal">Has to bear</th>
            <th className="px-2 font-normal">Bears</th>
            <th className="px-2 font-normal">From</th>
            <th className="px-2 text-right font-normal">Price</th>
          </tr>
        </thead>
        <tbody>
          {lines.map((l, n) => (
            <Fragment key={n}>
              <tr className="border-t border-rule/60">
                <td className="whitespace-nowrap px-2 py-1 font-medium">{l.references}</td>
                <td className="px-2">{l.what}</td>
                <td className="px-2 text-right">{l.count}</td>
                <td className="px-2">
                  {l.bears.length === 0
                    ? l.needed
                    : l.bears.map((f, i) => (
                        <Fragment key={f.id}>
                          {i > 0 && ', '}
                          <FigureButton figure={f} open={opened} onOpen={setOpened} />
                        </Fragment>
                      ))}
                </td>
                <td className="px-2">{l.had}</td>
                <td className={`px-2 ${l.fromDrawer === null ? '' : 'text-volt'}`}>
                  {l.fromDrawer === null ? 'to buy' : `drawer: ${l.fromDrawer}`}
                </td>
                <td className="whitespace-nowrap px-2 text-right">
                  {formatQuantity(l.count * l.priceEachEur, 'EUR')}
                  {l.typicalPrice && <span className="text-quiet"> ≈</span>}
                </td>
              </tr>
              {l.bears
                .filter((f) => f.id === opened)
                .map((f) => (
                  <tr key={f.id}>
                    <td colSpan={7} className="px-2 pb-2">
                      <div className="border-l-2 border-volt pl-3">
                        <Working figure={f} />
                      </div>
                    </td>
                  </tr>
                ))}
            </Fragment>
          ))}
        </tbody>
        <tfoot>
          <tr className="border-t-2 border-edge">
            <td colSpan={6} className="px-2 py-1.5">
              To buy, without what comes out of the drawer (all of it would be {formatQuantity(sums.allEur, 'EUR')})
            </td>
            <td className="whitespace-nowrap px-2 text-right text-[17px] font-semibold">
              {formatQuantity(sums.toBuyEur, 'EUR')}
            </td>
          </tr>
        </tfoot>
      </table>
      <p className="mt-2 text-[13px] text-quiet">≈ is a rule of thumb for hobby quantities, not an offer.</p>
      <button type="button" className="btn mt-2" onClick={() => void saveCsv(lines)}>
        Save as CSV
      </button>
      <Order bill={lines} />
    </div>
  );
}
