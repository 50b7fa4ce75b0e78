'use client';

import { ofDiodeClass } from '@/core/design/diode-edit';

import { useState, type ReactNode } from 'react';
import { outputsOf } from '@/core/design/outputs';
import { isSplit } from '@/core/design/words';
import { FIELD_LIMITS } from '@/core/design/limits';
import { DC_SOURCES, type DcSource } from '@/core/parts/dc-source';
import { diodeClass } from '@/core/parts/diode';
import { formatQuantity } from '@/core/quantity/format';
import { E12, E6 } from '@/core/quantity/preferred';
import { ChoiceField } from '@/ui/choice-field';
import { QuantityField } from '@/ui/quantity-field';
import { useDesign, useEdit } from '@/ui/session';
import { by, inDecades } from '@/ui/stepping';

/** What stands in the lead of a DC source where a valve stood before. */
const SMALL_SILICON = 'si-3a';

/** Where the energy comes from: the mains, or one of the DC sources. What belongs to the other is kept. */
export function SourceChoice(): ReactNode {
  const design = useDesign();
  const { source } = design;
  const edit = useEdit();
  const [asking, setAsking] = useState<string | null>(null);
  const preset = DC_SOURCES.find((p) => p.source.kind === source.kind && sameSource(p.source, source as DcSource));
  const change = (id: string) => {
    const chosen = DC_SOURCES.find((p) => p.id === id);
    // Nothing heats a valve behind a plug.
    const valve = diodeClass(design.rectifier.diode).technology === 'valve';
    const rectifier = ofDiodeClass(SMALL_SILICON);
    if (chosen) edit({ source: chosen.source, ...(valve ? { rectifier } : {}) });
    else if (id === 'mains') edit({ source: { kind: 'mains' } });
    setAsking(null);
  };
  // What hangs on a rail the new source cannot feed is said before it is cut off.
  const lost = isSplit(design)
    ? outputsOf(design)
        .filter((o) => o.rail === 1)
        .map((o) => o.name)
    : [];
  return (
    <div className="min-w-0">
      <ChoiceField
        label="Fed from"
        value={asking ?? (source.kind === 'mains' ? 'mains' : (preset?.id ?? 'own'))}
        options={[
          { value: 'mains', label: 'Mains and transformer' },
          ...DC_SOURCES.map((p) => ({ value: p.id, label: p.name })),
          ...(source.kind === 'mains' || preset
            ? []
            : [{ value: 'own', label: source.kind === 'battery' ? 'own battery' : 'own adapter' }]),
        ]}
        onChange={(id: string) => (lost.length > 0 && id !== 'mains' ? setAsking(id) : change(id))}
      />
      {asking && (
        <div role="alertdialog" aria-label="What is lost" className="mt-1 text-[13px] leading-snug">
          <p className="text-tight">
            It feeds one rail: {lost.join(', ')} would have nothing to hang on. Their values are kept for the way back.
          </p>
          <span className="mt-1 flex gap-1.5">
            <button type="button" className="btn !min-h-[26px]" onClick={() => setAsking(null)}>
              Keep the mains
            </button>
            <button type="button" className="btn !min-h-[26px]" onClick={() => change(asking)}>
              Change it
            </button>
          </span>
        </div>
      )}
    </div>
  );
}

function sameSource(a: DcSource, b: DcSource): boolean {
  return Object.entries(a).every(([key, value]) => key === 'reverseDiode' || b[key as keyof DcSource] === value);
}

/** The values of a DC source. */
export function DcSourceFields({ source }: { source: DcSource }): ReactNode {
  const edit = useEdit();
  if (source.kind === 'battery') {
    const set = (part: Partial<typeof source>) => edit({ source: { ...source, ...part } });
    const { freshV, emptyV } = source;
    return (
      <>
        <QuantityField
          path="source.freshV"
          value={freshV}
          step={by(0.1)}
          check={(v) => (v <= emptyV ? `Has to be above the ${formatQuantity(emptyV, 'V')} it is given up at.` : null)}
          onCommit={(v) => set({ freshV: v! })}
        />
        <QuantityField
          path="source.emptyV"
          value={emptyV}
          step={by(0.1)}
          check={(v) => (v >= freshV ? `Has to be below the ${formatQuantity(freshV, 'V')} it has fresh.` : null)}
          onCommit={(v) => set({ emptyV: v! })}
        />
        <QuantityField
          path="source.resistanceOhm"
          value={source.resistanceOhm}
          step={inDecades(E12)}
          onCommit={(v) => set({ resistanceOhm: v! })}
        />
        <QuantityField
          path="source.capacityAh"
          value={source.capacityAh}
          step={inDecades(E6)}
          onCommit={(v) => set({ capacityAh: v! })}
        />
      </>
    );
  }
  const set = (part: Partial<typeof source>) => edit({ source: { ...source, ...part } });
  return (
    <>
      <QuantityField path="source.ratedV" value={source.ratedV} step={by(1)} onCommit={(v) => set({ ratedV: v! })} />
      <QuantityField
        path="source.ratedA"
        value={source.ratedA}
        step={inDecades(E12)}
        onCommit={(v) => set({ ratedA: v! })}
      />
      <QuantityField path="source.idlePct" value={source.idlePct} step={by(5)} onCommit={(v) => set({ idlePct: v! })} />
      <QuantityField
        path="source.spreadPct"
        value={source.spreadPct}
        step={by(1)}
        onCommit={(v) => set({ spreadPct: v! })}
      />
      <QuantityField
        path="source.rippleVpp"
        value={source.rippleVpp}
        step={by(0.1)}
        onCommit={(v) => set({ rippleVpp: v! })}
      />
      <QuantityField
        path="source.limitA"
        value={source.limitA}
        placeholder={FIELD_LIMITS['source.limitA'].optional}
        step={inDecades(E12)}
        onCommit={(v) => set({ limitA: v })}
      />
    </>
  );
}
