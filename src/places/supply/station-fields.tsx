'use client';

import { ofDiodeClass } from '@/core/design/diode-edit';

import type { ReactNode } from 'react';
import { arrangementFacts, arrangementOf } from '@/core/design/source';
import { MAINS_PRESETS } from '@/core/design/defaults';
import { withWindingVolts } from '@/core/design/winding-edit';
import { isSplit, windingCount } from '@/core/design/words';
import type { StationId } from '@/core/judge/verdict';
import { typicalEsr, typicalRippleRating } from '@/core/parts/capacitor';
import { DIODE_CLASSES } from '@/core/parts/diode';
import { regulatorModel } from '@/core/parts/regulators';
import { STANDARD_SECONDARY_V, STANDARD_VA, typicalRegulation } from '@/core/parts/transformer';
import { formatNominal } from '@/core/quantity/format';
import { CAPACITOR_VOLTS, E12, E6 } from '@/core/quantity/preferred';
import { ChoiceField } from '@/ui/choice-field';
import { QuantityField } from '@/ui/quantity-field';
import { useDesign, useEdit } from '@/ui/session';
import { Kept } from '@/ui/kept';
import { AllowedField, LoadField, RangeField } from '@/ui/demand-fields';
import { ArrangementChoice } from './arrangement-choice';
import { FilterChoice, FilterFields } from './filter-fields';
import { LoadLine } from './load-line';
import { MostItGives } from './most-it-gives';
import { Schools } from './schools';
import { DiodeInHand } from './diode-in-hand';
import { HeaterFields } from './heater-fields';
import { ReverseDiodeFields } from './reverse-diode';
import { DcSourceFields, SourceChoice } from './source-fields';
import { by, inDecades, inList } from '@/ui/stepping';
import { RegulatorFields } from './regulator-fields';

