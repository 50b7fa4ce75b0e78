'use client';

import { useDesign, useEdit } from '@/ui/session';
import { QuantityField } from '@/ui/quantity-field';

/** The person's own instruments: every window is what these very ones would show. */
export function OwnInstruments() {
  const { bench } = useDesign();
  const edit = useEdit();
  return (
    <section
      aria-label="Your instruments"
      className="mt-3 grid grid-cols-2 gap-x-4 gap-y-3 border-l-[3px] border-rule bg-raised px-4 py-3 min-[640px]:grid-cols-4"
    >
      <QuantityField
        path="bench.meterPct"
        label="Meter, ± of reading"
        value={bench.meterPct}
        onCommit={(v) => edit({ bench: { meterPct: v! } })}
      />
      <QuantityField
        path="bench.meterDigitsV"
        label="Meter, ± last digits"
        value={bench.meterDigitsV}
        onCommit={(v) => edit({ bench: { meterDigitsV: v! } })}
      />
      <QuantityField
        path="bench.inputOhm"
        label="Its input"
        value={bench.inputOhm}
        onCommit={(v) => edit({ bench: { inputOhm: v! } })}
      />
      <QuantityField
        path="bench.burdenV"
        label="Amps range takes"
        value={bench.burdenV}
        onCommit={(v) => edit({ bench: { burdenV: v! } })}
      />
      <label className="text-[13.5px] text-quiet">
        Its AC range reads
        <select
          className="field text-ink"
          value={bench.acTrueRms ? 'rms' : 'mean'}
          onChange={(e) => edit({ bench: { acTrueRms: e.target.value === 'rms' } })}
        >
          <option value="rms">true RMS</option>
          <option value="mean">1.11 × mean</option>
        </select>
      </label>
      <QuantityField
        path="bench.scopeFloorV"
        label="Scope’s floor, p-p"
        value={bench.scopeFloorV}
        onCommit={(v) => edit({ bench: { scopeFloorV: v! } })}
      />
      <label className="text-[13.5px] text-quiet">
        Probe
        <select
          className="field text-ink"
          value={bench.probe}
          onChange={(e) => edit({ bench: { probe: e.target.value === '10' ? 10 : 1 } })}
        >
          <option value={1}>×1</option>
          <option value={10}>×10</option>
        </select>
      </label>
      <QuantityField
        path="bench.thermometerK"
        label="Thermometer, ±"
        value={bench.thermometerK}
        onCommit={(v) => edit({ bench: { thermometerK: v! } })}
      />
      <p className="col-span-full text-[13.5px] leading-snug text-quiet">
        The floor is what the scope shows with the probe’s tip on its own ground, read at the probe; a ×10 probe makes
        ten times of it. It lies on top of a ripple at most, never below it.
      </p>
    </section>
  );
}
