import { formatQuantity } from '@/core/quantity/format';
import type { Unit } from '@/core/quantity/parse';

/** How a number came about. */
export type Origin = 'simulated' | 'formula' | 'data sheet' | 'typical' | 'measured' | 'rule of thumb' | 'chosen';

export interface FigureInput {
  label: string;
  value: number;
  unit: Unit;
  origin?: Origin;
}

/** A number with its working: never naked. The interface draws 'how was this obtained' from it alone. */
export interface Figure {
  id: string;
  label: string;
  value: number;
  unit: Unit;
  /** What is said in place of a value nothing real ever has: 'no sink could'. */
  words?: string;
  origin: Origin;
  /** The circumstances it holds in, in words. */
  condition?: string;
  /** The expression in words and symbols, without values. */
  expression: string;
  inputs: FigureInput[];
  source: string;
  assumes: string[];
  /** What builders estimate for the same thing. */
  estimate?: { label: string; value: number; expression: string };
}

/** The value as it is printed: its words where a number would only be absurd. */
export function figureText({ value, unit, words }: Pick<Figure, 'value' | 'unit' | 'words'>): string {
  return words ?? formatQuantity(value, unit);
}

/** An input as it is printed: what is counted, with every digit. */
export function inputText({ value, unit }: FigureInput): string {
  return unit === '' && Number.isInteger(value) ? value.toLocaleString('en') : formatQuantity(value, unit);
}
