import type { Circuit } from '@/core/circuit/assemble';
import type { StageSolver } from './stage';

/** Place of each stage's record in the order of their instants. */
export const PLACE = [0, 2, 1, 3, 4, 5];
/** Rows of a run there is space for at first. */
const ROWS = 512;

/**
 * What a run leaves behind: one record per stage of every accepted step, in the order of time, each holding the instant,
 * its weight in an integral over time, and the whole circuit. Kept flat; the offsets say where what stands.
 */
export interface Records {
  data: Float64Array;
  /** Room of its own for what does not fit into `data`; kept, so that a circuit of halves that mirror finds it there. */
  spare: Float64Array;
  count: number;
  readonly stride: number;
  readonly emf: number;
  readonly port: number;
  readonly x: number;
  readonly k: number;
  readonly node: number;
  readonly load: number;
  readonly float: number;
}

/** @param rows there is space for at first; it grows */
export function newRecords(shape: Circuit, rows = ROWS): Records {
  const port = 3;
  const x = port + shape.ports.length;
  const k = x + shape.states;
  const node = k + shape.states;
  const load = node + shape.nodes;
  const float = load + shape.rails.length;
  const stride = float + shape.floats;
  const data = new Float64Array(rows * stride);
  return { data, spare: data, count: 0, stride, emf: 2, port, x, k, node, load, float };
}

/** Makes room for more rows behind those there are. */
export function makeRoom(records: Records, rows: number): void {
  const { stride, count, data } = records;
  const needed = (count + rows) * stride;
  if (needed <= data.length) return;
  if (records.spare.length < needed) records.spare = new Float64Array(Math.max(2 * data.length, needed));
  records.spare.set(data.subarray(0, count * stride));
  records.data = records.spare;
}

/** Writes the circuit as it stands at the stage just solved into a record that begins at `at`; its weight stays. */
export function writeRecord(
  into: Float64Array,
  at: number,
  t: number,
  e: number,
  stage: StageSolver,
  k: Float64Array,
  kAt: number,
): void {
  stage.spell();
  const { portA, x, node, loadA, floatV } = stage;
  into[at] = t;
  into[at + 2] = e;
  at += 3;
  for (let n = 0; n < portA.length; n++) into[at++] = portA[n]!;
  for (let n = 0; n < x.length; n++) into[at++] = x[n]!;
  for (let n = 0; n < x.length; n++) into[at++] = k[kAt + n]!;
  for (let n = 0; n < node.length; n++) into[at++] = node[n]!;
  for (let n = 0; n < loadA.length; n++) into[at++] = loadA[n]!;
  for (let n = 0; n < floatV.length; n++) into[at++] = floatV[n]!;
}
