'use client';

import { useState } from 'react';
import { modelOf, plateOf } from '@/core/circuit/feed';
import { windingCount } from '@/core/design/words';
import { givesDirectCurrent } from '@/core/parts/identify';
import { copperRatio } from '@/core/parts/transformer';
import { READ_AT_C, type TransformerSource } from '@/core/parts/transformer-source';
import { compareWithPlate, SOURCE_TRUST, sourceSpread } from '@/core/parts/transformer-trust';
import { LAMINATIONS, plannedWinding, WINDOW_FILL_MAX, woundModel } from '@/core/parts/winding';
import { transformerFigures } from '@/core/picture/figures/transformer';
import { formatNominal, formatQuantity } from '@/core/quantity/format';
import { parseQuantity } from '@/core/quantity/parse';
import { ChoiceField } from '@/ui/choice-field';
import { FigureList } from '@/ui/figure-list';
import { QuantityField } from '@/ui/quantity-field';
import { useDesign, useEdit } from '@/ui/session';
import { Combine } from './combine';
import { Identify } from './identify';
import { OwnWinding } from './own-winding';

const WAYS: readonly { value: TransformerSource['kind']; label: string }[] = [
  { value: 'plate', label: 'its nameplate' },
  { value: 'ohms', label: 'two ohm readings and open volts' },
  { value: 'test', label: 'a load test; an adapter with AC output' },
  { value: 'fitted', label: 'a fit to readings of the supply' },
  { value: 'wound', label: 'being wound by hand' },
];

const percent = (value: number, digits: number) => `${value < 0 ? '−' : '+'}${Math.abs(value).toFixed(digits)} %`;

const pullsDown = (loadedV: number, openV: number) =>
  `A load pulls a winding down: ${formatQuantity(loadedV, 'V')} loaded cannot be above ${formatQuantity(openV, 'V')} open. Were the two swapped?`;

/** Ways apart by more than this deserve a sentence, per cent. */
const DISAGREE = { volts: 4, ohm: 25 } as const;

