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
  /** How it was found. */
  source: string;
  origin: Figure['origin'];
}

/** The hardest a figure gets while parts warm: the circumstances the verdicts judge heat and ratings in. */
export function hardestOf(study: Study) {
  return (of: (point: OperatingPoint) => number, everything = false): Hardest => {
    const source = everything ? EVERYWHERE : LASTS;
    let hardest: Hardest | null = null;
    for (const c of study.conditions) {
      if (!everything && !LASTING(c)) continue;
      const value = of(study.at(c));
      if (!hardest || value > hardest.value)
        hardest = { value, condition: wordsOf(study.design, c), source, origin: 'simulated' };
    }
    return hardest ?? { value: 0, condition: '', source, origin: 'simulated' };
  };
}

const LASTS = 'Simulated: the hardest of every corner of mains, load and hand that lasts.';
const EVERYWHERE = 'Simulated: the hardest of every corner of mains, load and hand, the short ones too.';

/** What stands without load at high line, where volts stand highest. */
export const unloaded = ({ design }: Study, value: number): Hardest => ({
  value,
  condition: wordsOf(design, 'idle'),
  source: 'Simulated without load, where volts stand highest.',
  origin: 'simulated',
});

/** The first pulse into empty cans. */
export const started = ({ design, surge }: Study): Hardest => ({
  value: surge.peakA,
  condition: wordsOf(design, 'surge'),
  source: 'Simulated: the first cycle into empty cans, the hardest-hit diode.',
  origin: 'simulated',
});

/** What somebody chose, and who. */
export const chosen = (value: number, source: string): Hardest => ({ value, condition: '', source, origin: 'chosen' });

/**
 * What a part has to bear, as one figure of the bill with its working.
 * @param after words that belong to the number: 'RMS'
 */
export function need(
  label: string,
  { value, condition, source, origin }: Hardest,
  unit: Unit,
  expression: string,
  { after, inputs = [], assumes = [] }: { after?: string; inputs?: FigureInput[]; assumes?: string[] } = {},
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
    inputs: [{ label: 'loss', value: loss.value, unit: 'W', origin: loss.origin }, ...inputs],
    assumes: ['Twice its loss is a habit that keeps a resistor cool enough to touch, not a law.'],
  });
