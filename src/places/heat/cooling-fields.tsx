'use client';

import { outputModel, outputName } from '@/core/design/outputs';
import { useState } from 'react';
import { hasDiodes } from '@/core/design/source';
import { STANDARD_SINKS_K_PER_W } from '@/core/parts/heatsink';
import type { LowDropoutRegulator } from '@/core/parts/regulators/low-dropout';
import { formatNominal } from '@/core/quantity/format';
import { parseQuantity } from '@/core/quantity/parse';
import { stepInList } from '@/core/quantity/preferred';
import { QuantityField } from '@/ui/quantity-field';
import { useDesign, useEdit } from '@/ui/session';

/** The sink of each further output that takes one. */
export function OutputSinks() {
  const { outputs } = useDesign();
  const edit = useEdit();
  return (
    <div className="grid grid-cols-2 gap-x-3 gap-y-1.5">
      {outputs.map(
        (output, n) =>
          outputModel(output)?.pass.takesSink && (
            <QuantityField
              key={n}
              path="output.sinkKPerW"
              label={`Heatsink, ${outputName(output, n)}`}
              value={output.sinkKPerW}
              placeholder="no sink"
              step={(v, d) => stepInList(v, [...STANDARD_SINKS_K_PER_W].reverse(), d)}
              onCommit={(sinkKPerW) => edit({ outputs: outputs.map((o, k) => (k === n ? { ...o, sinkKPerW } : o)) })}
            />
          ),
      )}
    </div>
  );
}

/** Whether the circuit is solved at chosen temperatures, or at those its copper and diodes come to. */
export function Together() {
  const design = useDesign();
  const { heat, transformer, source } = design;
  const edit = useEdit();
  if (source.kind !== 'mains' && !hasDiodes(design)) return null;
  return (
    <fieldset className="text-[14px]">
      <legend className="text-quiet">Copper and diodes in the circuit</legend>
      {(
        [
          [
            false,
            source.kind === 'mains'
              ? `copper at ${formatNominal(transformer.hotC, '°C')}, diodes at 25 °C`
              : 'diodes at 25 °C',
          ],
          [true, 'as warm as they get, solved together'],
        ] as const
      ).map(([together, label]) => (
        <label key={label} className="flex items-center gap-2">
          <input
            type="radio"
            name="together"
            className="accent-volt"
            checked={heat.together === together}
            onChange={() => edit({ heat: { together } })}
          />
          {label}
        </label>
      ))}
    </fieldset>
  );
}

/** A flat plate as a sink: 50/√A by the rule of thumb. */
export function Plate() {
  const edit = useEdit();
  const [text, setText] = useState('');
  const read = text.trim() === '' ? null : parseQuantity(text, 'cm²');
  const kPerW = read?.ok && read.value > 0 ? Number((50 / Math.sqrt(read.value)).toPrecision(2)) : null;
  return (
    <div className="pt-1">
      <label className="flex items-center gap-2">
        A flat upright plate of
        <input
          className="field !w-[92px]"
          value={text}
          placeholder="100 cm²"
          onChange={(e) => setText(e.target.value)}
          aria-invalid={read?.ok === false}
        />
      </label>
      {read?.ok === false && <p className="text-fail">{read.error}</p>}
      {read?.ok && read.value <= 0 && <p className="text-fail">A plate has to have a face: more than 0 cm².</p>}
      {kPerW !== null && (
        <p>
          about {formatNominal(kPerW, 'K/W')} (2 mm aluminium, one face counted, ±30 %; lying flat a quarter more){' '}
          <button
            type="button"
            className="btn !min-h-[26px]"
            onClick={() => edit({ heat: { sinkKPerW: Math.min(100, Math.max(0.05, kPerW)) } })}
          >
            Take it
          </button>
        </p>
      )}
    </div>
  );
}

/** Copper under a small part that has no sink. */
export function BoardCopper({ regulator }: { regulator: LowDropoutRegulator }) {
  const edit = useEdit();
  return (
    <QuantityField
      path="regulator.boardCm2"
      value={regulator.boardCm2}
      step={(v, d) => Math.max(0.5, v + d)}
      onCommit={(v) => edit({ regulator: { ...regulator, boardCm2: v! } })}
    />
  );
}
