import type { RegulatorModel } from '@/core/parts/regulators/model';
import type { Unit } from '@/core/quantity/parse';
import type { FigureInput } from '@/core/study/figure';

/** An input of a working. */
export const of = (label: string, value: number, unit: Unit, origin?: FigureInput['origin']): FigureInput => ({
  label,
  value,
  unit,
  ...(origin ? { origin } : {}),
});

export const simulated = (label: string, value: number, unit: Unit) => of(label, value, unit, 'simulated');
export const typical = (label: string, value: number, unit: Unit) => of(label, value, unit, 'typical');
/** What the class says, or the person's own data sheet where it speaks. */
export const classed = (model: RegulatorModel, key: string, label: string, value: number, unit: Unit) =>
  of(label, value, unit, model.theirs?.includes(key) ? 'data sheet' : 'typical');
export const chosen = (label: string, value: number, unit: Unit) => of(label, value, unit, 'chosen');
export const computed = (label: string, value: number, unit: Unit) => of(label, value, unit, 'formula');

export const STEADY = 'Periodic steady state of source, diodes, reservoir and load, solved directly.';
