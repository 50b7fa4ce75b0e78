'use client';

import { Download } from 'lucide-react';
import { useEffect, useMemo, useState } from 'react';
import { orderEur, orderOf, type ToBuild } from '@/core/build/order';
import type { Design } from '@/core/design/design';
import { formatQuantity } from '@/core/quantity/format';
import type { BillLine } from '@/core/study/bill-sums';
import { Alert } from '@/ui/alert';
import { fetchDesign, fetchShelf } from '@/ui/api';
import { download, fileName } from '@/ui/download';
import { fetchParts } from '@/ui/drawer/parts-api';
import { useDesign, useView } from '@/ui/session';
import { PART_KINDS, type Part } from '@/core/drawer/part';
import { asked } from '@/workers/asked';

/** What has to be ordered: for this design alone or with others of the shelf, less what the drawer has and what came. */
export function Order({ bill }: { bill: readonly BillLine[] }) {
  const design = useDesign();
  const id = useView((s) => s.id);
  const [spares, setSpares] = useState(true);
  const [shelf, setShelf] = useState<readonly { id: string; name: string }[]>([]);
  const [others, setOthers] = useState<ReadonlyMap<string, ToBuild>>(new Map());
  const [adding, setAdding] = useState<string | null>(null);
  const [drawer, setDrawer] = useState<readonly Part[]>([]);
  const [trouble, setTrouble] = useState<string | null>(null);

  useEffect(() => {
    let current = true;
    void (async () => {
      const [kept, parts] = await Promise.all([fetchShelf(), fetchParts(PART_KINDS)]);
      if (!current) return;
      if (kept.ok) setShelf(kept.value.filter((d) => d.id !== id).map((d) => ({ id: d.id, name: d.name })));
      else setTrouble(kept.refusal.sentence);
      if (parts.ok) setDrawer(parts.value.parts);
      else setTrouble(parts.sentence);
    })();
    return () => {
      current = false;
    };
  }, [id]);

  async function toggle(other: string, wanted: boolean) {
    setTrouble(null);
    if (!wanted) return setOthers((old) => new Map([...old].filter(([k]) => k !== other)));
    setAdding(other);
    const found = await billFor(other);
    setAdding(null);
    if (typeof found === 'string') setTrouble(found);
    else setOthers((old) => new Map(old).set(other, found));
  }

  const lines = useMemo(
    () => orderOf([{ design, bill }, ...others.values()], drawer, spares),
    [design, bill, others, drawer, spares],
  );
  async function saveCsv() {
    const { orderCsv } = await import('@/core/build/order-csv');
    download(`${fileName(design.name)}-order.csv`, orderCsv(lines), 'text/csv');
  }
  const together = others.size > 0;
  return (
    <section aria-label="Order" className="mt-8">
      <div className="flex flex-wrap items-end gap-x-4 gap-y-2">
        <h2 className="mr-auto text-[19px] font-semibold">
          To order: {formatQuantity(orderEur(lines), 'EUR')}
          {together && (
            <span className="text-[14.5px] font-normal text-quiet"> for {others.size + 1} designs together</span>
          )}
        </h2>
        <label className="flex items-center gap-1.5 text-[14.5px]">
          <input type="checkbox" checked={spares} onChange={(e) => setSpares(e.target.checked)} />
          with spares
        </label>
        <button type="button" className="btn" onClick={() => void saveCsv()}>
          <Download size={15} /> Order as CSV
        </button>
      </div>
      {trouble && <Alert className="mt-2">{trouble}</Alert>}
      {shelf.length > 0 && (
        <details className="mt-1 text-[14.5px]">
          <summary className="cursor-pointer">Together with other designs</summary>
          <fieldset className="mt-1 flex flex-wrap gap-x-5 gap-y-1" aria-label="Other designs">
            {shelf.map((d) => (
              <label key={d.id} className="flex items-center gap-1.5">
                <input
                  type="checkbox"
                  checked={others.has(d.id) || adding === d.id}
                  disabled={adding !== null}
                  onChange={(e) => void toggle(d.id, e.target.checked)}
                />
                {d.name}
                {adding === d.id && <span className="text-quiet">adding up…</span>}
              </label>
            ))}
          </fieldset>
        </details>
      )}
      <div className="relative overflow-x-auto" role="region" aria-label="Lines of the order" tabIndex={0}>
        <table className="mt-1 w-full min-w-[680px] border-collapse text-[14px]">
          <thead className="text-left text-[13px] text-quiet">
            <tr>
              <th className="w-[60px] text-right font-normal">Order</th>
              <th className="pl-4 font-normal">Part</th>
              <th className="pl-4 text-right font-normal">Wanted</th>
              <th className="pl-4 text-right font-normal">In the drawer</th>
              <th className="pl-4 text-right font-normal">Came</th>
              <th className="pl-4 text-right font-normal">Spares</th>
              {together && <th className="pl-4 font-normal">For</th>}
              <th className="pl-4 text-right font-normal">Price</th>
            </tr>
          </thead>
          <tbody>
            {lines.map((l) => (
              <tr key={`${l.what} ${l.had}`} className={`border-t border-rule/60 ${l.order === 0 ? 'text-quiet' : ''}`}>
                <td className="py-1 text-right text-[15px] font-semibold tabular-nums">{l.order}</td>
                <td className="py-1 pl-4">{l.what}</td>
                <td className="pl-4 text-right tabular-nums">{l.count}</td>
                <td className="pl-4 text-right tabular-nums">{l.fromDrawer || ''}</td>
                <td className="pl-4 text-right tabular-nums">{l.came || ''}</td>
                <td className="pl-4 text-right tabular-nums">{l.spares || ''}</td>
                {together && (
                  <td className="pl-4">{l.wanted.map((w) => `${w.count} ${w.design.split(',')[0]!}`).join(', ')}</td>
                )}
                <td className="whitespace-nowrap pl-4 text-right tabular-nums">
                  {formatQuantity(l.order * l.priceEachEur, 'EUR')}
                  {l.typicalPrice && <span className="text-quiet"> ≈</span>}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      <p className="mt-2 text-[13px] text-quiet">
        Spares by rule of thumb: a fifth over, and two at least, of what costs cents; one of what costs up to three
        euros. What came is counted under Build, Assembly.
      </p>
    </section>
  );
}

/** Another design of the shelf with its bill, or why there is none. */
async function billFor(id: string): Promise<ToBuild | string> {
  const stored = await fetchDesign(id);
  if (!stored.ok) return stored.refusal.sentence;
  const design: Design = stored.value.design;
  const bill = await asked((solver) => solver.bill(design));
  return bill.ok ? { design, bill: bill.value } : `${design.name}: ${bill.error}`;
}
