'use client';

import type { TrackLoad } from '@/core/board/track-loads';
import type { BoardChoice } from '@/core/design/design';
import { formatQuantity } from '@/core/quantity/format';
import { ChoiceField } from '@/ui/choice-field';
import type { BoardProps } from './board-props';

const COPPER = [
  { value: '35', label: '35 µm' },
  { value: '70', label: '70 µm' },
] as const;
const HALVES = { all: '', pulses: ', pulses', load: ', load' } as const;

/** How wide tracks are, how wide they should be, and how warm they get. */
export function TrackTable({
  loads,
  copperUm,
  onCopper,
  number,
}: {
  loads: readonly TrackLoad[];
  copperUm: BoardChoice['copperUm'];
  onCopper(um: BoardChoice['copperUm']): void;
  number: BoardProps['number'];
}) {
  return (
    <section aria-label="Tracks">
      <h2 className="text-[15px] font-semibold">Tracks, the warmest first</h2>
      <table className="mt-1 w-full text-right tabular-nums">
        <thead className="text-[13px] text-quiet">
          <tr>
            <th className="text-left font-normal">Net</th>
            <th className="font-normal">RMS</th>
            <th className="font-normal">wants</th>
            <th className="font-normal">has</th>
            <th className="font-normal">warmer</th>
          </tr>
        </thead>
        <tbody>
          {loads.map((l) => (
            <tr key={l.flows.id} className="border-t border-rule/60">
              <th scope="row" className="py-0.5 text-left font-normal">
                {l.net}
                {HALVES[l.carries]}
              </th>
              <td>{number(l.flows)}</td>
              <td>{number(l.wanted)}</td>
              <td>{number(l.narrowest)}</td>
              <td>{number(l.rise)}</td>
            </tr>
          ))}
        </tbody>
      </table>
      {loads
        .filter((l) => l.narrowMm > 0)
        .map((l) => (
          <p key={l.flows.id} className="text-tight">
            {l.net}
            {HALVES[l.carries]}: {formatQuantity(l.narrowMm, 'mm')} of it are narrower than wanted. Tin them thick, or
            lay a wire along.
          </p>
        ))}
      <div className="mt-2 w-[140px]">
        <ChoiceField
          label="Copper"
          value={copperUm === 35 ? '35' : '70'}
          options={COPPER}
          onChange={(v) => onCopper(v === '35' ? 35 : 70)}
        />
      </div>
    </section>
  );
}
