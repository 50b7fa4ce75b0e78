'use client';

import { useState } from 'react';
import { applyPatch, type Design, type FurtherOutput } from '@/core/design/design';
import { NAME_MAX, OUTPUTS_MAX } from '@/core/design/limits';
import { outputName } from '@/core/design/words';
import { outputFigures } from '@/core/judge/figures/outputs';
import { STANDARD_SINKS_K_PER_W } from '@/core/parts/heatsink';
import { regulatorModel, type SomeRegulator } from '@/core/parts/regulators';
import { formatQuantity } from '@/core/quantity/format';
import { E12, stepInList } from '@/core/quantity/preferred';
import { DialogButton } from '@/ui/dialog-button';
import { QuantityField } from '@/ui/quantity-field';
import { useDesign, useEdit, useView } from '@/ui/session';
import { Working } from '@/ui/working';
import { FAMILIES, FamilyFields } from './family-fields';
import { inDecades } from './stepping';

/** More regulators on the same reservoir: each output with its own headroom, heat and sink. */
export function FurtherOutputs() {
  const { outputs } = useDesign();
  return (
    <DialogButton
      label={outputs.length > 0 ? `Outputs ${outputs.length + 1}` : 'Outputs'}
      hint="More regulators on the same reservoir, each with an output of its own"
      title="More outputs from this reservoir"
      description="Each has a regulator, a load and a sink of its own; all draw from one rail, so each pulls down the others’ headroom."
      wide
    >
      {() => <List />}
    </DialogButton>
  );
}

function List() {
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
  const main = regulatorModel(design.regulator)?.outputV ?? design.demand.outputV;
  const outputV = Math.abs(main - 5) < 0.5 ? 12 : 5;
  return {
    name: `${outputV} V`,
    currentA: 0.1,
    regulator: { kind: 'fixed', size: '78', outputV },
    sinkKPerW: null,
  };
}

/** What another family for this output is made to suit. */
function asked(design: Design, output: FurtherOutput): Design {
  return applyPatch(design, { demand: { outputA: Math.max(output.currentA, 0.01) }, regulator: output.regulator });
}

function One({ output, n }: { output: FurtherOutput; n: number }) {
  const design = useDesign();
  const edit = useEdit();
  const picture = useView((s) => s.picture);
  const [opened, setOpened] = useState<string | null>(null);
  const model = regulatorModel(output.regulator);
  const set = (part: Partial<FurtherOutput>) =>
    edit({ outputs: design.outputs.map((o, k) => (k === n ? { ...o, ...part } : o)) });
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
            onChange={(e) => set({ name: e.target.value })}
          />
        </label>
        <QuantityField
          path="output.currentA"
          value={output.currentA}
          step={inDecades(E12)}
          onCommit={(v) => set({ currentA: v! })}
        />
        <FamilyFields
          regulator={output.regulator}
          design={asked(design, output)}
          families={FAMILIES.filter((f) => f.value !== 'none')}
          onChange={(regulator) => set({ regulator: regulator as SomeRegulator })}
        />
        {model.pass.takesSink && (
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
