import type { Circuit } from '@/core/circuit/assemble';
import { levelOf, ohmAround, type Reading, type Tally } from '../reading';
import type { Records } from '../records';
import type { Slot } from './memory';

/** Where what stands in a record. */
export type Fields = Pick<Records, 'stride' | 'emf' | 'port' | 'x' | 'k' | 'node' | 'load' | 'float'>;

/**
 * Reads records in the shared memory by the machine's own code. A reading holds until the next one, or the next run.
 * @param shape whose circuits are read
 * @param records where a run leaves them
 * @returns what reads so many records of a circuit; null where there is no room for as many
 */
export function plainReader(
  { code, columns }: Slot,
  shape: Circuit,
  records: Float64Array,
  at: Fields,
): (circuit: Circuit, count: number) => Reading | null {
  const from = records.byteOffset;
  const wide = 8 * at.stride;
  const out = columns.sums;
  const nW = shape.windings.length;
  const nP = shape.ports.length;
  const nE = shape.elements.length;
  const most = nW + 1 + 3 * nP + nE;
  /** The ports of each winding. */
  const portsOf = shape.windings.map((_, w) => shape.ports.flatMap((p, n) => (p.winding === w ? [n] : [])));
  let circuit = shape;
  let count = 0;
  let T = 0;
  let next = 0;
  /** Columns put together already: windings, the primary, elements, ports. */
  const found = new Array<number>(nW + 1 + nE + nP).fill(0);
  /** Columns looked through already: a node's volts are a capacitor's and a rail's at once. */
  const looked: number[] = [];
  const tallies: Tally[] = [];

  const field = (n: number) => from + 8 * n;
  /** A column put together lies before all records. */
  const stepOf = (column: number) => (column < from ? 8 : wide);
  const times = (factor: number, column: number): number => {
    const into = next;
    next += 8 * count;
    code.fill(into, count, column, stepOf(column), factor);
    return into;
  };
  const add = (into: number, factor: number, column: number) => code.add(into, count, column, stepOf(column), factor);
  const nodeV = (n: number) => field(at.node + n);
  const portA = (n: number) => field(at.port + n);
  const between = (a: number, b: number): number => {
    if (b < 0) return nodeV(a);
    const into = times(1, nodeV(a));
    add(into, -1, nodeV(b));
    return into;
  };

  const windingA = (w: number): number => (found[w] ||= sumOfPorts(w));
  function sumOfPorts(w: number): number {
    const [first, ...more] = portsOf[w]!;
    if (first === undefined) return times(0, from);
    const { share } = circuit.ports[first]!;
    if (more.length === 0 && share === 1) return portA(first);
    const into = times(share, portA(first));
    for (const n of more) add(into, circuit.ports[n]!.share, portA(n));
    return into;
  }
  const primaryA = (): number => (found[nW] ||= sumOfWindings());
  function sumOfWindings(): number {
    const { windings } = circuit;
    if (nW === 1 && windings[0]!.ratio === 1) return windingA(0);
    const into = times(windings[0]!.ratio, windingA(0));
    for (let w = 1; w < nW; w++) add(into, windings[w]!.ratio, windingA(w));
    return into;
  }
  const elementV = (n: number): number => (found[nW + 1 + n] ||= acrossElement(n));
  function acrossElement(n: number): number {
    const e = circuit.elements[n]!;
    return e.kind === 'capacitor' ? between(e.plus, e.minus) : between(e.from, e.to);
  }
  const portV = (n: number): number => (found[nW + 1 + nE + n] ||= acrossPort(n));
  function acrossPort(n: number): number {
    const { share, winding: w, into, floating, floatSign } = circuit.ports[n]!;
    const winding = circuit.windings[w]!;
    const v = times(share * winding.ratio, field(at.emf));
    if (circuit.sharedOhm > 0) add(v, -share * winding.ratio * circuit.sharedOhm, primaryA());
    add(v, -share * winding.ownOhm, windingA(w));
    if (winding.state >= 0) add(v, -share * winding.inductanceH, field(at.k + winding.state));
    for (const { input, sign } of into) {
      const { plus, minus } = circuit.inputs[input]!;
      add(v, -sign, nodeV(plus));
      if (minus >= 0) add(v, sign, nodeV(minus));
    }
    if (floating >= 0) add(v, floatSign, field(at.float + floating));
    return v;
  }

  function tally(column: number): Tally {
    const known = looked.indexOf(column);
    if (known >= 0) return tallies[known]!;
    code.survey(out.byteOffset, from, wide, count, column, stepOf(column));
    const seen = { mean: out[0]! / T, meanSquare: out[1]! / T, max: out[2]!, min: out[3]! };
    looked.push(column);
    tallies.push(seen);
    return seen;
  }
  /** @param factor above 0 */
  const scaled = (factor: number, { mean, meanSquare, max, min }: Tally): Tally => ({
    mean: factor * mean,
    meanSquare: factor * factor * meanSquare,
    max: factor * max,
    min: factor * min,
  });
  const product = (a: number, b: number) => code.product(from, wide, count, a, stepOf(a), b, stepOf(b)) / T;
  const railV = (n: number) => nodeV(circuit.rails[n]!.outputNode);
  const loadA = (n: number) => field(at.load + n);

  const reading: Reading = {
    windingA: (n) => tally(windingA(n)),
    primaryA: () => tally(primaryA()),
    portA: (n) => tally(portA(n)),
    elementA(n) {
      const e = circuit.elements[n]!;
      if (e.kind === 'inductor') return tally(field(at.x + e.state));
      if (e.kind === 'capacitor') return scaled(e.capacitanceF, tally(field(at.k + e.state)));
      return scaled(1 / e.ohm, tally(elementV(n)));
    },
    elementV: (n) => tally(elementV(n)),
    railV: (n) => tally(railV(n)),
    railInputV: (n) => tally(nodeV(circuit.rails[n]!.inputNode)),
    loadA: (n) => tally(loadA(n)),
    reverseV: (n) => -tally(portV(n)).min,
    drawnW: (n) => product(field(at.emf), windingA(n)),
    portW: (n) => product(portA(n), portV(n)),
    loadW: (n) => product(railV(n), loadA(n)),
    spreadV2: (n, meanV) => code.spread(from, wide, count, railV(n), wide, meanV) / T,
    conductionS(n, threshold) {
      const port = circuit.ports[n]!;
      const ohm = ohmAround(circuit, port);
      const smooth = times(1, portV(n));
      add(smooth, ohm, portA(n));
      return code.timeAbove(from, wide, count, smooth, levelOf(port, threshold, ohm));
    },
  };
  return (of, rows) => {
    if (8 * rows * most > columns.end - columns.from) return null;
    circuit = of;
    count = rows;
    T = of.periodS;
    next = columns.from;
    found.fill(0);
    looked.length = 0;
    tallies.length = 0;
    return reading;
  };
}
