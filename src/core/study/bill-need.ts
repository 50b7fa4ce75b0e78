import { wordsOf } from '@/core/circuit/condition';
import { formatQuantity } from '@/core/quantity/format';
import type { Unit } from '@/core/quantity/parse';
import type { Figure, FigureInput } from './figure';
import { LASTING } from './occasion';
import type { OperatingPoint } from './point';
import type { Study } from './study';

/** The hardest a figure gets, SI, and the circumstances it gets there in. */
export interface Hardest {
  value: number;
  condition: string;
}

/** The hardest a figure gets while parts warm: the circumstances the verdicts judge heat and ratings in. */
export function hardestOf(study: Study) {
  return (of: (point: OperatingPoint) => number, everything = false): Hardest => {
    let hardest: Hardest | null = null;
    for (const c of study.conditions) {
      if (!everything && !LASTING(c)) continue;
      const value = of(study.at(c));
      if (!hardest || value > hardest.value) hardest = { value, condition: wordsOf(study.design, c) };
    }
    return hardest ?? { value: 0, condition: '' };
  };
}

const SIMULATED = 'Simulated: the hardest of every corner of mains, load and hand that lasts.';

/**
 * What a part has to bear, as one figure of the bill with its working.
 * @param after words that belong to the number: 'RMS'
 */
export function need(
  label: string,
  { value, condition }: Hardest,
  unit: Unit,
  expression: string,
  {
    after,
    inputs = [],
    source = SIMULATED,
    origin = 'simulated',
    assumes = [],
  }: { after?: string; inputs?: FigureInput[]; source?: string; origin?: Figure['origin']; assumes?: string[] } = {},
): Figure {
  return {
    id: label,
    label,
    value,
    unit,
    ...(after ? { words: `${formatQuantity(value, unit)} ${after}` } : {}),
    origin,
    condition,
    expression,
    inputs,
    source,
    assumes,
  };
}

/** Watts a resistor is to be bought for: twice what it turns into heat, the habit that keeps it cool. */
export const twiceItsLoss = (loss: Hardest, expression: string, inputs: FigureInput[]): Figure =>
  need('To be bought for', { ...loss, value: 2 * loss.value }, 'W', `2 × loss; loss = ${expression}`, {
    after: '(twice its loss)',
    inputs: [{ label: 'loss', value: loss.value, unit: 'W', origin: 'simulated' }, ...inputs],
    assumes: ['Twice its loss is a habit that keeps a resistor cool enough to touch, not a law.'],
  });
