'use client';

import { mainModel } from '@/core/design/outputs';
import { isSplit } from '@/core/design/words';
import { useCallback, useState } from 'react';
import { wordsOf, type ConditionId } from '@/core/circuit/condition';
import type { Design, Heat } from '@/core/design/design';
import { INTERFACES, STANDARD_SINKS_K_PER_W } from '@/core/parts/heatsink';
import { capitalised, formatQuantity } from '@/core/quantity/format';
import { E12, stepInList } from '@/core/quantity/preferred';
import { hasDiodes } from '@/core/design/source';
import { Kept } from '@/ui/kept';
import { inDecades } from '@/ui/stepping';
import { insulationAdvice } from '@/core/study/heat';
import { heatCorners, touchWords } from '@/core/study/heat-corners';
import { ChoiceField } from '@/ui/choice-field';
import { QuantityField } from '@/ui/quantity-field';
import { useDesign, useEdit } from '@/ui/session';
import type { RemoteSolver } from '@/workers/client';
import { BoardCopper, OutputSinks, Plate, Together } from './cooling-fields';
import { Cooler } from './cooler';
import { HeatWays } from './heat-ways';
import { useSolved } from '@/ui/use-solved';
import { heatFigures } from '@/core/picture/heat-figures';
import { FigureRow } from '@/ui/figure-row';
import { Room } from '@/ui/room';

const TIMES: readonly { value: string; label: string; minutes: number | null }[] = [
  { value: '2', label: 'after 2 minutes', minutes: 2 },
  { value: '10', label: 'after 10 minutes', minutes: 10 },
  { value: '30', label: 'after half an hour', minutes: 30 },
  { value: '60', label: 'after an hour', minutes: 60 },
  { value: 'end', label: 'in the end', minutes: null },
];

/** Heat: what gets hot, where, and is that all right? */
export function HeatPlace() {
  const design = useDesign();
  const edit = useEdit();
  const model = mainModel(design);
  const [corner, setCorner] = useState<ConditionId>('high');
  const [time, setTime] = useState('end');
  const minutes = TIMES.find((t) => t.value === time)!.minutes;
  const corners = heatCorners(design);
  const shown = corners.some((c) => c.id === corner) ? corner : 'high';
  const set = (part: Partial<Heat>) => edit({ heat: part });
  const { heat } = design;

  const ask = useCallback((solver: RemoteSolver, of: Design) => solver.heat(of, shown, minutes), [shown, minutes]);
  const { value: view, trouble } = useSolved(ask);

  const insulation = insulationAdvice(design);
  const over = view?.rows.filter((r) => r.steps[r.steps.length - 1]!.tempC > r.limitC) ?? [];
  const regulator = view?.rows.find((r) => r.id === 'main');
  const touched = regulator && regulator.touch !== null ? regulator.steps[regulator.touch] : undefined;
  return (
    <Room name="Heat">
      <div className="grid max-w-[1320px] grid-cols-[minmax(0,1fr)] gap-6 min-[900px]:grid-cols-[minmax(0,1fr)_330px]">
        <section aria-label="Where the heat goes">
          <div className="flex flex-wrap items-center gap-2">
            <select
              className="field !w-auto"
              aria-label="Circumstances"
              value={shown}
              onChange={(e) => setCorner(e.target.value as ConditionId)}
            >
              {corners.map((c) => (
                <option key={c.id} value={c.id}>
                  {capitalised(wordsOf(design, c))}
                </option>
              ))}
            </select>
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
          {view && <FigureRow label="Hottest spots" figures={heatFigures(view)} />}
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
                {heat.fan !== 'none' && (
                  <QuantityField
                    path="heat.fanA"
                    value={heat.fanA}
                    placeholder="fed elsewhere"
                    step={inDecades(E12)}
                    onCommit={(v) => set({ fanA: v })}
                  />
                )}
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
            {hasDiodes(design) && !heat.sharedWithRectifier && (
              <QuantityField
                path="heat.rectifierSinkKPerW"
                value={heat.rectifierSinkKPerW}
                placeholder="free air"
                step={(v, d) => stepInList(v, [...STANDARD_SINKS_K_PER_W].reverse(), d)}
                onCommit={(v) => set({ rectifierSinkKPerW: v })}
              />
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
              <Kept role="sink" label="This sink is fixed" />
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
          {!heat.oneSink && <OutputSinks />}
          {!model && design.outputs.length === 0 && (
            <p className="text-[14px] text-quiet">
              Without a regulator there is little to cool: transformer, rectifier and reservoir.
            </p>
          )}
          <Together />
        </aside>
      </div>
    </Room>
  );
}
