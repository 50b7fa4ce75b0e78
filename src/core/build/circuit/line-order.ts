import { GROUND, RAW } from '@/core/netlist/netlist';

/** Two windings one above the other may not lie over each other. */
const OVERLAP = 100;
/** Ground last, unless something is won. */
const GROUND_UP = 0.1;

/**
 * The order of the lines between the plus rail and the minus rail or the ground, with as few of them crossed as there
 * can be.
 * @param inner the nets to be ordered, ground aside
 * @param joined which of them, rails and ground included, each part joins
 * @returns the inner nets and ground, from the top
 */
export function lineOrder(
  inner: readonly string[],
  joined: readonly (readonly [string, string])[],
  windings: readonly (readonly [string, string])[],
  rails: number,
): string[] {
  let best: string[] = [];
  let least = Infinity;
  for (const order of permutations([...inner, GROUND])) {
    const whole = [RAW[0], ...order, ...(rails === 2 ? [RAW[1]] : [])] as string[];
    const place = new Map(whole.map((net, n) => [net, n]));
    const span = ([a, b]: readonly [string, string]) => {
      const [x, y] = [place.get(a), place.get(b)];
      return x === undefined || y === undefined ? null : ([Math.min(x, y), Math.max(x, y)] as const);
    };
    let cost = rails === 1 ? GROUND_UP * (order.length - 1 - order.indexOf(GROUND)) : 0;
    for (const pair of joined) {
      const s = span(pair);
      if (s) cost += s[1] - s[0] - 1;
    }
    const coils = windings.map(span);
    coils.forEach((a, n) => {
      if (!a) return;
      cost += 0.3 * (a[1] - a[0] - 1);
      for (const b of coils.slice(n + 1)) if (b && a[0] < b[1] && b[0] < a[1]) cost += OVERLAP;
    });
    if (cost < least - 1e-9) [least, best] = [cost, order];
  }
  return best;
}

function permutations<T>(list: readonly T[]): T[][] {
  if (list.length < 2) return [[...list]];
  return list.flatMap((x, n) => permutations([...list.slice(0, n), ...list.slice(n + 1)]).map((rest) => [x, ...rest]));
}
