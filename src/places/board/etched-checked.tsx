'use client';

import type { BoardReport } from '@/core/board/board-report';
import { formatQuantity } from '@/core/quantity/format';
import type { BoardProps } from './board-props';

/** What was found again from the copper alone. */
export function Checked({
  report: { board, faults, apart },
  nets,
  number,
}: {
  report: Extract<BoardReport, { kind: 'etched' }>;
  nets: readonly string[];
  number: BoardProps['number'];
}) {
  const sound = faults.apart.length === 0 && faults.touching.length === 0;
  const stars = board.branches.filter((b) => b.carries === 'load').map((b) => b.net);
  const near = faults.close.filter((c) => !c.legs);
  const legs = faults.close.filter((c) => c.legs);
  const mm = (v: number) => formatQuantity(v, 'mm');
  return (
    <section aria-label="Checked">
      <h2 className="text-[15px] font-semibold">
        {sound ? `All ${nets.length} nets are one piece each, and none touch` : '✕ The copper is not the circuit'}
      </h2>
      <ul className="space-y-1">
        {faults.apart.length > 0 && <li className="text-fail">In pieces: {faults.apart.join(', ')}.</li>}
        {faults.touching.length > 0 && (
          <li className="text-fail">Touching: {faults.touching.map((t) => t.join(' and ')).join('; ')}.</li>
        )}
        {faults.overlaps.map(([a, b]) => (
          <li key={`${a} ${b}`} className="text-fail">
            {a} stands on {b}.
          </li>
        ))}
        {faults.warmed.map(({ a, b, mm: has, wantsMm }) => (
          <li key={`${a} ${b} warm`} className="text-tight">
            {a} and {b} stand {mm(Math.max(0, has))} apart; {wantsMm} mm keep the heat of one from the other (rule of
            thumb).
          </li>
        ))}
        {faults.shared.map((net) => (
          <li key={net} className="text-fail">
            {net}: pulses and load share a track.
          </li>
        ))}
        {stars.length > 0 && faults.shared.length === 0 && (
          <li className="text-quiet">{stars.join(', ')}: pulses and load meet at the reservoir’s leg only.</li>
        )}
        <li className="text-quiet">{number(apart)} is kept between two nets.</li>
        {near.map((c) => (
          <li key={`${c.a} ${c.b}`} className="text-fail">
            {c.a} comes within {mm(c.mm)} of {c.b}, {mm(c.xMm)} from the left, {mm(c.yMm)} from above.
          </li>
        ))}
        {legs.map((c) => (
          <li key={`${c.a} ${c.b}`} className="text-tight">
            {c.a} and {c.b} are legs of one part, {mm(c.mm)} apart: bend them wider, or lacquer the solder side.
          </li>
        ))}
      </ul>
      <p className="text-[13.5px] text-quiet">Found again from pads, tracks and links alone.</p>
    </section>
  );
}