/** The fields of the station in focus. Every one can be typed over as builders write, or stepped with the arrow keys. */
export function StationFields({ station }: { station: StationId }): ReactNode {
  const design = useDesign();
  const edit = useEdit();
  const { source, mains, transformer, rectifier, reservoir, regulator, demand } = design;
  const made = regulatorModel(regulator);
  const settable = made !== null && made.lowestV < made.outputV - 0.01;

  switch (station) {
    case 'mains': {
      const preset = MAINS_PRESETS.find((p) =>
        (['voltageRms', 'frequencyHz', 'lowPct', 'highPct'] as const).every((k) => p.mains[k] === mains[k]),
      );
      if (source.kind !== 'mains') {
        return (
          <>
            <SourceChoice />
            <DcSourceFields source={source} />
          </>
        );
      }
      return (
        <>
          <SourceChoice />
          <ChoiceField
            label="Net"
            value={preset?.id ?? 'own'}
            options={[
              ...MAINS_PRESETS.map((p) => ({ value: p.id, label: p.name })),
              ...(preset ? [] : [{ value: 'own', label: 'own values' }]),
            ]}
            onChange={(id) => {
              const chosen = MAINS_PRESETS.find((p) => p.id === id);
              if (chosen) edit({ mains: { ...chosen.mains, flatTopPct: mains.flatTopPct } });
            }}
          />
          <QuantityField
            path="mains.voltageRms"
            value={mains.voltageRms}
            step={by(1)}
            onCommit={(v) => edit({ mains: { voltageRms: v! } })}
          />
          <QuantityField
            path="mains.frequencyHz"
            value={mains.frequencyHz}
            step={by(10)}
            onCommit={(v) => edit({ mains: { frequencyHz: v! } })}
          />
          <QuantityField
            path="mains.lowPct"
            label="Low line, below"
            value={mains.lowPct}
            step={by(1)}
            onCommit={(v) => edit({ mains: { lowPct: v! } })}
          />
          <QuantityField
            path="mains.highPct"
            label="High line, above"
            value={mains.highPct}
            step={by(1)}
            onCommit={(v) => edit({ mains: { highPct: v! } })}
          />
          <QuantityField
            path="mains.flatTopPct"
            label="Flat at the top"
            value={mains.flatTopPct}
            step={by(1)}
            onCommit={(v) => edit({ mains: { flatTopPct: v! } })}
          />
        </>
      );
    }
    case 'winding':
      if (source.kind !== 'mains') return <DcSourceFields source={source} />;
      return (
        <>
          <QuantityField
            path="transformer.ratedV"
            label={windingCount(design) === 2 ? 'Each half, rated' : 'Winding, rated'}
            value={transformer.ratedV}
            step={inList(STANDARD_SECONDARY_V)}
            onCommit={(v) => edit(withWindingVolts(design, v!))}
          />
          <QuantityField
            path="transformer.ratedVA"
            label={transformer.source.kind === 'plate' ? 'Size, whole core' : 'Size, rated'}
            value={transformer.ratedVA}
            step={inList(STANDARD_VA)}
            onCommit={(v) => edit({ transformer: { ratedVA: v! } })}
          />
          <QuantityField
            path="transformer.regulationPct"
            value={transformer.regulationPct}
            step={by(1)}
            placeholder={`typ. ${formatNominal(Number((100 * typicalRegulation(transformer.ratedVA)).toPrecision(2)), '%')}`}
            onCommit={(v) => edit({ transformer: { regulationPct: v } })}
          />
          <QuantityField
            path="transformer.hotC"
            value={transformer.hotC}
            step={by(5)}
            onCommit={(v) => edit({ transformer: { hotC: v! } })}
          />
          <QuantityField
            path="transformer.leakageH"
            value={transformer.leakageH}
            step={inDecades(E12)}
            onCommit={(v) => edit({ transformer: { leakageH: v! } })}
          />
          <HeaterFields />
          <Kept role="transformer" />
        </>
      );
    case 'rectifier':
      if (source.kind !== 'mains') return <ReverseDiodeFields source={source} />;
      return (
        <>
          <ArrangementChoice />
          <ChoiceField
            label="Diode class"
            value={rectifier.diode}
            options={DIODE_CLASSES.map((d) => ({ value: d.id, label: d.name }))}
            onChange={(diode) => edit({ rectifier: ofDiodeClass(diode) })}
          />
          <p className="self-end pb-1 text-[13px] leading-snug text-quiet">{arrangementOf(design).words.when}</p>
          <span className="col-span-3 flex items-center gap-2 [&>div]:flex-none">
            <DiodeInHand />
            <Kept role="rectifier" />
          </span>
        </>
      );
    case 'before':
    case 'after':
      return <FilterFields side={station} />;
    case 'reservoir':
      return (
        <>
          <FilterChoice />
          <QuantityField
            path="reservoir.capacitanceF"
            label={arrangementFacts(design).ownCans ? 'Capacitance, each' : undefined}
            value={reservoir.capacitanceF}
            step={inDecades(E6)}
            onCommit={(v) => edit({ reservoir: { capacitanceF: v! } })}
            several={(cans, capacitanceF) => edit({ reservoir: { cans, capacitanceF } })}
          />
          {(reservoir.cans > 1 || reservoir.pair) && (
            <QuantityField
              path="reservoir.cans"
              value={reservoir.cans}
              step={by(1)}
              onCommit={(v) => edit({ reservoir: { cans: Math.round(v!) } })}
            />
          )}
          <QuantityField
            path="reservoir.ratedV"
            value={reservoir.ratedV}
            step={inList(CAPACITOR_VOLTS)}
            onCommit={(v) => edit({ reservoir: { ratedV: v! } })}
          />
          <QuantityField
            path="reservoir.esrOhm"
            value={reservoir.esrOhm}
            step={inDecades(E12)}
            placeholder={`typ. ${formatNominal(Number(typicalEsr(reservoir.capacitanceF, reservoir.ratedV).toPrecision(2)), 'ohm')}`}
            onCommit={(v) => edit({ reservoir: { esrOhm: v } })}
          />
          <QuantityField
            path="reservoir.rippleA"
            value={reservoir.rippleA}
            step={inDecades(E12)}
            placeholder={`typ. ${formatNominal(Number(typicalRippleRating(reservoir.capacitanceF, reservoir.ratedV).toPrecision(2)), 'A')}`}
            onCommit={(v) => edit({ reservoir: { rippleA: v } })}
          />
          <ChoiceField
            label="Grade"
            value={String(reservoir.gradeC)}
            options={[
              { value: '85', label: '85 °C' },
              { value: '105', label: '105 °C' },
            ]}
            onChange={(g) => edit({ reservoir: { gradeC: g === '85' ? 85 : 105 } })}
          />
          <QuantityField
            path="reservoir.tolerancePct"
            label="Tolerance, ±"
            value={reservoir.tolerancePct}
            step={by(5)}
            onCommit={(v) => edit({ reservoir: { tolerancePct: v! } })}
          />
          <QuantityField
            path="reservoir.agedPct"
            value={reservoir.agedPct}
            step={by(5)}
            onCommit={(v) => edit({ reservoir: { agedPct: v! } })}
          />
          <QuantityField
            path="filter.bleederOhm"
            label="Bleeder across it"
            value={design.filter.bleederOhm}
            step={inDecades(E12)}
            placeholder="none"
            onCommit={(v) => edit({ filter: { bleederOhm: v } })}
          />
          <div className="col-span-3 flex items-center gap-2 [&>div]:flex-none">
            <Schools />
            <Kept role="reservoir" />
          </div>
        </>
      );
    case 'regulator':
      return <RegulatorFields />;
    case 'load':
      return (
        <>
          <QuantityField
            path="demand.outputV"
            label="Wanted output"
            value={demand.outputV}
            step={by(1)}
            onCommit={(v) => edit({ demand: { outputV: v! } })}
          />
          <LoadField
            path="demand.outputA"
            label={isSplit(design) ? 'Load, positive rail' : 'Load current'}
            volts={demand.outputV}
            value={demand.outputA}
            onCommit={(v) => edit({ demand: { outputA: v! } })}
          />
          {isSplit(design) && (
            <LoadField
              path="demand.negativeA"
              volts={demand.outputV}
              value={demand.negativeA}
              placeholder="the same"
              onCommit={(v) => edit({ demand: { negativeA: v } })}
            />
          )}
          <AllowedField demand={demand} onCommit={(part) => edit({ demand: part })} />
          {settable && <RangeField range={demand.range} onCommit={(range) => edit({ demand: { range } })} />}
          <QuantityField
            path="demand.rippleVpp"
            label="Ripple allowed, p-p"
            value={demand.rippleVpp}
            step={inDecades(E12)}
            onCommit={(v) => edit({ demand: { rippleVpp: v! } })}
          />
          <LoadLine />
          {regulator.kind === 'none' && (
            <ChoiceField
              label="Behaves as"
              value={demand.kind}
              options={[
                { value: 'current', label: 'Constant current' },
                { value: 'resistance', label: 'Resistance' },
                { value: 'power', label: 'Constant power' },
              ]}
              onChange={(kind) => edit({ demand: { kind } })}
            />
          )}
          <MostItGives />
        </>
      );
  }
}
