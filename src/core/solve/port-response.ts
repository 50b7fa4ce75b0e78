import { invert } from './dense';
import type { Level, StageLayout } from './layout';
import type { PortState } from './port-state';

/** No port is live, or several are. */
export const NONE_LIVE = -1;
export const SEVERAL_LIVE = -2;

/**
 * d(i)/d(u) of the ports that bend at the last solution into `out` (all ports square; no state drives an AC load).
 * @returns the only live port, NONE_LIVE or SEVERAL_LIVE
 */
export type PortResponse = (d: Level, out: Float64Array) => number;

export function portResponse(at: StageLayout, state: PortState): PortResponse {
  const { bends: n, ports: all } = at;
  const { alive, slope, floatOf, floatSign } = state;
  const floats = state.floatV.length;
  const size = n + floats;
  const matrix = new Float64Array(size * size);
  const inverse = new Float64Array(size * size);

  return (d, out) => {
    if (floats === 0) {
      if (state.count === 0) return NONE_LIVE;
      if (state.count === 1) {
        const only = alive[0]!;
        out[only * all + only] = slope[only]!;
        return only;
      }
      if (state.count === 2) {
        for (let k = 0; k < all * all; k++) out[k] = 0;
        const a = alive[0]!;
        const b = alive[1]!;
        const ab = slope[a]! * d[at.z + a * all + b]!;
        const ba = slope[b]! * d[at.z + b * all + a]!;
        const det = 1 - ab * ba;
        out[a * all + a] = slope[a]! / det;
        out[b * all + b] = slope[b]! / det;
        out[a * all + b] = (-ab * slope[b]!) / det;
        out[b * all + a] = (-ba * slope[a]!) / det;
        return SEVERAL_LIVE;
      }
    }
    for (let k = 0; k < size * size; k++) matrix[k] = 0;
    for (let k = 0; k < n; k++) {
      for (let j = 0; j < n; j++) matrix[k * size + j] = j === k ? 1 : slope[k]! * d[at.z + k * all + j]!;
      const f = floatOf[k]!;
      if (f >= 0) {
        matrix[k * size + n + f] = -slope[k]! * floatSign[k]!;
        matrix[(n + f) * size + k] = floatSign[k]!;
        matrix[(n + f) * size + n + f]! += state.leakS;
      }
    }
    if (!invert(matrix, size, inverse)) {
      out.fill(0);
      return SEVERAL_LIVE;
    }
    for (let k = 0; k < n; k++) for (let j = 0; j < n; j++) out[k * all + j] = inverse[k * size + j]! * slope[j]!;
    return SEVERAL_LIVE;
  };
}
