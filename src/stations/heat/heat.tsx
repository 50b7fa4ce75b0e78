'use client';

import { isSplit } from '@/core/design/words';
import { termsOf, type Terms } from '@/core/design/source';
import { useCallback, useEffect, useState } from 'react';
import { wordsOf } from '@/core/circuit/condition';
import type { Design, Heat } from '@/core/design/design';
import { INTERFACES, STANDARD_SINKS_K_PER_W } from '@/core/parts/heatsink';
import { regulatorModel } from '@/core/parts/regulators';
import type { LowDropoutRegulator } from '@/core/parts/regulators/low-dropout';
import { capitalised, formatNominal, formatQuantity } from '@/core/quantity/format';
import { parseQuantity } from '@/core/quantity/parse';
import { stepInList } from '@/core/quantity/preferred';
import { insulationAdvice } from '@/core/study/heat';
import { HEAT_CORNERS, touchWords, type CoolerWay, type HeatCorner } from '@/core/study/heat-report';
import { ChoiceField } from '@/ui/choice-field';
import { QuantityField } from '@/ui/quantity-field';
import { Segments } from '@/ui/segments';
import { useDesign, useEdit } from '@/ui/session';
import { solver } from '@/workers/client';
import { HeatWays } from './heat-ways';
import { useSolved } from '@/ui/use-solved';

const cornerNames = ({ low, nominal, high }: Terms): Record<HeatCorner, string> => ({
  low: capitalised(low),
  nominal: nominal === 'nominal line' ? 'Nominal' : capitalised(nominal),
  high: `${capitalised(high)}, lasting`,
  lowest: 'Lowest output',
  shorted: 'Shorted',
});
const TIMES: readonly { value: string; label: string; minutes: number | null }[] = [
  { value: '2', label: 'after 2 minutes', minutes: 2 },
  { value: '10', label: 'after 10 minutes', minutes: 10 },
  { value: '30', label: 'after half an hour', minutes: 30 },
  { value: '60', label: 'after an hour', minutes: 60 },
  { value: 'end', label: 'in the end', minutes: null },
];

