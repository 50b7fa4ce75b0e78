'use client';

import { mainModel, outputModel, outputName } from '@/core/design/outputs';
import { useState } from 'react';
import { outputDemand } from '@/core/design/defaults';
import { applyPatch, type Design, type FurtherOutput, type OutputDemand } from '@/core/design/design';
import { NAME_MAX, OUTPUTS_MAX } from '@/core/design/how-many';
import { regulatorModel } from '@/core/parts/regulators';
import { outputFigures } from '@/core/picture/figures/outputs';
import { STANDARD_SINKS_K_PER_W } from '@/core/parts/heatsink';
import { formatQuantity } from '@/core/quantity/format';
import { stepInList } from '@/core/quantity/preferred';
import { isSplit } from '@/core/design/words';
import { AllowedField, LoadField, RangeField } from '@/ui/demand-fields';
import { ChoiceField } from '@/ui/choice-field';
import { QuantityField } from '@/ui/quantity-field';
import { useDesign, useEdit, useView } from '@/ui/session';
import { Working } from '@/ui/working';
import { FamilyFields } from './family-fields';
import { PartInHand } from './part-in-hand';
import { by } from '@/ui/stepping';

export function List() {
  const design = useDesign();
  const edit = useEdit();
  const { outputs } = design;
  return (
    <div className="space-y-4">
      {outputs.map((output, n) => (
        <One key={n} output={output} n={n} />
      ))}
      {outputs.length === 0 && <p className="text-quiet">This reservoir feeds one output so far.</p>}
      <button
        type="button"
        className="btn btn-main"
        disabled={outputs.length >= OUTPUTS_MAX}
        onClick={() => edit({ outputs: [...outputs, newOutput(design)] })}
      >
        {outputs.length >= OUTPUTS_MAX ? `${OUTPUTS_MAX} further outputs are the most` : 'Add an output'}
      </button>
    </div>
  );
}

/** A 5 V logic rail, or 12 V beside a main output that is 5 V already. */
function newOutput(design: Design): FurtherOutput {
  const main = mainModel(design)?.outputV ?? design.demand.outputV;
  const outputV = Math.abs(main - 5) < 0.5 ? 12 : 5;
  const asked = { outputV, outputA: 0.1, tolerancePct: 5, rippleVpp: 0.05, kind: 'current' as const };
  return {
    name: '',
    rail: 'plus',
    demand: outputDemand(asked),
    regulator: { kind: 'fixed', size: '78', outputV },
    regulatorSheet: null,
    sinkKPerW: null,
  };
}

/** What another family for this output is made to suit. */
function asked(design: Design, { demand, regulator }: FurtherOutput): Design {
  return applyPatch(design, { demand: { ...demand, outputA: Math.max(demand.outputA, 0.01) }, regulator });
}

function One({ output, n }: { output: FurtherOutput; n: number }) {
  const design = useDesign();
  const edit = useEdit();
  const picture = useView((s) => s.picture);
  const [opened, setOpened] = useState<string | null>(null);
  const model = outputModel(output);
  const set = (part: Partial<FurtherOutput>) =>
    edit({ outputs: design.outputs.map((o, k) => (k === n ? { ...o, ...part } : o)) });
  const ask = (part: Partial<OutputDemand>) => set({ demand: { ...output.demand, ...part } });
  const made = regulatorModel(output.regulator);
  const settable = made !== null && made.lowestV < made.outputV - 0.01;
  // The picture follows the document by a moment: an output just added is not solved yet.
  const figures = picture?.design.outputs[n] ? outputFigures(picture, n) : [];
  const working = figures.find((f) => f.id === opened);
  return (
    <section aria-label={outputName(output, n)} className="border-t-[3px] border-volt pt-2">
      <div className="grid grid-cols-4 gap-x-3 gap-y-1.5">
        <label className="min-w-0">
          <span className="block truncate text-[13px] text-quiet">Called</span>
          <input
            className="field"
            maxLength={NAME_MAX}
            value={output.name}
            placeholder={outputName({ ...output, name: '' }, n)}
            onChange={(e) => set({ name: e.target.value })}
          />
        </label>
        {isSplit(design) && (
          <ChoiceField
            label="Rail"
            value={output.rail}
            options={[
              { value: 'plus', label: 'plus' },
              { value: 'minus', label: 'minus' },
            ]}
            onChange={(rail) => set({ rail })}
          />
        )}
        <QuantityField
          path="demand.outputV"
          label="Wanted output"
          value={output.demand.outputV}
          step={by(1)}
          onCommit={(v) => ask({ outputV: v! })}
        />
        <LoadField
          path="demand.outputA"
          volts={output.demand.outputV}
          value={output.demand.outputA}
          onCommit={(v) => ask({ outputA: v! })}
        />
        <LoadField
          path="demand.typicalA"
          label="Lasting current"
          volts={output.demand.outputV}
          value={output.demand.typicalA}
          placeholder="the same"
          onCommit={(v) => ask({ typicalA: v })}
        />
        <AllowedField demand={output.demand} onCommit={ask} />
        <QuantityField
          path="demand.rippleVpp"
          label="Ripple allowed, p-p"
          value={output.demand.rippleVpp}
          onCommit={(v) => ask({ rippleVpp: v! })}
        />
        <FamilyFields
          regulator={output.regulator}
          design={asked(design, output)}
          onChange={(regulator) => set({ regulator })}
        />
        {settable && <RangeField range={output.demand.range} onCommit={(range) => ask({ range })} />}
        {model?.pass.takesSink && !design.heat.oneSink && (
          <QuantityField
            path="output.sinkKPerW"
            value={output.sinkKPerW}
            placeholder="no sink"
            step={(v, d) => stepInList(v, [...STANDARD_SINKS_K_PER_W].reverse(), d)}
            onCommit={(v) => set({ sinkKPerW: v })}
          />
        )}
      </div>
      <div className="mt-1.5 flex items-baseline gap-x-5 text-[14px]">
        {figures.map((f) => (
          <button
            key={f.id}
            type="button"
            className={`num ${f.id === opened ? '!border-solid !border-volt' : ''}`}
            aria-expanded={f.id === opened}
            onClick={() => setOpened(f.id === opened ? null : f.id)}
          >
            <span className="text-quiet">{f.label}</span> <strong>{formatQuantity(f.value, f.unit)}</strong>
          </button>
        ))}
        <span className="flex-1" />
        {output.regulator.kind !== 'none' && (
          <span className="[&>div]:flex-none">
            <PartInHand
              regulator={output.regulator}
              sheet={output.regulatorSheet}
              onRegulator={(regulator) => set({ regulator })}
              onSheet={(regulatorSheet) => set({ regulatorSheet })}
            />
          </span>
        )}
        <button
          type="button"
          className="btn"
          aria-label={`Remove ${outputName(output, n)}`}
          onClick={() => edit({ outputs: design.outputs.filter((_, k) => k !== n) })}
        >
          Remove
        </button>
      </div>
      {working && (
        <div className="mt-1.5 border-l-2 border-volt pl-3">
          <Working figure={working} />
        </div>
      )}
    </section>
  );
}
