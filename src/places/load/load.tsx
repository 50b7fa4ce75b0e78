'use client';

import dynamic from 'next/dynamic';
import { Loading, orSay } from '@/ui/loading';
import { useState } from 'react';
import {
  applyPatch,
  type Consumer,
  type Design,
  type LoadTable,
  type OutputDemand,
  type OutputId,
  type Patch,
} from '@/core/design/design';
import { CONSUMER_KINDS, type ConsumerKind } from '@/core/design/kinds';
import { nameOfOutput, outputsOf, type Output } from '@/core/design/outputs';
import { CONSUMERS_MAX, NAME_MAX } from '@/core/design/how-many';
import { rangeFault } from '@/core/design/limits';
import { isSplit } from '@/core/design/words';
import { consumerFault, railSums, startSurge, type RailSums } from '@/core/load/sums';
import { formatNominal, formatQuantity } from '@/core/quantity/format';
import { download, fileName } from '@/ui/download';
import { QuantityField } from '@/ui/quantity-field';
import { useDesign, useEdit } from '@/ui/session';
import { regulatorModel } from '@/core/parts/regulators';
import { AllowedField, LoadField, RangeField } from '@/ui/demand-fields';
import { AmountCell } from '@/ui/amount-cell';
import { FirstConsumers } from './first-consumers';
import { Room } from '@/ui/room';

const Paste = dynamic(
  orSay(() => import('./paste').then((m) => m.Paste)),
  { ssr: false, loading: Loading },
);

const KIND_WORDS: Record<ConsumerKind, string> = {
  current: 'constant current',
  resistance: 'resistance',
  power: 'constant power',
  motor: 'motor, starts hard',
  lamp: 'lamp, cold at first',
};

const BLANK: Consumer = {
  name: '',
  count: 1,
  on: null,
  output: 'main',
  kind: 'current',
  standingA: 0,
  typicalA: 0.1,
  peakA: 0.1,
  dutyPct: 100,
  startA: null,
};