/** Heat: what gets hot, where, and is that all right? */
export function HeatStation() {
  const design = useDesign();
  const edit = useEdit();
  const model = regulatorModel(design.regulator);
  const [corner, setCorner] = useState<HeatCorner>('high');
  const [time, setTime] = useState('end');
  const minutes = TIMES.find((t) => t.value === time)!.minutes;
  const adjustable = model !== null && model.lowestV < model.outputV - 0.01;
  const corners = HEAT_CORNERS.filter((c) => (c === 'lowest' ? adjustable : c === 'shorted' ? model !== null : true));
  const shown = corners.includes(corner) ? corner : 'high';
  const set = (part: Partial<Heat>) => edit({ heat: part });
  const { heat } = design;

  const ask = useCallback((of: Design) => solver('edit').heat(of, shown, minutes), [shown, minutes]);
  const { value: view, trouble } = useSolved(ask);

  const insulation = insulationAdvice(design);
  const names = cornerNames(termsOf(design));
  const over = view?.rows.filter((r) => r.steps[r.steps.length - 1]!.tempC > r.limitC) ?? [];
  const regulator = view?.rows.find((r) => r.id === 'regulator');
  const touched = regulator && regulator.touch !== null ? regulator.steps[regulator.touch] : undefined;
  return (
    <main className="min-h-0 flex-1 overflow-auto px-4 py-3">
      <div className="grid max-w-[1320px] grid-cols-[minmax(0,1fr)_330px] gap-6">
        <section aria-label="Where the heat goes">
          <div className="flex flex-wrap items-center gap-2">
            <Segments
              label="Corner"
              value={shown}
              options={corners.map((c) => ({ value: c, label: names[c], title: wordsOf(design, c) }))}
              onChange={(c: HeatCorner) => setCorner(c)}
            />
            <label className="flex items-center gap-1.5 text-[14px]">
              <span className="sr-only">Time</span>
              <select
                className="field !w-auto"
                value={time}
                onChange={(e) => setTime(e.target.value)}
                aria-label="Time"
              >
                {TIMES.map((t) => (
                  <option key={t.value} value={t.value}>
                    {t.label}
                  </option>
                ))}
              </select>
            </label>
          </div>
          {trouble && (
            <p role="alert" className="mt-2 text-fail">
              {trouble} What is shown is from the last values that could be solved.
            </p>
          )}
          <h2 className="mt-2 text-[20px] font-semibold" data-testid="heat-headline">
            {!view
              ? 'Solving…'
              : !view.settled
                ? 'It does not come to rest: what gets warmer makes more heat than it gets rid of'
                : over.length > 0
                  ? `${over.map((r) => r.name).join(' and ')} beyond ${over.length > 1 ? 'their limits' : 'its limit'}`
                  : `${formatQuantity(view.losses.totalW, 'W')} to get rid of, nothing beyond its limit`}
          </h2>
          {view && <HeatWays view={view} />}
          {view && (
            <p className="mt-1 text-[14px] text-quiet">
              {touched && (
                <>
                  The {touched.name} at {formatQuantity(touched.tempC, '°C')}:{' '}
                  <strong className={touched.tempC > 60 ? 'text-fail' : 'font-semibold'}>
                    {touchWords(touched.tempC)}
                  </strong>
                  {touched.tempC > 60 ? '; touch it with a thermometer only. ' : '. '}
                </>
              )}
              {view.rows.map((r) => `${r.name}: ${r.note}.`).join(' ')} Chains of typical resistances, ±30 %; the watts
              are simulated.
            </p>
          )}
          {model && <Cooler />}
        </section>
        <aside aria-label="Cooling" className="space-y-3">
          <h2 className="text-[18px] font-semibold">How it is cooled</h2>
          <div className="grid grid-cols-2 gap-x-3 gap-y-2">
            <QuantityField
              path="heat.ambientC"
              label={heat.box === 'open' ? 'Air at the sink' : 'Room'}
              value={heat.ambientC}
              step={(v, d) => v + 5 * d}
              onCommit={(v) => set({ ambientC: v! })}
            />
            <ChoiceField
              label="Around it"
              value={heat.box}
              options={[
                { value: 'open', label: 'open frame' },
                { value: 'closed', label: 'closed box' },
                { value: 'vented', label: 'box with vents' },
              ]}
              onChange={(box) => set({ box })}
            />
            {heat.box !== 'open' && (
              <>
                <QuantityField
                  path="heat.boxCm2"
                  value={heat.boxCm2}
                  step={(v, d) => Math.round(v * 1.1 ** d)}
                  onCommit={(v) => set({ boxCm2: v! })}
                />
                <ChoiceField
                  label="Made of"
                  value={design.mainsSide.box}
                  options={[
                    { value: 'metal', label: 'painted metal' },
                    { value: 'plastic', label: 'plastic' },
                  ]}
                  onChange={(box) => edit({ mainsSide: { box } })}
                />
              </>
            )}
            {model?.pass.takesSink && (
              <>
                <QuantityField
                  path="heat.sinkKPerW"
                  value={heat.sinkKPerW}
                  placeholder="no sink"
                  step={(v, d) => stepInList(v, [...STANDARD_SINKS_K_PER_W].reverse(), d)}
                  onCommit={(v) => set({ sinkKPerW: v })}
                />
                <ChoiceField
                  label="Metal to sink"
                  value={heat.interface}
                  options={INTERFACES.map((i) => ({ value: i.id, label: i.name }))}
                  onChange={(id) => set({ interface: id })}
                />
                <ChoiceField
                  label="Fan over it"
                  value={heat.fan}
                  options={[
                    { value: 'none', label: 'none' },
                    { value: 'fixed', label: 'always on' },
                    { value: 'switched', label: 'by temperature' },
                  ]}
                  onChange={(fan) => set({ fan })}
                />
                {heat.fan === 'switched' && (
                  <QuantityField
                    path="heat.fanOnC"
                    value={heat.fanOnC}
                    step={(v, d) => v + 5 * d}
                    onCommit={(v) => set({ fanOnC: v! })}
                  />
                )}
              </>
            )}
          </div>
          {model?.pass.takesSink && (
            <div className="space-y-1 text-[14px]">
              {heat.box !== 'open' && (
                <label className="flex items-center gap-2">
                  <input
                    type="checkbox"
                    className="accent-volt"
                    checked={heat.sinkOutside}
                    onChange={(e) => set({ sinkOutside: e.target.checked })}
                  />
                  Its fins stand outside the box
                </label>
              )}
              <label className="flex items-center gap-2">
                <input
                  type="checkbox"
                  className="accent-volt"
                  checked={heat.sharedWithRectifier}
                  onChange={(e) => set({ sharedWithRectifier: e.target.checked })}
                />
                The rectifier is on the same sink
              </label>
              {(isSplit(design) || design.outputs.length > 0) && (
                <label className="flex items-center gap-2">
                  <input
                    type="checkbox"
                    className="accent-volt"
                    checked={heat.oneSink}
                    onChange={(e) => set({ oneSink: e.target.checked })}
                  />
                  All regulators are on this one sink
                </label>
              )}
              {insulation && <p className="rounded bg-fail-soft px-2 py-1">{insulation}</p>}
              <Plate />
            </div>
          )}
          {design.regulator.kind === 'low-dropout' && model && !model.pass.takesSink && (
            <BoardCopper regulator={design.regulator} />
          )}
          {model && !model.pass.takesSink && (
            <p className="text-[14px] text-quiet">
              {model.pass.package} takes no sink: copper on the board or free air is all it has.
            </p>
          )}
          {!model && (
            <p className="text-[14px] text-quiet">
              Without a regulator there is little to cool: transformer, rectifier and reservoir.
            </p>
          )}
          <Together />
        </aside>
      </div>
    </main>
  );
}

