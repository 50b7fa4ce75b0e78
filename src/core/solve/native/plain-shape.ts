import type { Circuit } from '@/core/circuit/assemble';
import { rectifies } from '@/core/circuit/port';
import { stageLayout } from '../layout';
import { LEVELS } from '../stage';
import { currentsThatCease } from '../turn-off';
import { TOLD } from '../turn-on';
import { NUMBERS, type Double, type Int, type Offset, type Size } from './fields';

const STAGES = 6;
/** Combinations of load segments whose levels are kept. */
const MOST_KEYS = 16;
/** Steps whose records there is space for: where currents through inductances end, each takes steps of its own. */
const MOST_RECORDED = 160;
const MOST_RECORDED_INDUCTIVE = 400;
/** Instants in one run no step may straddle. */
export const MOST_STOPS = 64;
const KINDS = ['capacitor', 'inductor', 'resistor'];

/** What the machine's own code is told of a circuit's shape. */
export interface PlainShape {
  sizes: Record<Size, number>;
  offsets: Record<Offset, number>;
  ints: Record<Int, readonly number[]>;
  /** How many numbers each array takes. */
  doubles: Record<Double, number>;
  /** The nodes each port's path passes between, with their signs. */
  touchSigns: readonly number[];
  intoSigns: readonly number[];
}

/** Flattens a circuit's shape. @param stride numbers in a record */
export function plainShape(shape: Circuit, stride: number): PlainShape {
  const at = stageLayout(shape);
  const { elements, ports, windings, inputs, rails, states: nX, nodes } = shape;
  const nP = ports.length;
  const pieces = rails.map((r) => r.load.offset.length);
  const nPieces = pieces.reduce((a, b) => a + b, 0);
  const radix = pieces.map((_, r) => pieces.slice(0, r).reduce((p, n) => p * n, 1));
  const keys = Math.min(
    MOST_KEYS,
    pieces.reduce((p, n) => p * n, 1),
  );
  const watched = ports.flatMap((p, n) => (rectifies(p) && p.floating < 0 && p.into.length > 0 ? [n] : []));
  const known = nP + shape.floats;
  const touched = ports.map((p) =>
    p.into.flatMap(({ input, sign }) => {
      const { plus, minus } = inputs[input]!;
      return [{ node: plus, sign }, ...(minus >= 0 ? [{ node: minus, sign: -sign }] : [])];
    }),
  );
  const capacity = STAGES * (shape.inductive ? MOST_RECORDED_INDUCTIVE : MOST_RECORDED);
  const { eventful, chokeOf, sharesWinding } = currentsThatCease(shape);
  const bends = nP - shape.acPorts.length;
  const doubles: Record<Double, number> = {
    numbers: NUMBERS.length,
    farad: elements.length,
    ohmOf: elements.length,
    henry: elements.length,
    conductance: elements.length,
    share: nP,
    touchSign: touched.flat().length,
    windingH: windings.length,
    windingOhm: windings.length,
    uE: nP,
    matrix: nodes * nodes,
    inverse: nodes * nodes,
    theta: nP,
    saturation: nP,
    series: nP,
    breakV: nPieces,
    pieceOffset: nPieces,
    pieceSlope: nPieces,
    segmentLow: rails.length,
    segmentHigh: rails.length,
    portA: nP,
    slope: nP,
    more: nP,
    right: known,
    portMatrix: known * known,
    portInverse: known * known,
    drives: nP,
    base: nX,
    outcome: nX + rails.length,
    x: nX,
    stageX: nX,
    k: STAGES * nX,
    lastK: nX,
    squares: STAGES,
    tolerance: nX,
    nodeV: nodes,
    loadA: rails.length,
    lastRow: stride,
    sensitivity: STAGES * nX * nX,
    dPort: nP * nX,
    response: nP * nP,
    dK: STAGES * nX * nX,
    lastDK: nX * nX,
    dBase: nX,
    dEnd: nX * nX,
    transition: nX * nX,
    low: nX,
    high: nX,
    scratch: at.length,
    records: capacity * stride,
    gridH: LEVELS,
    onV: nP,
    inputV: inputs.length,
    inputSlope: inputs.length,
    waiting: bends,
    waitingV: TOLD.length * watched.length,
    floatSign: nP,
    floatV: shape.floats,
    shifted: nP,
    intoSign: ports.flatMap((p) => p.into).length,
    stops: MOST_STOPS,
  };
  const ints: Record<Int, readonly number[]> = {
    kind: elements.map((e) => KINDS.indexOf(e.kind)),
    plusOf: elements.map((e) => (e.kind === 'capacitor' ? e.plus : e.from)),
    minusOf: elements.map((e) => (e.kind === 'capacitor' ? e.minus : e.to)),
    stateOf: elements.map((e) => (e.kind === 'resistor' ? -1 : e.state)),
    windingOf: ports.map((p) => p.winding),
    touchFrom: starts(touched),
    touchNode: touched.flat().map((t) => t.node),
    windingState: windings.map((w) => w.state),
    outputNode: rails.map((r) => r.outputNode),
    open: ports.map((p) => (p.law === 'open' ? 1 : 0)),
    pieces,
    pieceFrom: pieces.map((_, r) => pieces.slice(0, r).reduce((a, b) => a + b, 0)),
    segment: pieces.map(() => 0),
    radix,
    levelAt: new Array<number>(keys * (LEVELS + 1)).fill(0),
    levelLoading: new Array<number>(keys * (LEVELS + 1)).fill(0),
    live: ports.map(() => 0),
    alive: ports.map(() => 0),
    was: ports.map(() => 0),
    active: ports.map(() => 0),
    watchedPort: watched,
    inputOf: ports.map((p) => p.input),
    floatOf: ports.map((p) => p.floating),
    eventPort: eventful,
    chokeState: chokeOf,
    alone: ports.map((_, n) => (sharesWinding(n) ? 0 : 1)),
    intoFrom: starts(ports.map((p) => p.into)),
    intoInput: ports.flatMap((p) => p.into.map((i) => i.input)),
    inputPlus: inputs.map((i) => i.plus),
    inputMinus: inputs.map((i) => i.minus),
  };
  const sizes: Record<Size, number> = {
    states: nX,
    ports: nP,
    bends,
    floats: shape.floats,
    rails: rails.length,
    nodes,
    elements: elements.length,
    inputs: inputs.length,
    watched: watched.length,
    stride,
    capacity,
    direct: 0,
    segmented: rails.some((r) => r.load.breakpoints.length > 0) ? 1 : 0,
    inductive: shape.inductive ? 1 : 0,
    eventful: eventful.length,
    joining: watched.length > 1 && eventful.some((n) => chokeOf[n]! >= 0) ? 1 : 0,
    keys,
    loading: 0,
    slotNext: 0,
    slotEnd: 0,
    stopCount: 0,
  };
  return {
    sizes,
    offsets: at,
    ints,
    doubles,
    touchSigns: touched.flat().map((t) => t.sign),
    intoSigns: ports.flatMap((p) => p.into.map((i) => i.sign)),
  };
}

/** Where the pieces of a list of lists begin when they lie one behind the other, and where the last ends. */
function starts(lists: readonly (readonly unknown[])[]): number[] {
  return [0, ...lists.map((_, n) => lists.slice(0, n + 1).reduce((sum, list) => sum + list.length, 0))];
}