/** Load: what must it feed? Consumers, their sums, and what of them the supply is designed for. */
export function Load() {
  const design = useDesign();
  const edit = useEdit();
  const [pasting, setPasting] = useState<string | null>(null);
  const { load, demand } = design;
  const outputs = outputsOf(design);
  const several = outputs.length > 1;
  const setTable = (part: Partial<LoadTable>) => edit({ load: part });
  const setLine = (n: number, part: Partial<Consumer>) =>
    setTable({ consumers: load.consumers.map((c, k) => (k === n ? { ...c, ...part } : c)) });
  const sums = outputs.map((output) => ({ output, sums: railSums(load, output.id) }));
  const wanted = wantedFrom(design);
  const known = load.consumers.length > 0 && sums.some((s) => s.sums.peakA > 0);
  const taken = JSON.stringify(applyPatch(design, wanted)) === JSON.stringify(design);
  const tooMuch = known
    ? (sums.map((s) => rangeFault('demand.outputA', Math.max(s.sums.peakA, 1e-4))).find((f) => f) ?? null)
    : null;
  const surge = startSurge(load, 'main');
  async function saveCsv() {
    const { consumersCsv } = await import('@/core/load/consumers-csv');
    download(`${fileName(design.name)}-load.csv`, consumersCsv(load.consumers), 'text/csv');
  }
  const faults = load.consumers.flatMap((c, n) => lineFault(design, c, n) ?? []);
  const main = outputs[0]!;
  const made = regulatorModel(design.regulator);
  const surging = load.consumers.some((c) => c.kind === 'motor' || c.kind === 'lamp' || c.startA !== null);
  const settable = made !== null && made.lowestV < made.outputV - 0.01;

  return (
    <Room name="Load">
      <div className="grid max-w-[1320px] grid-cols-[minmax(0,1fr)] gap-5 min-[900px]:grid-cols-[minmax(0,1fr)_300px]">
        <section aria-label="Consumers">
          <div className="flex items-baseline justify-between">
            <h2 className="text-[20px] font-semibold">What hangs on it</h2>
            <div className="flex gap-2">
              <button type="button" className="btn" onClick={() => setPasting('')}>
                Paste or read a table
              </button>
              <button
                type="button"
                className="btn"
                disabled={load.consumers.length === 0}
                onClick={() => void saveCsv()}
              >
                Save as CSV
              </button>
            </div>
          </div>
          {pasting !== null && (
            <Paste
              outputs={outputs}
              onClose={() => setPasting(null)}
              onTake={(consumers) => {
                setTable({ consumers: [...load.consumers, ...consumers].slice(0, CONSUMERS_MAX) });
                setPasting(null);
              }}
            />
          )}
          {load.consumers.length === 0 ? (
            <FirstConsumers onTake={(c) => setTable({ consumers: [c] })} />
          ) : (
            <div className="relative -mx-1 overflow-x-auto px-1">
              <table className="mt-2 w-full min-w-[760px] border-collapse text-[14px]">
                <thead className="text-left text-[13px] text-quiet">
                  <tr>
                    <th className="px-1 font-normal">Consumer</th>
                    <th className="w-[58px] px-1 font-normal">Count</th>
                    <th className="w-[50px] px-1 font-normal">On</th>
                    {(several || stray(design)) && <th className="w-[80px] px-1 font-normal">Output</th>}
                    <th className="w-[150px] px-1 font-normal">Behaves as</th>
                    <th className="w-[80px] px-1 font-normal">Standing</th>
                    <th className="w-[80px] px-1 font-normal">Typical</th>
                    <th className="w-[80px] px-1 font-normal">Peak</th>
                    {surging && <th className="w-[80px] px-1 font-normal">At first</th>}
                    <th className="w-[66px] px-1 font-normal">Duty</th>
                    <td />
                  </tr>
                </thead>
                <tbody>
                  {load.consumers.map((c, n) => (
                    <tr key={n}>
                      <td className="px-1 py-0.5">
                        <input
                          className="field min-w-[96px]"
                          aria-label={`Name of line ${n + 1}`}
                          value={c.name}
                          maxLength={NAME_MAX}
                          onChange={(e) => setLine(n, { name: e.target.value })}
                        />
                      </td>
                      <td className="px-1">
                        <input
                          className="field"
                          type="number"
                          min={0}
                          max={10000}
                          step={1}
                          aria-label={`Count of line ${n + 1}`}
                          value={c.count}
                          onChange={(e) => {
                            const count = Math.round(Number(e.target.value));
                            if (count >= 0 && count <= 10_000) setLine(n, { count });
                          }}
                        />
                      </td>
                      <td className="px-1">
                        <input
                          className="field !px-1.5"
                          type="number"
                          min={0}
                          max={c.count}
                          step={1}
                          aria-label={`On at once of line ${n + 1}`}
                          title="How many of them are ever on together"
                          placeholder="all"
                          value={c.on ?? ''}
                          onChange={(e) => {
                            const on = e.target.value === '' ? null : Math.round(Number(e.target.value));
                            if (on === null || (on >= 0 && on <= 10_000)) setLine(n, { on });
                          }}
                        />
                      </td>
                      {(several || stray(design)) && (
                        <td className="px-1">
                          <select
                            className="field"
                            aria-label={`Output of line ${n + 1}`}
                            aria-invalid={!outputs.some((o) => o.id === c.output)}
                            value={c.output}
                            onChange={(e) => setLine(n, { output: e.target.value as OutputId })}
                          >
                            {outputs.map((o) => (
                              <option key={o.id} value={o.id}>
                                {o.name}
                              </option>
                            ))}
                            {!outputs.some((o) => o.id === c.output) && <option value={c.output}>not there</option>}
                          </select>
                        </td>
                      )}
                      <td className="px-1">
                        <select
                          className="field"
                          aria-label={`Kind of line ${n + 1}`}
                          value={c.kind}
                          onChange={(e) => setLine(n, { kind: e.target.value as ConsumerKind })}
                        >
                          {CONSUMER_KINDS.map((k) => (
                            <option key={k} value={k}>
                              {KIND_WORDS[k]}
                            </option>
                          ))}
                        </select>
                      </td>
                      <AmountCell
                        path="load.standingA"
                        volts={voltsOf(outputs, c.output)}
                        label={`Standing of line ${n + 1}`}
                        value={c.standingA}
                        onCommit={(standingA) => setLine(n, { standingA: standingA! })}
                      />
                      <AmountCell
                        path="load.typicalA"
                        volts={voltsOf(outputs, c.output)}
                        label={`Typical of line ${n + 1}`}
                        value={c.typicalA}
                        onCommit={(typicalA) =>
                          setLine(n, { typicalA: typicalA!, ...(c.peakA < typicalA! ? { peakA: typicalA! } : {}) })
                        }
                      />
                      <AmountCell
                        path="load.peakA"
                        volts={voltsOf(outputs, c.output)}
                        label={`Peak of line ${n + 1}`}
                        value={c.peakA}
                        onCommit={(peakA) => setLine(n, { peakA: peakA! })}
                      />
                      {surging && (
                        <AmountCell
                          path="load.startA"
                          label={`At switch-on of line ${n + 1}`}
                          volts={voltsOf(outputs, c.output)}
                          value={c.startA}
                          placeholder={c.kind === 'motor' || c.kind === 'lamp' ? 'usual' : '–'}
                          onCommit={(startA) => setLine(n, { startA })}
                        />
                      )}
                      <AmountCell
                        path="load.dutyPct"
                        label={`Duty of line ${n + 1}`}
                        value={c.dutyPct}
                        onCommit={(dutyPct) => setLine(n, { dutyPct: dutyPct! })}
                      />
                      <td className="px-1">
                        <button
                          type="button"
                          className="btn btn-bare !px-1.5"
                          title="Remove this line"
                          aria-label={`remove line ${n + 1}`}
                          onClick={() => setTable({ consumers: load.consumers.filter((_, k) => k !== n) })}
                        >
                          Remove
                        </button>
                      </td>
                    </tr>
                  ))}
                </tbody>
              </table>
            </div>
          )}
          <button
            type="button"
            className="btn mt-2"
            disabled={load.consumers.length >= CONSUMERS_MAX}
            onClick={() => setTable({ consumers: [...load.consumers, BLANK] })}
          >
            Add a line
          </button>
          {faults.map((f) => (
            <p key={f} className="mt-1 text-tight">
              {f}
            </p>
          ))}
        </section>
        <aside aria-label="Sums" className="space-y-3">
          <div className="grid grid-cols-2 gap-3">
            <QuantityField
              path="load.togetherPct"
              value={load.togetherPct}
              onCommit={(v) => setTable({ togetherPct: v! })}
            />
            <QuantityField
              path="load.reservePct"
              value={load.reservePct}
              onCommit={(v) => setTable({ reservePct: v! })}
            />
          </div>
          <table className="w-full text-[15px]">
            <thead className="text-[13px] text-quiet">
              <tr>
                <td />
                <th className="text-right font-normal">sum</th>
                <th className="text-right font-normal">designed for</th>
              </tr>
            </thead>
            {sums.map(({ output, sums: of }) => (
              <tbody key={output.id}>
                {several && (
                  <tr className="border-t border-rule">
                    <th scope="rowgroup" colSpan={3} className="pt-1 text-left text-[14px] font-semibold">
                      {output.name}
                    </th>
                  </tr>
                )}
                {(
                  [
                    ['Standing by', 'standingA', null],
                    ['Lasting: heat', 'lastingA', output.demand.typicalA ?? output.demand.outputA],
                    ['Peak: valley', 'peakA', output.demand.outputA],
                  ] as const satisfies readonly (readonly [string, keyof RailSums, number | null])[]
                ).map(([label, key, now]) => (
                  <tr key={key} className="border-t border-rule/60">
                    <td className="py-0.5">{label}</td>
                    <td className="text-right font-semibold">{formatQuantity(of[key], 'A')}</td>
                    <td className="text-right text-quiet">{now === null ? '–' : formatQuantity(now, 'A')}</td>
                  </tr>
                ))}
              </tbody>
            ))}
          </table>
          {surge && (
            <p className="text-[14px]">
              Motors and lamps draw about {surge.factor.toFixed(1)} times the running current at switch-on, for some{' '}
              {formatQuantity(surge.tauS, 's')} (typical); an unregulated rail gives it.
            </p>
          )}
          {tooMuch && <p className="text-fail">{tooMuch}</p>}
          {known && !taken && !tooMuch && (
            <button type="button" className="btn btn-main" onClick={() => edit(wanted)}>
              Design it for these sums
            </button>
          )}
          {known && taken && <p className="text-volt">The supply is designed for these sums.</p>}
          <div className="grid grid-cols-2 gap-3 border-t border-rule pt-3">
            <QuantityField
              path="demand.outputV"
              label="Output"
              value={demand.outputV}
              onCommit={(v) => edit({ demand: { outputV: v! } })}
            />
            <AllowedField demand={demand} onCommit={(part) => edit({ demand: part })} />
            <LoadField
              path="demand.outputA"
              label="Load current"
              volts={demand.outputV}
              value={demand.outputA}
              onCommit={(v) => edit({ demand: { outputA: v! } })}
            />
            <LoadField
              path="demand.typicalA"
              label="Lasting current"
              volts={demand.outputV}
              value={demand.typicalA}
              placeholder="the same"
              onCommit={(v) => edit({ demand: { typicalA: v } })}
            />
            <LoadField
              path="demand.leastA"
              label="Least current"
              volts={demand.outputV}
              value={demand.leastA}
              onCommit={(v) => edit({ demand: { leastA: v ?? 0 } })}
            />
            {settable && <RangeField range={main.demand.range} onCommit={(range) => edit({ demand: { range } })} />}
            <QuantityField
              path="demand.rippleVpp"
              label="Ripple allowed, p-p"
              value={demand.rippleVpp}
              onCommit={(v) => edit({ demand: { rippleVpp: v! } })}
            />
          </div>
          <p className="text-[13px] text-quiet">
            Loads may be typed in amperes, ohms or watts: 2 A, 10 Ω, 360 W. The peak decides headroom and surge, the
            lasting load what gets hot ({formatNominal(demand.typicalA ?? demand.outputA, 'A')}), no load at all what
            everything idles at.
          </p>
        </aside>
      </div>
    </Room>
  );
}