/** Whether the circuit is solved at chosen temperatures, or at those its copper and diodes come to. */
function Together() {
  const { heat, transformer, source } = useDesign();
  const edit = useEdit();
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
function Plate() {
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

/** At which current it limits itself, and what would make it cooler: simulated on this design. */
function Cooler() {
  const design = useDesign();
  const edit = useEdit();
  const [found, setFound] = useState<{
    limit: { amps: number | null; limitC: number } | null;
    ways: CoolerWay[];
  } | null>(null);
  useEffect(() => {
    let current = true;
    const wait = setTimeout(() => {
      void solver('search')
        .cooler(design)
        .then((answer) => current && setFound(answer.ok ? answer.value : null));
    }, 250);
    return () => {
      current = false;
      clearTimeout(wait);
    };
  }, [design]);
  if (!found?.limit) return null;
  const { amps, limitC } = found.limit;
  const model = regulatorModel(design.regulator);
  const lowestV = model && model.lowestV < model.outputV - 0.01 ? model.lowestV : null;
  return (
    <div className="mt-3">
      <p className="text-[15px]">
        {amps === null
          ? `Even five times the load keeps its junction under ${formatNominal(limitC, '°C')}.`
          : amps === 0
            ? `Its junction passes ${formatNominal(limitC, '°C')} at any load.`
            : `At ${formatQuantity(amps, 'A')} for long${lowestV === null ? '' : `, set to ${formatNominal(lowestV, 'V')},`} its junction reaches ${formatNominal(limitC, '°C')}.`}
      </p>
      <table className="mt-1 w-full max-w-[780px] text-[14px]">
        <thead className="text-left text-[13px] text-quiet">
          <tr>
            <th className="font-normal">What would make it cooler, simulated</th>
            <th className="text-right font-normal">junction</th>
            <th className="text-right font-normal">metal</th>
            <th className="text-right font-normal">headroom at {termsOf(design).low}</th>
            <th className="text-right font-normal">limits itself at</th>
            <td />
          </tr>
        </thead>
        <tbody>
          {found.ways.map((w, n) => (
            <tr key={w.label} className="border-t border-rule/60">
              <td>{w.label}</td>
              <td className="text-right font-semibold">{formatQuantity(w.junctionC, '°C')}</td>
              <td className="text-right">{formatQuantity(w.sinkC, '°C')}</td>
              <td className={`text-right ${w.headroomV < 0 ? 'font-semibold text-fail' : ''}`}>
                {formatQuantity(w.headroomV, 'V')}
              </td>
              <td className="text-right">
                {w.limitA === null ? 'no load asked of it' : formatQuantity(w.limitA, 'A')}
              </td>
              <td className="text-right">
                {n > 0 && (
                  <button
                    type="button"
                    className="btn !min-h-[26px]"
                    aria-label={`Take ${w.label}`}
                    onClick={() => edit(w.patch)}
                  >
                    Take
                  </button>
                )}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}

/** Copper under a small part that has no sink. */
function BoardCopper({ regulator }: { regulator: LowDropoutRegulator }) {
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
