'use client';

import { useCallback, useState } from 'react';
import type { Design } from '@/core/design/design';
import { windingCount } from '@/core/design/words';
import { copperRatio } from '@/core/parts/transformer';
import {
  LAMINATIONS,
  plannedWinding,
  WINDOW_FILL_MAX,
  WIRE_MM,
  woundLoss,
  woundModel,
  type WindingPlan,
} from '@/core/parts/winding';
import { formatQuantity } from '@/core/quantity/format';
import { stepInList } from '@/core/quantity/preferred';
import { ChoiceField } from '@/ui/choice-field';
import { QuantityField } from '@/ui/quantity-field';
import { useDesign, useView } from '@/ui/session';
import { useSolved } from '@/ui/use-solved';
import type { RemoteSolver } from '@/workers/client';
import { goThrough } from '@/workers/go-through';
import type { Answer } from '@/workers/answer';

const STEPS = [-10, -5, -2, -1, 0, 1, 2, 5, 10];

interface Turned {
  turns: number;
  valleyV: number;
  idleV: number;
}

/** What the rail does with a few turns more or less. */
async function turnsOf(solver: RemoteSolver, design: Design, plan: WindingPlan): Promise<Answer<Turned[]>> {
  const list = STEPS.map((d) => plan.secondaryTurns + d).filter((turns) => turns > 0);
  const answer = await goThrough(solver, 'variations', design, {
    items: list.flatMap((turns) => {
      const patch = { transformer: { source: { kind: 'wound' as const, plan: { ...plan, secondaryTurns: turns } } } };
      return [
        { condition: 'low' as const, patch },
        { condition: 'idle' as const, patch },
      ];
    }),
  });
  if (!answer.ok) return answer;
  const solved = answer.value?.parts ?? [];
  const value = list.map((turns, n) => {
    const low = solved[2 * n]!;
    const idle = solved[2 * n + 1]!;
    return { turns, valleyV: low.ok ? low.railMinV : NaN, idleV: idle.ok ? idle.railMaxV : NaN };
  });
  return { ok: true, value };
}

