'use client';

import { useState } from 'react';
import { identify, phasing } from '@/core/parts/identify';
import { parseQuantity, type Unit } from '@/core/quantity/parse';
import { useDesign } from '@/ui/session';

const FIRST = [
  { name: 'black–black', ohm: '', volts: '' },
  { name: 'red–red', ohm: '', volts: '' },
  { name: 'yellow–yellow', ohm: '', volts: '' },
];

const number = (text: string, unit: Unit) => {
  const read = text.trim() === '' ? null : parseQuantity(text, unit);
  return read?.ok ? read.value : null;
};

/** An unlabelled transformer, step by step: ohms, then volts through a series lamp, then phasing. */
export function Identify() {
  const { mains } = useDesign();
  const [rows, setRows] = useState(FIRST);
  const [joined, setJoined] = useState('');
  const found = rows.flatMap((r) => {
    const ohm = number(r.ohm, 'ohm');
    return ohm === null ? [] : [{ name: r.name || 'a pair', ohm, volts: number(r.volts, 'V') }];
  });
  const result = found.length > 1 ? identify(found, mains.voltageRms) : null;
  const secondaries = result ? found.filter((_, n) => n !== result.primary) : [];
  const [a, b] = secondaries;
  const joinedV = number(joined, 'V');
  const phase = a?.volts && b?.volts && joinedV !== null ? phasing(a.volts, b.volts, joinedV) : null;
  const set = (n: number, part: Partial<(typeof FIRST)[0]>) =>
    setRows((old) => old.map((r, k) => (k === n ? { ...r, ...part } : r)));
  return (
    <details className="max-w-[720px] rounded border border-rule bg-raised px-3 py-2">
      <summary className="cursor-pointer font-semibold">Unlabelled? Find out which winding is which</summary>
      <ol className="mt-2 list-decimal space-y-2 pl-5 text-[14px]">
        <li>
          Plug pulled: write down the ohms of every pair of leads that shows any. Take off what the meter’s own leads
          read.
        </li>
        <li>
          <strong>Danger from here on: mains.</strong> Test the insulation of each winding to the core first. The
          supposed primary goes to the mains only through a 40–60 W series lamp and a fuse, all ends insulated, nothing
          touched while it is live, never alone. The lamp must not stay bright. Then read the volts of the other
          windings. If in doubt, have somebody licensed do it.
        </li>
        <li>
          Plug pulled again: join one end of the two windings to be phased; live through the lamp, read their open ends.
        </li>
      </ol>
      <table className="mt-2 w-full text-[14px]">
        <thead className="text-left text-[13px] text-quiet">
          <tr>
            <th className="font-normal">Leads</th>
            <th className="font-normal">Ohms, cold</th>
            <th className="font-normal">Volts through the lamp</th>
          </tr>
        </thead>
        <tbody>
          {rows.map((r, n) => (
            <tr key={n}>
              {(
                [
                  ['name', 'Leads'],
                  ['ohm', 'Ohms'],
                  ['volts', 'Volts'],
                ] as const
              ).map(([key, label]) => (
                <td key={key} className="pr-2 pt-1">
                  <input
                    className="field"
                    aria-label={`${label} of pair ${n + 1}`}
                    value={r[key]}
                    onChange={(e) => set(n, { [key]: e.target.value })}
                  />
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
      <div className="mt-2 flex items-center gap-3 text-[14px]">
        <button
          type="button"
          className="btn"
          disabled={rows.length >= 8}
          onClick={() => setRows([...rows, { name: '', ohm: '', volts: '' }])}
        >
          One more pair
        </button>
        <label>
          Two joined, volts at their open ends{' '}
          <input className="field !w-[100px]" value={joined} onChange={(e) => setJoined(e.target.value)} />
        </label>
      </div>
      <div aria-live="polite">
        {result && (
          <ul className="mt-2 list-disc pl-5 text-[14px]">
            {result.sentences.map((s) => (
              <li key={s}>{s}</li>
            ))}
            {phase && (
              <li>
                {phase === 'aiding'
                  ? `Joined they add: the joined ends are start and end. Series is right so; in parallel, swap one first.`
                  : phase === 'opposing'
                    ? `Joined they oppose: the joined ends are alike. Right for parallel; swap one for series.`
                    : `Neither the sum nor the difference: are these the two windings, and was the lamp dark?`}
              </li>
            )}
          </ul>
        )}
      </div>
    </details>
  );
}
