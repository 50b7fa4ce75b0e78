'use client';

import { useEffect, useState } from 'react';
import type { Part } from '@/core/drawer/part';
import { formatNominal, formatQuantity } from '@/core/quantity/format';
import { parseQuantity } from '@/core/quantity/parse';
import { banksFor, shopCans, type BurstBank, type Can } from '@/core/study/burst';
import { fetchParts } from '@/ui/drawer/parts-api';
import { useDesign, useEdit, useView } from '@/ui/session';

const SHOWN = 10;

/** A reservoir for a burst of load or a gap: so many amperes or watts, so long, so much sag. */
export function Burst() {
  const design = useDesign();
  const edit = useEdit();
  const picture = useView((s) => s.picture);
  const [load, setLoad] = useState('1 A');
  const [time, setTime] = useState('10 ms');
  const [sag, setSag] = useState('2 V');
  const [parts, setParts] = useState<Part[]>([]);
  useEffect(() => {
    let current = true;
    void fetchParts(['capacitor']).then((answer) => current && answer.ok && setParts(answer.value.parts));
    return () => {
      current = false;
    };
  }, []);
  if (!picture) return null;
  const { reservoir } = design;
  const fromV = picture.points.nominal.reservoir.minV;
  const idleV = picture.points.idle.reservoir.maxV;
  const amps = parseQuantity(load, 'A');
  const watts = parseQuantity(load, 'W');
  const seconds = parseQuantity(time, 's');
  const sagV = parseQuantity(sag, 'V');
  const fault = !amps.ok && !watts.ok ? amps.error : !seconds.ok ? seconds.error : !sagV.ok ? sagV.error : null;
  const good =
    fault === null && seconds.ok && sagV.ok && seconds.value > 0 && sagV.value > 0 && sagV.value < fromV
      ? { seconds: seconds.value, sagV: sagV.value }
      : null;
  const onHand: Can[] = parts
    .filter((p) => p.count > 0)
    .map((p) => ({
      name: p.name,
      capacitanceF: p.ratings['capacitanceF']!,
      ratedV: p.ratings['ratedV']!,
      esrOhm: p.ratings['esrOhm'] ?? null,
      priceEur: p.priceEur,
      count: p.count,
    }));
  const banks = good
    ? banksFor(
        {
          ...good,
          amps: amps.ok ? amps.value : null,
          watts: amps.ok ? null : watts.ok ? watts.value : null,
          fromV,
          idleV,
          tolerancePct: reservoir.tolerancePct,
          agedPct: reservoir.agedPct,
        },
        [...onHand, ...shopCans(idleV)],
      )
    : [];
  const take = ({ can, cans }: BurstBank) =>
    edit({
      reservoir: {
        cans,
        pair: false,
        capacitanceF: can.capacitanceF,
        ratedV: can.ratedV,
        esrOhm: can.esrOhm,
        rippleA: null,
      },
    });
  return (
    <section aria-label="A burst of load, or a gap">
      <h2 className="text-[18px] font-semibold">Cans for a burst of load, or a gap</h2>
      <p className="mt-1 flex flex-wrap items-center gap-x-2 gap-y-1 text-[14px]">
        <label>
          It has to give <input className="field !w-[90px]" value={load} onChange={(e) => setLoad(e.target.value)} />
        </label>
        <label>
          for <input className="field !w-[80px]" value={time} onChange={(e) => setTime(e.target.value)} />
        </label>
        <label>
          and may sag by <input className="field !w-[80px]" value={sag} onChange={(e) => setSag(e.target.value)} />
        </label>
        <span className="text-quiet">
          from {formatQuantity(fromV, 'V')}, aged and at its lower tolerance; amperes or watts
        </span>
      </p>
      {fault && (
        <p role="alert" className="text-fail">
          {fault}
        </p>
      )}
      {!fault && !good && <p className="text-fail">It needs a time, and a sag below {formatQuantity(fromV, 'V')}.</p>}
      {good && banks.length === 0 && <p className="text-fail">Not even 200 cans in parallel carry that.</p>}
      {banks.length > 0 && (
        <table className="mt-1 text-[14px]">
          <thead className="text-left text-[13px] text-quiet">
            <tr>
              <th className="pr-4 font-normal">Made of</th>
              <th className="px-2 text-right font-normal">Sags</th>
              <th className="px-2 text-right font-normal">of it at once, by ESR</th>
              <th className="px-2 text-right font-normal">To pay</th>
              <td />
            </tr>
          </thead>
          <tbody>
            {banks.slice(0, SHOWN).map((b) => (
              <tr key={`${b.can.name}${b.can.capacitanceF}${b.can.ratedV}`} className="border-t border-rule/60">
                <td className="py-0.5 pr-4">
                  {b.cans > 1 && `${b.cans} × `}
                  {b.can.name || `${formatNominal(b.can.capacitanceF, 'F')} ${formatNominal(b.can.ratedV, 'V')}`}
                </td>
                <td className="px-2 text-right font-semibold">{formatQuantity(b.sagV, 'V')}</td>
                <td className="px-2 text-right">{formatQuantity(b.byResistanceV, 'V')}</td>
                <td className="px-2 text-right">
                  {b.can.count === null ? formatQuantity(b.priceEur, 'EUR') : 'on hand'}
                </td>
                <td className="px-2">
                  <button type="button" className="btn !min-h-[26px]" onClick={() => take(b)}>
                    Take
                  </button>
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      {banks.length > SHOWN && (
        <p className="text-[13px] text-quiet">{banks.length - SHOWN} dearer ones are not shown.</p>
      )}
      <p className="mt-1 text-[13px] text-quiet">
        The reservoir alone carries it: I·t/C + I·ESR, of a constant power from ½·C·V². What charges it meanwhile only
        helps; the Scope shows that, step or gap.
      </p>
    </section>
  );
}
