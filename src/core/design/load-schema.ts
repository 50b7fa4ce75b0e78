import * as yup from 'yup';
import { CONSUMER_KINDS } from './kinds';
import { CONSUMERS_MAX, NAME_MAX } from './how-many';
import { field, group, list, oneOf, text } from './schema-pieces';

/** The main output, its twin on the minus rail, and the further ones in their order. */
export type OutputId = 'main' | 'minus' | `out-${number}`;

const count = yup
  .number()
  .strict(true)
  .required('${path} is missing')
  .integer('${path} has to be a whole number')
  .min(0, '${path} cannot be negative')
  .max(10_000, '${path} is more than any supply feeds');

const consumer = group({
  name: text(NAME_MAX),
  count,
  /** How many of them are ever on at the same time; null for all. */
  on: count.nullable().defined('${path} is missing'),
  /** Which output it hangs on. */
  output: yup
    .string<OutputId>()
    .strict(true)
    .required('${path} is missing')
    .matches(/^(main|minus|out-[1-9])$/, '${path} names no output: main, minus, out-1 and so on'),
  kind: oneOf(CONSUMER_KINDS),
  /** Each one's current: always on, usual while it works, and at most, A. */
  standingA: field('load.standingA'),
  typicalA: field('load.typicalA'),
  peakA: field('load.peakA'),
  /** Share of the time it works, per cent. */
  dutyPct: field('load.dutyPct'),
  /** What each draws in the first instant, A; null for what its kind usually does. */
  startA: field('load.startA'),
});

/** What hangs on the supply, line by line. The demand is what was taken over from its sums. */
export const loadSchema = group({
  consumers: list(consumer, CONSUMERS_MAX, `${CONSUMERS_MAX} lines`),
  /** How much of all peaks falls together, per cent. */
  togetherPct: field('load.togetherPct'),
  /** Kept in hand on top of the sums, per cent. */
  reservePct: field('load.reservePct'),
});
