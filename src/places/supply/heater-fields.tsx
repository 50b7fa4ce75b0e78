'use client';

import { QuantityField } from '@/ui/quantity-field';
import { useDesign, useEdit } from '@/ui/session';

const FIRST = { ratedV: 6.3, currentA: 1 };

/** A second winding for heaters, when there is one; else the way to add it. */
export function HeaterFields() {
  const { heater } = useDesign();
  const edit = useEdit();
  if (!heater) {
    return (
      <div className="self-end">
        <button
          type="button"
          className="btn w-full"
          title="A second winding on the same core, for the heaters of valves"
          onClick={() => edit({ heater: FIRST })}
        >
          Add heaters
        </button>
      </div>
    );
  }
  return (
    <>
      <QuantityField
        path="heater.ratedV"
        value={heater.ratedV}
        step={(v, d) => Number((v + 0.1 * d).toPrecision(6))}
        onCommit={(v) => edit({ heater: { ...heater, ratedV: v! } })}
      />
      <QuantityField
        path="heater.currentA"
        value={heater.currentA}
        step={(v, d) => Math.max(0.1, Number((v + 0.1 * d).toPrecision(6)))}
        onCommit={(v) => edit({ heater: { ...heater, currentA: v! } })}
      />
      <div className="self-end">
        <button type="button" className="btn w-full" onClick={() => edit({ heater: null })}>
          Take it out
        </button>
      </div>
    </>
  );
}
