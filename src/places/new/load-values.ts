import { fieldLimit, type FieldPath } from '@/core/design/limits';
import { parseLoad } from '@/core/quantity/load';
import { parseQuantity, type Unit } from '@/core/quantity/parse';
import type { Feed } from '@/core/size/feeds';

/** The load as typed: texts, so that nothing a person wrote is lost to a fault. */
export interface LoadForm {
  name: string;
  outputV: string;
  outputA: string;
  tolerancePct: string;
  rippleVpp: string;
  kind: 'current' | 'resistance' | 'power';
  mains: string;
  feed: Feed;
  /** Volts of a source in hand, and its amperes or ampere-hours; not read for the mains. */
  feedV: string;
  feedAmount: string;
}

/** The value of a field that passed the schema. */
export function valueOf(text: string, path: FieldPath): number {
  const parsed = parseQuantity(text, fieldLimit(path).unit);
  if (!parsed.ok) throw new RangeError(parsed.error);
  return parsed.value;
}

/** The current a load that passed the schema draws, A. */
export function loadOf({ outputA, outputV }: LoadForm): number {
  const parsed = parseLoad(outputA, valueOf(outputV, 'demand.outputV'));
  if (!parsed.ok) throw new RangeError(parsed.error);
  return parsed.value;
}

/** A number as typed, or 1 where it is not asked for. */
export function numberOf(text: string, unit: Unit): number {
  const parsed = parseQuantity(text, unit);
  return parsed.ok ? parsed.value : 1;
}
