import type { Circuit, CircuitRail } from '@/core/circuit/assemble';
import { invert } from './dense';
import type { Level, StageLayout } from './layout';
import { elimination } from './work';

const CAPACITOR = 0;
const INDUCTOR = 1;
const RESISTOR = 2;
/** Node conductance to ground that keeps a node without capacitor defined, as a share of load current over peak voltage. */
export const LEAK_SHARE = 1e-9;

export interface LevelBuilder {
  /** EMF of each port per volt of the common one. */
  readonly uE: Float64Array;
  /** Inductance of each choke at its present current, H: a swinging one's is set before a level is built. */
  readonly differential: Float64Array;
  /** Work of building a level. */
  readonly work: number;
  /** Takes over the values of a circuit of the same shape. */
  load(circuit: Circuit): void;
  /**
   * Fills in the maps of a level up to the impedances of the ports.
   * @param gammaH the step as its stages see it, s
   * @param segment which piece of its law each load is taken from
   */
  build(d: Level, gammaH: number, segment: Int32Array): void;
}

/**
 * Eliminates everything linear from a stage: each capacitor looks like a source behind ESR + gamma*h/C, each choke like a
 * source behind R + L/(gamma*h), so that what is left is a resistive network seen from its ports.
 */
export function levelBuilder(at: StageLayout, shape: Circuit): LevelBuilder {
  const { elements, inputs, ports } = shape;
  const { nodes, states: nX, rails: nR, ports: nP, given: nG } = at;
  const nE = elements.length;
  let rails: readonly CircuitRail[] = shape.rails;
  // Flat copies: building a level runs over numbers, not over objects.
  const kind = Uint8Array.from(elements, (e) =>
    e.kind === 'capacitor' ? CAPACITOR : e.kind === 'inductor' ? INDUCTOR : RESISTOR,
  );
  const plusOf = Int32Array.from(elements, (e) => (e.kind === 'capacitor' ? e.plus : e.from));
  const minusOf = Int32Array.from(elements, (e) => (e.kind === 'capacitor' ? e.minus : e.to));
  const stateOf = Int32Array.from(elements, (e) => (e.kind === 'resistor' ? -1 : e.state));
  const farad = new Float64Array(nE);
  const ohmOf = new Float64Array(nE);
  const differential = new Float64Array(nE);
  const conductance = new Float64Array(nE);
  const windingOf = Int32Array.from(ports, (p) => p.winding);
  const share = Float64Array.from(ports, (p) => p.share);
  /** The nodes each port's path passes between, ground aside, with their signs, one port after the other. */
  const touched = ports.map((p) =>
    p.into.flatMap(({ input, sign }) => {
      const { plus, minus } = inputs[input]!;
      return [{ node: plus, sign }, ...(minus >= 0 ? [{ node: minus, sign: -sign }] : [])];
    }),
  );
  const touchFrom = Int32Array.from({ length: nP + 1 }, (_, p) =>
    touched.slice(0, p).reduce((sum, list) => sum + list.length, 0),
  );
  const touchNode = Int32Array.from(touched.flat(), (t) => t.node);
  const touchSign = Float64Array.from(touched.flat(), (t) => t.sign);
  const windingState = Int32Array.from(shape.windings, (w) => w.state);
  const windingH = new Float64Array(windingState.length);
  const windingOhm = new Float64Array(windingState.length);
  const outOf = Int32Array.from(rails, (r) => r.outputNode);
  const uE = new Float64Array(nP);
  const matrix = new Float64Array(nodes * nodes);
  const inverse = new Float64Array(nodes * nodes);
  let leakS = 0;
  let sharedOhm = 0;

  function build(d: Level, g: number, segment: Int32Array): void {
    nodeMatrix(g, segment);
    invert(matrix, nodes, inverse);
    nodeMaps(d, g, segment);
    portMaps(d, g);
    outcomeMaps(d, g);
  }

  function nodeMatrix(g: number, segment: Int32Array): void {
    for (let k = 0; k < nodes * nodes; k++) matrix[k] = 0;
    for (let k = 0; k < nodes; k++) matrix[k * nodes + k] = leakS;
    for (let n = 0; n < nE; n++) {
      const s =
        kind[n] === CAPACITOR
          ? 1 / (ohmOf[n]! + g / farad[n]!)
          : kind[n] === INDUCTOR
            ? 1 / (ohmOf[n]! + differential[n]! / g)
            : 1 / ohmOf[n]!;
      conductance[n] = s;
      const a = plusOf[n]!;
      const b = minusOf[n]!;
      if (a === b) continue;
      matrix[a * nodes + a]! += s;
      if (b >= 0) {
        matrix[b * nodes + b]! += s;
        matrix[a * nodes + b]! -= s;
        matrix[b * nodes + a]! -= s;
      }
    }
    for (let r = 0; r < nR; r++) {
      const out = outOf[r]!;
      matrix[out * nodes + out]! += rails[r]!.load.slope[segment[r]!]!;
    }
  }

  function nodeMaps(d: Level, g: number, segment: Int32Array): void {
    for (let k = 0; k < nodes; k++) {
      const row = k * nodes;
      for (let n = 0; n < nE; n++) {
        if (kind[n] === RESISTOR) continue;
        // What the element's own history pushes into its nodes, per unit of state.
        const s = kind[n] === CAPACITOR ? conductance[n]! : (-conductance[n]! * differential[n]!) / g;
        const b = minusOf[n]!;
        d[at.node + k * nG + stateOf[n]!] = s * (inverse[row + plusOf[n]!]! - (b >= 0 ? inverse[row + b]! : 0));
      }
      for (let p = 0; p < nP; p++) {
        let sum = 0;
        for (let q = touchFrom[p]!; q < touchFrom[p + 1]!; q++) sum += touchSign[q]! * inverse[row + touchNode[q]!]!;
        d[at.nodeP + k * nP + p] = sum;
      }
      let constant = 0;
      for (let r = 0; r < nR; r++) {
        const ohm = inverse[row + outOf[r]!]!;
        constant -= ohm * rails[r]!.load.offset[segment[r]!]!;
        if (nG > nX) d[at.node + k * nG + nX + r] = -ohm;
      }
      d[at.nodeC + k] = constant;
    }
  }

  function portMaps(d: Level, g: number): void {
    for (let p = 0; p < nP; p++) {
      const w = windingOf[p]!;
      for (let c = 0; c < nG; c++) d[at.u + p * nG + c] = -along(d, at.node, nG, p, c);
      d[at.uC + p] = -along(d, at.nodeC, 1, p, 0);
      if (windingState[w]! >= 0) d[at.u + p * nG + windingState[w]!]! += (share[p]! * windingH[w]!) / g;
      for (let j = 0; j < nP; j++) {
        let ohm = uE[p]! * uE[j]! * sharedOhm;
        if (windingOf[j] === w) ohm += share[p]! * share[j]! * (windingOhm[w]! + windingH[w]! / g);
        d[at.z + p * nP + j] = ohm + along(d, at.nodeP, nP, p, j);
      }
    }
  }

  function outcomeMaps(d: Level, g: number): void {
    for (let n = 0; n < nE; n++) {
      if (kind[n] === RESISTOR) continue;
      const own = stateOf[n]!;
      const plus = plusOf[n]!;
      const minus = minusOf[n]!;
      const s = kind[n] === CAPACITOR ? (g / farad[n]!) * conductance[n]! : conductance[n]!;
      for (let c = 0; c < nG; c++) d[at.y + own * nG + c] = s * across(d, at.node, nG, plus, minus, c);
      for (let p = 0; p < nP; p++) d[at.yP + own * nP + p] = s * across(d, at.nodeP, nP, plus, minus, p);
      d[at.yC + own] = s * across(d, at.nodeC, 1, plus, minus, 0);
      d[at.y + own * nG + own]! += kind[n] === CAPACITOR ? -s : (s * differential[n]!) / g - 1;
    }
    for (let p = 0; p < nP; p++) {
      const state = windingState[windingOf[p]!]!;
      if (state < 0) continue;
      d[at.yP + state * nP + p] = share[p]!;
      d[at.y + state * nG + state] = -1;
    }
    for (let r = 0; r < nR; r++) {
      const out = outOf[r]!;
      for (let c = 0; c < nG; c++) d[at.y + (nX + r) * nG + c] = d[at.node + out * nG + c]!;
      for (let p = 0; p < nP; p++) d[at.yP + (nX + r) * nP + p] = d[at.nodeP + out * nP + p]!;
      d[at.yC + nX + r] = d[at.nodeC + out]!;
    }
  }

  /** What the nodes along a port's path add up to in the map that begins at `from`. */
  function along(d: Level, from: number, width: number, p: number, column: number): number {
    let sum = 0;
    for (let q = touchFrom[p]!; q < touchFrom[p + 1]!; q++) {
      sum += touchSign[q]! * d[from + touchNode[q]! * width + column]!;
    }
    return sum;
  }

  return {
    uE,
    differential,
    work: 3 * elimination(nodes) + (nodes + nX + nR) * (nE + 2 * nP + nR),
    load(circuit) {
      ({ rails } = circuit);
      ({ sharedOhm } = circuit);
      leakS = (LEAK_SHARE * circuit.typicalA) / circuit.peakV;
      for (let n = 0; n < nE; n++) {
        const e = circuit.elements[n]!;
        if (e.kind === 'capacitor') {
          farad[n] = e.capacitanceF;
          ohmOf[n] = e.esrOhm;
        } else {
          ohmOf[n] = e.ohm;
          differential[n] = e.kind === 'inductor' ? e.inductanceH : 0;
        }
      }
      for (let p = 0; p < nP; p++) uE[p] = share[p]! * circuit.windings[windingOf[p]!]!.ratio;
      for (let w = 0; w < windingState.length; w++) {
        windingH[w] = circuit.windings[w]!.inductanceH;
        windingOhm[w] = circuit.windings[w]!.ownOhm;
      }
    },
    build,
  };
}

/** Difference of two nodes' rows in the map that begins at `from`. */
function across(d: Level, from: number, width: number, plus: number, minus: number, column: number): number {
  if (plus < 0) return 0;
  return d[from + plus * width + column]! - (minus >= 0 ? d[from + minus * width + column]! : 0);
}
