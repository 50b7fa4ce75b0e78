'use client';

import { pinoutOf } from '@/core/build/pinouts';
import { valueEditOf } from '@/core/build/value-edit';
import type { Design } from '@/core/design/design';
import type { Verdict } from '@/core/judge/verdict';
import type { NetPart } from '@/core/netlist/netlist';
import { referencesIn, referencesOf } from '@/core/netlist/references';
import { capitalised } from '@/core/quantity/format';
import type { Figure } from '@/core/study/figure';
import { picturesOf } from '@/core/sheet/log-mentions';
import { PhotoStrip } from '@/ui/photo-strip';
import { FigureList } from '@/ui/figure-list';
import { QuantityField } from '@/ui/quantity-field';
import { useDesign, useEdit } from '@/ui/session';
import { StateSign } from '@/ui/state-sign';
import { useSolved } from '@/ui/use-solved';
import type { RemoteSolver } from '@/workers/client';
import { PinoutFigure } from '@/ui/pinout-figure';
import { PinsTable } from '@/ui/pins-table';

const askBill = (solver: RemoteSolver, design: Design) => solver.bill(design);

/** A part of the circuit: what it is, its legs, what it has to bear, how its station is judged, and its value. */
export function PartCard({
  part,
  alike,
  verdicts,
  watts,
}: {
  part: NetPart;
  alike: readonly NetPart[];
  verdicts: readonly Verdict[];
  /** What its station burns, nominal mains. */
  watts: readonly Figure[];
}) {
  const design = useDesign();
  const edit = useEdit();
  const { value: bill } = useSolved(askBill);
  const line = bill?.find((l) => referencesIn(l.references).includes(part.ref));
  const pinout = pinoutOf(part);
  const value = valueEditOf(design, part);
  return (
    <section className="border-l-[3px] border-volt pl-3" aria-label={part.ref} data-testid="part-card">
      <h2 className="text-[19px] font-semibold leading-6">
        {referencesOf(alike)}{' '}
        <span className="font-normal">
          {part.value}
          {part.rating && `, ${part.rating}`}
        </span>
      </h2>
      <p className="text-[14.5px] text-quiet">{capitalised(part.what)}</p>
      {value && (
        <div className="mt-2 max-w-[180px]">
          <QuantityField
            path={value.path}
            label={value.label}
            value={value.value}
            onCommit={(v) => edit(value.patch(v))}
          />
        </div>
      )}
      {line && (
        <div className="mt-2 text-[14.5px]">
          <p>
            <span className="text-quiet">has to bear</span> {line.bears.length === 0 && line.needed}
          </p>
          {line.bears.length > 0 && <FigureList label="Has to bear" figures={line.bears} />}
          <p>
            <span className="text-quiet">bears</span> {line.had}
          </p>
        </div>
      )}
      {watts.length > 0 && <FigureList label="What its station burns, nominal" figures={watts} />}
      {pinout && <PinoutFigure pinout={pinout} />}
      <PinsTable pins={part.pins} />
      <PhotoStrip pictures={picturesOf(design, part.ref)} />
      {verdicts.length > 0 && (
        <ul className="mt-2 space-y-0.5 text-[14px]" aria-label="Verdicts of its station">
          {verdicts.map((v) => (
            <li key={v.id} className="flex items-start gap-2">
              <span className="mt-1">
                <StateSign state={v.state} size={13} />
              </span>
              <span>
                <span className="font-semibold">{v.title}</span> {v.sentence}
              </span>
            </li>
          ))}
        </ul>
      )}
    </section>
  );
}