/** A winding before it is closed: core, turns, wire, fill, copper, and what the rail does with a few turns more or less. */
export function OwnWinding({ plan, onChange }: { plan: WindingPlan; onChange(plan: WindingPlan): void }) {
  const design = useDesign();
  const picture = useView((s) => s.picture);
  const { mains, transformer } = design;
  const halves = windingCount(design);
  const wound = woundModel(plan, mains.voltageRms, mains.frequencyHz, halves);
  const secondaryA = picture
    ? Math.max(...picture.points.high.solution.windings.slice(0, halves).map((w) => w.rmsA))
    : 0;
  const primaryA = (halves * secondaryA * wound.openV) / mains.voltageRms / (halves === 2 ? Math.SQRT2 : 1);
  const loss = woundLoss(wound, secondaryA, primaryA, halves, transformer.hotC);
  const lamination = LAMINATIONS.find((l) => l.areaMm2 === plan.areaMm2 && l.windowMm2 === plan.windowMm2);
  const ask = useCallback((solver: RemoteSolver, of: Design) => turnsOf(solver, of, plan), [plan]);
  const { value: turned, trouble } = useSolved(ask, { waitMs: 120 });

  const set = (part: Partial<WindingPlan>) => onChange({ ...plan, ...part });
  const wireStep = (v: number, d: number) => stepInList(v, WIRE_MM, d);
  const turnStep = (v: number, d: number) => Math.max(1, Math.round(v + d));
  const fillPct = 100 * wound.fill;

  return (
    <section aria-label="Winding" className="max-w-[760px] space-y-3">
      <div className="grid grid-cols-4 gap-3">
        <div className="col-span-2">
          <ChoiceField
            label="Core, from a list or by its dimensions"
            value={lamination?.id ?? 'own'}
            options={[
              ...LAMINATIONS.map((l) => ({ value: l.id, label: l.name })),
              ...(lamination ? [] : [{ value: 'own', label: 'own dimensions' }]),
            ]}
            onChange={(id: string) => {
              const core = LAMINATIONS.find((l) => l.id === id);
              if (core) {
                const { areaMm2, windowMm2, meanTurnMm, fluxT } = core;
                set({ areaMm2, windowMm2, meanTurnMm, fluxT });
              }
            }}
          />
        </div>
        <QuantityField path="winding.areaMm2" value={plan.areaMm2} onCommit={(v) => set({ areaMm2: v! })} />
        <QuantityField path="winding.windowMm2" value={plan.windowMm2} onCommit={(v) => set({ windowMm2: v! })} />
        <QuantityField path="winding.meanTurnMm" value={plan.meanTurnMm} onCommit={(v) => set({ meanTurnMm: v! })} />
        <QuantityField path="winding.fluxT" value={plan.fluxT} onCommit={(v) => set({ fluxT: v! })} />
        <QuantityField
          path="winding.turnsPerVolt"
          label="Turns a volt, tried"
          value={plan.turnsPerVolt}
          placeholder={`computed ${wound.turnsPerVolt.toPrecision(3)}`}
          onCommit={(v) => set({ turnsPerVolt: v })}
        />
        <TenTurns onRead={(volts) => set({ turnsPerVolt: 10 / volts })} />
        <QuantityField
          path="winding.turns"
          label="Primary turns"
          value={plan.primaryTurns}
          step={turnStep}
          onCommit={(v) => set({ primaryTurns: Math.round(v!) })}
        />
        <QuantityField
          path="winding.wireMm"
          label="Primary wire, bare"
          value={plan.primaryWireMm}
          step={wireStep}
          onCommit={(v) => set({ primaryWireMm: v! })}
        />
        <QuantityField
          path="winding.turns"
          label={`Secondary turns${halves === 2 ? ', each half' : ''}`}
          value={plan.secondaryTurns}
          step={turnStep}
          onCommit={(v) => set({ secondaryTurns: Math.round(v!) })}
        />
        <QuantityField
          path="winding.wireMm"
          label="Secondary wire, bare"
          value={plan.secondaryWireMm}
          step={wireStep}
          onCommit={(v) => set({ secondaryWireMm: v! })}
        />
      </div>
      <button
        type="button"
        className="btn"
        onClick={() =>
          onChange(
            plannedWinding(
              plan,
              plan.turnsPerVolt === null ? null : 10 / plan.turnsPerVolt,
              transformer.ratedV * 1.08,
              Math.max(secondaryA, transformer.ratedVA / transformer.ratedV / halves),
              mains.voltageRms,
              mains.frequencyHz,
              halves,
            ),
          )
        }
      >
        Turns and wire for {formatQuantity(transformer.ratedV, 'V')} and this load, anew
      </button>
      <p className="text-[14px]">
        Open <strong>{formatQuantity(wound.openV, 'V')}</strong>, copper {formatQuantity(wound.primaryOhm, 'ohm')} and{' '}
        {formatQuantity(wound.secondaryOhm, 'ohm')} cold, {(wound.copperKg * 1000).toFixed(0)} g of wire (
        {wound.primaryLengthM.toFixed(0)} m and {wound.secondaryLengthM.toFixed(0)} m); loses{' '}
        {formatQuantity(loss, 'W')} in copper at {formatQuantity(secondaryA, 'A')} RMS and {transformer.hotC} °C (
        {copperRatio(transformer.hotC).toFixed(2)} × the cold ohms).
      </p>
      <ul className="space-y-1 text-[14px]">
        <Check
          fails={wound.fill > WINDOW_FILL_MAX}
          text={`Window ${fillPct.toFixed(0)} % filled with wire; by hand about ${100 * WINDOW_FILL_MAX} % goes in.`}
        />
        <Check
          fails={wound.fluxT > plan.fluxT * 1.02}
          text={`Flux ${wound.fluxT.toFixed(2)} T at nominal mains against ${plan.fluxT} T; at high line ${(wound.fluxT * (1 + mains.highPct / 100)).toFixed(2)} T.`}
        />
        <Check
          fails={secondaryA > wound.secondaryA}
          text={`${formatQuantity(secondaryA, 'A')} RMS in wire good for ${formatQuantity(wound.secondaryA, 'A')} at 3.5 A/mm².`}
        />
        <Check
          fails={transformer.ratedVA > 1.2 * wound.coreVA}
          text={`This core carries about ${formatQuantity(wound.coreVA, 'VA')} by the rule of thumb (section in cm²)², asked ${formatQuantity(transformer.ratedVA, 'VA')}.`}
        />
      </ul>
      <div>
        <h2 className="text-[16px] font-semibold">A few turns more or less, before it is closed</h2>
        <table className="mt-1 text-[14px]">
          <thead className="text-[13px] text-quiet">
            <tr>
              <th className="pr-4 text-left font-normal">Secondary turns</th>
              <th className="px-3 text-right font-normal">valley, low line loaded</th>
              <th className="px-3 text-right font-normal">idles at, high line</th>
              <td />
            </tr>
          </thead>
          <tbody>
            {turned?.map((t) => (
              <tr
                key={t.turns}
                className={`border-t border-rule/60 ${t.turns === plan.secondaryTurns ? 'font-semibold' : ''}`}
              >
                <td className="pr-4">{t.turns}</td>
                <td className="px-3 text-right">{formatQuantity(t.valleyV, 'V')}</td>
                <td className="px-3 text-right">{formatQuantity(t.idleV, 'V')}</td>
                <td>
                  {t.turns !== plan.secondaryTurns && (
                    <button
                      type="button"
                      className="btn !min-h-[24px]"
                      aria-label={`wind so: ${t.turns} turns`}
                      onClick={() => set({ secondaryTurns: t.turns })}
                    >
                      wind so
                    </button>
                  )}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
        {!turned && <p className="text-[14px] text-quiet">{trouble ?? 'Simulating…'}</p>}
      </div>
      <p className="text-[14px] text-fail">
        A home-wound transformer needs an insulation test by somebody equipped for it before it meets the mains: primary
        to secondary, and both to the core.
      </p>
    </section>
  );
}

function Check({ fails, text }: { fails: boolean; text: string }) {
  return (
    <li className={fails ? 'font-medium text-fail' : ''}>
      {fails ? '✕ ' : '· '}
      {text}
    </li>
  );
}

/** Ten test turns on the finished primary: their volts say how many turns make one. */
function TenTurns({ onRead }: { onRead(volts: number): void }) {
  const [value, setValue] = useState<number | null>(null);
  return (
    <QuantityField
      path="transformer.loadedV"
      label="Volts of ten test turns"
      value={value}
      placeholder="not tried"
      onCommit={(v) => {
        setValue(v);
        if (v) onRead(v);
      }}
    />
  );
}
