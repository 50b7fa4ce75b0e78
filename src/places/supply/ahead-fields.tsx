'use client';

import { mainModel } from '@/core/design/outputs';
import { termsOf } from '@/core/design/source';
import type { Design } from '@/core/design/design';
import type { PreRegulator } from '@/core/parts/regulators/ahead';
import { REGULATOR_SIZES, regulatorSize } from '@/core/parts/regulators/fixed';
import { PASS_TRANSISTORS } from '@/core/parts/transistor';
import { formatNominal, formatQuantity } from '@/core/quantity/format';
import { E12, E24, nearestInDecades, nearestInList } from '@/core/quantity/preferred';
import { ChoiceField } from '@/ui/choice-field';
import { QuantityField } from '@/ui/quantity-field';
import { useDesign, useEdit, useView } from '@/ui/session';
import { useSolved } from '@/ui/use-solved';
import type { RemoteSolver } from '@/workers/client';
import { by, inDecades } from '@/ui/stepping';

const askLetsGo = (solver: RemoteSolver, design: Design) => solver.letsGo(design);

export function Fields() {
  const design = useDesign();
  const say = termsOf(design);
  const edit = useEdit();
  const picture = useView((v) => v.picture);
  const { preRegulator: pre } = design;
  const outputV = mainModel(design)?.outputV ?? design.demand.outputV;
  const { value, of, trouble } = useSolved(askLetsGo);
  const letsGo = of === design ? value : 'solving';
  const set = (next: PreRegulator) => edit({ preRegulator: next });
  const choose = (kind: PreRegulator['kind']) => {
    if (kind === pre.kind) return;
    if (kind === 'none') return set({ kind });
    if (kind === 'zener') {
      const zenerV = nearestInDecades(outputV + 4.5, E24);
      return set({ kind, zenerV, seriesOhm: 470, transistor: 'tip3055' });
    }
    if (kind === 'tracking') return set({ kind, aboveV: 4, transistor: 'tip3055' });
    const size =
      REGULATOR_SIZES.find((s) => s.ratedA >= design.demand.outputA) ?? REGULATOR_SIZES[REGULATOR_SIZES.length - 1]!;
    set({ kind, size: size.id, outputV: nearestInList(outputV + 3, size.outputsV) });
  };
  const points = picture?.design.preRegulator.kind === pre.kind ? picture.points : null;
  return (
    <div className="space-y-3 text-[14px]">
      <div className="grid grid-cols-3 gap-3">
        <ChoiceField
          label="Ahead of it"
          value={pre.kind}
          options={[
            { value: 'none', label: 'nothing' },
            { value: 'fixed', label: 'a fixed regulator' },
            { value: 'zener', label: 'a zener and a transistor' },
            { value: 'tracking', label: 'one that tracks the output' },
          ]}
          onChange={choose}
        />
        {pre.kind === 'fixed' && (
          <>
            <ChoiceField
              label="Part"
              value={pre.size}
              options={REGULATOR_SIZES.map((s) => ({ value: s.id, label: `${s.id}, ${formatNominal(s.ratedA, 'A')}` }))}
              onChange={(size) =>
                set({ ...pre, size, outputV: nearestInList(pre.outputV, regulatorSize(size).outputsV) })
              }
            />
            <ChoiceField
              label="Holds"
              value={String(pre.outputV)}
              options={regulatorSize(pre.size).outputsV.map((v) => ({
                value: String(v),
                label: formatNominal(v, 'V'),
              }))}
              onChange={(v) => set({ ...pre, outputV: Number(v) })}
            />
          </>
        )}
        {pre.kind === 'zener' && (
          <>
            <QuantityField
              path="regulator.zenerV"
              value={pre.zenerV}
              step={inDecades(E24)}
              onCommit={(v) => set({ ...pre, zenerV: v! })}
            />
            <QuantityField
              path="regulator.seriesOhm"
              value={pre.seriesOhm}
              step={inDecades(E12)}
              onCommit={(v) => set({ ...pre, seriesOhm: v! })}
            />
            <ChoiceField
              label="Pass transistor"
              value={pre.transistor}
              options={PASS_TRANSISTORS.map((t) => ({ value: t.id, label: t.name }))}
              onChange={(id) => set({ ...pre, transistor: id })}
            />
          </>
        )}
        {pre.kind === 'tracking' && (
          <>
            <QuantityField
              path="regulator.aboveV"
              value={pre.aboveV}
              step={by(0.5)}
              onCommit={(v) => set({ ...pre, aboveV: v! })}
            />
            <ChoiceField
              label="Pass transistor"
              value={pre.transistor}
              options={PASS_TRANSISTORS.map((t) => ({ value: t.id, label: t.name }))}
              onChange={(id) => set({ ...pre, transistor: id })}
            />
          </>
        )}
      </div>
      {points?.high.ahead && points.low.ahead && (
        <table className="w-full">
          <thead className="text-left text-[13px] text-quiet">
            <tr>
              <td />
              <th className="text-right font-normal">the first</th>
              <th className="text-right font-normal">the regulator</th>
            </tr>
          </thead>
          <tbody>
            <tr className="border-t border-rule/60">
              <td>Burns, {say.high}</td>
              <td className="text-right font-semibold">{formatQuantity(points.high.ahead.watts, 'W')}</td>
              <td className="text-right font-semibold">{formatQuantity(points.high.regulatorW, 'W')}</td>
            </tr>
            <tr className="border-t border-rule/60">
              <td>Junction then</td>
              <td className="text-right">{formatQuantity(points.high.ahead.junctionC, '°C')}</td>
              <td className="text-right">
                {points.high.heat ? formatQuantity(points.high.heat.junctionC, '°C') : '–'}
              </td>
            </tr>
            <tr className="border-t border-rule/60">
              <td>Headroom, {say.low}</td>
              <td className={`text-right ${points.low.ahead.headroomV < 0 ? 'font-semibold text-fail' : ''}`}>
                {formatQuantity(points.low.ahead.headroomV, 'V')}
              </td>
              <td className="text-right">
                {picture?.neededV === null || picture === null
                  ? '–'
                  : formatQuantity(points.low.rail.minV - picture.neededV, 'V')}
              </td>
            </tr>
          </tbody>
        </table>
      )}
      {pre.kind !== 'none' && (
        <p aria-live="polite">
          {trouble !== null
            ? trouble
            : letsGo === 'solving'
              ? 'Finding the load at which the first lets go…'
              : letsGo === null
                ? `The first holds at ${say.low} even at five times the load.`
                : letsGo === 0
                  ? `The first holds at no load at ${say.low}: what it should hold is too near the rail.`
                  : `At ${say.low} the first lets go from ${formatQuantity(letsGo, 'A')} on, and lets ripple through.`}
        </p>
      )}
    </div>
  );
}