/** Transformer: many ways in, one model out, and how the ways disagree. */
export function TransformerWays() {
  const design = useDesign();
  const edit = useEdit();
  const { transformer, mains } = design;
  const { source } = transformer;
  const model = modelOf(design);
  const compared = compareWithPlate(plateOf(design), source, mains.voltageRms, mains.frequencyHz);
  const set = (next: TransformerSource) => edit({ transformer: { source: next } });
  const half = windingCount(design) === 2 ? ', each half' : '';

  function choose(kind: TransformerSource['kind']) {
    if (kind === source.kind) return;
    const openV = Number(model.openCircuitV.toPrecision(3));
    switch (kind) {
      case 'plate':
        return set({ kind });
      case 'ohms':
        return set({
          kind,
          openV,
          mainsV: mains.voltageRms,
          secondaryOhm: Number(model.ownColdOhm.toPrecision(2)),
          primaryOhm: Number((model.sharedColdOhm * (mains.voltageRms / openV) ** 2).toPrecision(2)),
        });
      case 'test':
        return set({
          kind,
          openV,
          loadedV: Number((openV - model.ratedA * (model.ownColdOhm + model.sharedColdOhm)).toPrecision(3)),
          loadA: Number(model.ratedA.toPrecision(2)),
          mainsV: mains.voltageRms,
        });
      case 'fitted':
        return set({
          kind,
          openV,
          mainsV: mains.voltageRms,
          ownOhm: Number((model.ownColdOhm * copperRatio(READ_AT_C)).toPrecision(3)),
          sharedOhm: Number((model.sharedColdOhm * copperRatio(READ_AT_C)).toPrecision(3)),
          ...sourceSpread(source),
        });
      case 'wound': {
        const halves = windingCount(design);
        const plans = LAMINATIONS.filter((l) => l.core === transformer.core).map((core) =>
          plannedWinding(core, null, openV, model.ratedA, mains.voltageRms, mains.frequencyHz, halves),
        );
        const fits = plans.find(
          (p) => woundModel(p, mains.voltageRms, mains.frequencyHz, halves).fill <= WINDOW_FILL_MAX,
        );
        return set({ kind, plan: fits ?? plans[plans.length - 1]! });
      }
    }
  }

  return (
    <div className="grid max-w-[1240px] grid-cols-[minmax(0,1fr)] gap-6 min-[900px]:grid-cols-[minmax(0,1fr)_minmax(320px,380px)]">
      <div className="space-y-4">
        <div className="grid max-w-[720px] grid-cols-3 gap-3">
          <div className="col-span-2">
            <ChoiceField label="It is known from" value={source.kind} options={WAYS} onChange={choose} />
          </div>
          <ChoiceField
            label="Core"
            value={transformer.core}
            options={[
              { value: 'laminated', label: 'laminated (E-I)' },
              { value: 'toroid', label: 'ring (toroid)' },
            ]}
            onChange={(core: 'laminated' | 'toroid') => edit({ transformer: { core } })}
          />
          <QuantityField
            path="transformer.ratedV"
            label={`Rated volts${half}`}
            value={transformer.ratedV}
            onCommit={(v) => edit({ transformer: { ratedV: v! } })}
          />
          <QuantityField
            path="transformer.ratedVA"
            value={transformer.ratedVA}
            onCommit={(v) => edit({ transformer: { ratedVA: v! } })}
          />
          {source.kind === 'plate' && (
            <QuantityField
              path="transformer.regulationPct"
              value={transformer.regulationPct}
              placeholder={`typ. ${formatNominal(Number((100 * model.regulation).toPrecision(2)), '%')}`}
              onCommit={(v) => edit({ transformer: { regulationPct: v } })}
            />
          )}
          {source.kind === 'ohms' && (
            <>
              <QuantityField
                path="transformer.primaryOhm"
                value={source.primaryOhm}
                onCommit={(v) => set({ ...source, primaryOhm: v! })}
              />
              <QuantityField
                path="transformer.secondaryOhm"
                label={`Secondary, cold${half}`}
                value={source.secondaryOhm}
                onCommit={(v) => set({ ...source, secondaryOhm: v! })}
              />
            </>
          )}
          {(source.kind === 'ohms' || source.kind === 'test') && (
            <>
              <QuantityField
                path="transformer.openV"
                label={`Open volts${half}`}
                value={source.openV}
                check={(v) => (source.kind === 'test' && v <= source.loadedV ? pullsDown(source.loadedV, v) : null)}
                onCommit={(v) => set({ ...source, openV: v! })}
              />
              <QuantityField
                path="mains.voltageRms"
                label="Mains at that moment"
                value={source.mainsV}
                onCommit={(v) => set({ ...source, mainsV: v! })}
              />
            </>
          )}
          {source.kind === 'fitted' && (
            <>
              <QuantityField
                path="transformer.openV"
                label={`Open volts${half}`}
                value={source.openV}
                onCommit={(v) => set({ ...source, openV: v! })}
              />
              <QuantityField
                path="transformer.fittedOhm"
                label={`Own ohms${half}`}
                value={source.ownOhm}
                onCommit={(v) => set({ ...source, ownOhm: v! })}
              />
              <QuantityField
                path="transformer.fittedOhm"
                label="Ohms all windings share"
                value={source.sharedOhm}
                onCommit={(v) => set({ ...source, sharedOhm: v! })}
              />
            </>
          )}
          {source.kind === 'test' && (
            <>
              <QuantityField
                path="transformer.loadedV"
                label="Volts on the resistor"
                value={source.loadedV}
                check={(v) => (v >= source.openV ? pullsDown(v, source.openV) : null)}
                onCommit={(v) => set({ ...source, loadedV: v! })}
              />
              <QuantityField
                path="transformer.loadA"
                label="Current through it"
                value={source.loadA}
                onCommit={(v) => set({ ...source, loadA: v! })}
              />
            </>
          )}
        </div>
        {source.kind === 'test' && <DirectCurrentCheck openV={source.openV} />}
        {source.kind === 'wound' && <OwnWinding plan={source.plan} onChange={(plan) => set({ kind: 'wound', plan })} />}
        <Combine />
        <Identify />
      </div>
      <aside aria-label="Its model" className="space-y-3">
        <h2 className="text-[18px] font-semibold">The model it makes</h2>
        <p className="text-[14px] text-quiet">
          {SOURCE_TRUST[source.kind].words}. Its ohms may be about {formatQuantity(sourceSpread(source).ohmPct, '%', 2)}{' '}
          off.
        </p>
        <FigureList label="Model figures" figures={transformerFigures(design)} />
        {source.kind !== 'plate' && (
          <div>
            <h3 className="text-[16px] font-semibold">Against its nameplate</h3>
            <table className="mt-1 w-full text-[14px]">
              <thead className="text-left text-[13px] text-quiet">
                <tr>
                  <td />
                  <th className="text-right font-normal">plate</th>
                  <th className="text-right font-normal">this way</th>
                  <th className="text-right font-normal">apart</th>
                </tr>
              </thead>
              <tbody>
                <tr className="border-t border-rule/60">
                  <td>open volts</td>
                  <td className="text-right">{formatQuantity(compared.plate.openV, 'V')}</td>
                  <td className="text-right">{formatQuantity(compared.way.openV, 'V')}</td>
                  <td className="text-right">{percent(compared.way.openOffPct, 1)}</td>
                </tr>
                <tr className="border-t border-rule/60">
                  <td>copper, cold</td>
                  <td className="text-right">{formatQuantity(compared.plate.ohm, 'ohm')}</td>
                  <td className="text-right">{formatQuantity(compared.way.ohm, 'ohm')}</td>
                  <td className="text-right">{percent(compared.way.ohmOffPct, 0)}</td>
                </tr>
              </tbody>
            </table>
            {(Math.abs(compared.way.openOffPct) > DISAGREE.volts ||
              Math.abs(compared.way.ohmOffPct) > DISAGREE.ohm) && (
              <p className="mt-1 text-[14px] text-tight">
                The two disagree. The readings are taken; check that the meter was on AC, that its leads’ own ohms were
                taken off, and that the plate’s regulation is its own and not a typical one.
              </p>
            )}
          </div>
        )}
      </aside>
    </div>
  );
}

/** A DC adapter looks like an AC one. The meter tells. */
function DirectCurrentCheck({ openV }: { openV: number }) {
  const [text, setText] = useState('');
  const read = text.trim() === '' ? null : parseQuantity(text, 'V');
  return (
    <div className="max-w-[720px] text-[14px]">
      <label>
        Is it a wall adapter? Volts on the meter’s DC range:{' '}
        <input
          className="field !w-[110px]"
          value={text}
          placeholder="e.g. 0 V"
          onChange={(e) => setText(e.target.value)}
        />
      </label>
      {read && !read.ok && <p className="text-fail">{read.error}</p>}
      {read?.ok &&
        (givesDirectCurrent(openV, read.value) ? (
          <p role="alert" className="mt-1 text-fail">
            This adapter gives direct current. Behind it a rectifier only costs two diode drops, a doubler gives
            nothing, and a split supply gets one rail instead of two. It is no AC source.
          </p>
        ) : (
          <p className="mt-1 text-volt">No direct current: it is an AC source, without earth.</p>
        ))}
    </div>
  );
}
