'use client';

import { arrangementFacts } from '@/core/design/source';
import { FILTER_SHAPES, filterShape, withFilterShape, type FilterShape } from '@/core/design/filters';
import type { FilterStep } from '@/core/design/design';
import { CAPACITOR_VOLTS, E12, E6, stepInDecades, stepInList } from '@/core/quantity/preferred';
import { ChoiceField } from '@/ui/choice-field';
import { QuantityField } from '@/ui/quantity-field';
import { useDesign, useEdit } from '@/ui/session';
import { Schools } from './schools';

const inDecades = (series: readonly number[]) => (value: number, direction: number) =>
  Math.abs(direction) >= 10 ? value * 10 ** Math.sign(direction) : stepInDecades(value, series, direction);

/** The usual ways to smooth; a doubler has no choke input. */
export function FilterChoice() {
  const design = useDesign();
  const edit = useEdit();
  const shape = filterShape(design.filter);
  const stacked = arrangementFacts(design).ownCans;
  const offered = FILTER_SHAPES.filter((s) => !stacked || !['choke-input', 'small-first'].includes(s.id));
  return (
    <ChoiceField<FilterShape | 'own'>
      label="Filter"
      value={shape ?? 'own'}
      options={[
        ...offered.map((s) => ({ value: s.id, label: s.name })),
        ...(shape === null || !offered.some((s) => s.id === shape)
          ? [{ value: shape ?? ('own' as const), label: 'Own parts' }]
          : []),
      ]}
      onChange={(id) => id !== 'own' && edit(withFilterShape(design, id))}
    />
  );
}

/** The parts on one side of the reservoir, each with its values. */
export function FilterFields({ side }: { side: 'before' | 'after' }) {
  const design = useDesign();
  const edit = useEdit();
  const list = design.filter[side];
  const change = (n: number, part: FilterStep) =>
    edit({ filter: { [side]: list.map((s, k) => (k === n ? part : s)) } });
  return (
    <>
      <FilterChoice />
      {list.map((part, n) => {
        switch (part.kind) {
          case 'choke':
            return (
              <div key={n} className="contents">
                <QuantityField
                  path="filter.choke.inductanceH"
                  label="Choke"
                  value={part.inductanceH}
                  step={inDecades(E12)}
                  onCommit={(v) => change(n, { ...part, inductanceH: v! })}
                />
                <QuantityField
                  path="filter.choke.resistanceOhm"
                  label="Choke copper"
                  value={part.resistanceOhm}
                  step={inDecades(E12)}
                  onCommit={(v) => change(n, { ...part, resistanceOhm: v! })}
                />
                <QuantityField
                  path="filter.choke.ratedA"
                  label="Choke rated"
                  value={part.ratedA}
                  step={inDecades(E12)}
                  onCommit={(v) => change(n, { ...part, ratedA: v! })}
                />
                <ChoiceField
                  label="Kind of choke"
                  value={part.swinging ? 'swinging' : 'smoothing'}
                  options={[
                    { value: 'smoothing', label: 'Smoothing: keeps its inductance' },
                    { value: 'swinging', label: 'Swinging: loses half by half its current' },
                  ]}
                  onChange={(kind) => change(n, { ...part, swinging: kind === 'swinging' })}
                />
              </div>
            );
          case 'resistor':
            return (
              <QuantityField
                key={n}
                path="filter.resistor.resistanceOhm"
                value={part.resistanceOhm}
                step={inDecades(E12)}
                onCommit={(v) => change(n, { ...part, resistanceOhm: v! })}
              />
            );
          case 'capacitor':
            return (
              <div key={n} className="contents">
                <QuantityField
                  path="filter.capacitor.capacitanceF"
                  label={side === 'before' ? 'First capacitor' : 'Second capacitor'}
                  value={part.capacitanceF}
                  step={inDecades(E6)}
                  onCommit={(v) => change(n, { ...part, capacitanceF: v! })}
                />
                <QuantityField
                  path="filter.capacitor.ratedV"
                  label="Its rated voltage"
                  value={part.ratedV}
                  step={(v, d) => stepInList(v, CAPACITOR_VOLTS, d)}
                  onCommit={(v) => change(n, { ...part, ratedV: v! })}
                />
              </div>
            );
        }
      })}
      <Schools />
    </>
  );
}