/** What the sums ask of every output, as a change of the design. */
function wantedFrom(design: Design): Patch {
  const { load, demand, outputs } = design;
  const round = (a: number) => Number(a.toPrecision(4));
  const asked = (id: OutputId, before: OutputDemand) => {
    const { peakA, lastingA } = railSums(load, id);
    if (!load.consumers.some((c) => c.output === id) || peakA <= 0) return null;
    const outputA = round(peakA);
    const typicalA = round(lastingA);
    return { ...before, outputA, typicalA: typicalA === outputA ? null : typicalA };
  };
  const main = asked('main', demand);
  const minus = isSplit(design) ? asked('minus', demand)?.outputA : undefined;
  return {
    demand: {
      ...(main ? { outputA: main.outputA, typicalA: main.typicalA } : {}),
      ...(minus === undefined ? {} : { negativeA: minus === (main?.outputA ?? demand.outputA) ? null : minus }),
    },
    outputs: outputs.map((o, n) => ({ ...o, demand: asked(`out-${n + 1}`, o.demand) ?? o.demand })),
  };
}

/** Whether any line hangs on an output the design does not have. */
function stray(design: Design): boolean {
  return design.load.consumers.some((c) => nameOfOutput(design, c.output) === null);
}

/** What is wrong with a line, its output included, as a sentence. */
function lineFault(design: Design, consumer: Consumer, n: number): string | null {
  const who = consumer.name.trim() || `Line ${n + 1}`;
  return nameOfOutput(design, consumer.output) === null
    ? `${who}: hangs on an output this supply does not have; it counts nowhere until it is put on one that is.`
    : consumerFault(consumer);
}

function voltsOf(outputs: readonly Output[], id: OutputId): number {
  return (outputs.find((o) => o.id === id) ?? outputs[0]!).demand.outputV;
}
