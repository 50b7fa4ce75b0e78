import type { PointId, TestPoint } from '@/core/bench/test-point';
import { formatQuantity as q } from '@/core/quantity/format';

/** One thing to look at when a supply fails: where, what it should read, and what it means when it does not. */
export interface Try {
  label: string;
  should: string;
  low: string;
  high: string;
}

/** In the order of the circuit: the first that is outside its window tells where the fault is. */
const CHAIN: readonly PointId[] = ['secondary-open', 'mains', 'reservoir-idle', 'output-idle', 'reservoir-ripple'];

/** What to try first when it fails, from the windows of its own test points. The mains itself is read of a DC source alone. */
export function tryFirst(points: readonly TestPoint[]): Try[] {
  const has = new Map(points.map((p) => [p.id, p]));
  return CHAIN.filter((id) => id !== 'mains' || !has.has('secondary-open')).flatMap((id) => {
    const p = has.get(id);
    return p
      ? [{ label: p.label, should: `${q(p.low, p.unit)} to ${q(p.high, p.unit)}`, low: p.ifLow, high: p.ifHigh }]
      : [];
  });
}
