import { solveLinear } from './dense';

/** Where a search for a cycle begins. */
export interface Beginning {
  /** States at the start of the cycle. */
  warm: readonly number[];
  /** Whether they were foretold from several neighbours: then one careful pass mostly closes the cycle. */
  sure: boolean;
}

/** Most solved points that are kept: what is asked next lies mostly among the last. */
const MOST_KEPT = 256;
/** Added to the squares of each direction, so that points in a row foretell along their row and nothing across it. */
const RIDGE = 1e-9;

/**
 * Solved cycles of one kind of circuit at points of a space of parameters. Foretells the states at another point by the
 * plane that fits its nearest neighbours best: off by the square of their distance. Whatever it says is a beginning; what
 * is found from it is as exact as from any other.
 */
export class Neighbours {
  private readonly points: { at: readonly number[]; state: readonly number[] }[] = [];
  private next = 0;

  /** @param size how many parameters there are */
  constructor(private readonly size: number) {}

  /** @param at parameters, each scaled to its range: of order one */
  remember(at: readonly number[], state: readonly number[]): void {
    this.points[this.next] = { at, state };
    this.next = (this.next + 1) % MOST_KEPT;
  }

  /** Where to begin at a point; null while nothing is solved. */
  beginAt(at: readonly number[]): Beginning | null {
    const wanted = 2 * (this.size + 1);
    const near = nearest(this.points, at, wanted);
    if (near.length === 0) return null;
    // With as many points as there are coefficients a plane goes through all of them, however bent what they lie on.
    const foretold = near.length > this.size + 1 ? planeAt(near, at) : null;
    return foretold ? { warm: foretold, sure: true } : { warm: near[0]!.state, sure: false };
  }
}

interface Near {
  at: readonly number[];
  state: readonly number[];
  distance: number;
}

/** The nearest points, the nearest first. */
function nearest(
  points: readonly { at: readonly number[]; state: readonly number[] }[],
  to: readonly number[],
  most: number,
): Near[] {
  const found: Near[] = [];
  for (const { at, state } of points) {
    let distance = 0;
    for (let d = 0; d < to.length; d++) distance += (at[d]! - to[d]!) ** 2;
    if (found.length === most && distance >= found[most - 1]!.distance) continue;
    let place = found.length;
    while (place > 0 && found[place - 1]!.distance > distance) place--;
    found.splice(place, 0, { at, state, distance });
    if (found.length > most) found.pop();
  }
  return found;
}

/** What the best plane through the points comes to at another; null where none is determined. */
function planeAt(near: readonly Near[], to: readonly number[]): number[] | null {
  const states = near[0]!.state.length;
  if (near.some((p) => p.state.length !== states)) return null;
  const n = to.length + 1;
  const squares = new Float64Array(n * n);
  const row = new Float64Array(n);
  row[0] = 1;
  const sums = Array.from({ length: states }, () => new Float64Array(n));
  for (const { at, state } of near) {
    for (let d = 1; d < n; d++) row[d] = at[d - 1]! - to[d - 1]!;
    for (let a = 0; a < n; a++) {
      for (let b = 0; b < n; b++) squares[a * n + b]! += row[a]! * row[b]!;
      for (let s = 0; s < states; s++) sums[s]![a]! += row[a]! * state[s]!;
    }
  }
  for (let d = 1; d < n; d++) squares[d * n + d]! += RIDGE;
  const found: number[] = [];
  for (const sum of sums) {
    if (!solveLinear(squares.slice(), n, sum)) return null;
    found.push(sum[0]!);
  }
  return found;
}
