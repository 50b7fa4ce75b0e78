import type { Circuit } from '@/core/circuit/assemble';

/**
 * Everything about a circuit that depends on the step size and on the segment of each load alone, as one block of
 * numbers: all that is linear, eliminated, as small dense maps.
 */
export type Level = Float64Array;

/**
 * Where what stands in a level. What a stage is given are its starting values, one for each state, and behind them what
 * each bent load draws beyond its straight part; `i` are the currents of the ports.
 */
export interface StageLayout {
  readonly ports: number;
  /** Ports that bend, the first of the list; behind them stand loads of alternating current, which are linear. */
  readonly bends: number;
  readonly states: number;
  readonly rails: number;
  readonly nodes: number;
  readonly given: number;
  /** Drives of the ports, V: uE*e + u*given + uC, with uE the same for every level. */
  readonly u: number;
  readonly uC: number;
  /** Outcome: y*given + yP*i + yC is the change of each state against its starting value, then each rail's voltage. */
  readonly y: number;
  readonly yP: number;
  readonly yC: number;
  /** Voltages of the nodes, likewise. */
  readonly node: number;
  readonly nodeP: number;
  readonly nodeC: number;
  /** Impedance between ports, ohm: v[k] = u[k] - sum of z[k][j]*i[j]. */
  readonly z: number;
  /** Own impedance and series resistance of each port, ohm. */
  readonly ohm: number;
  /** Where the omega function's argument starts: ln of the scaled saturation current. */
  readonly shift: number;
  /** theta/ohm, A per unit of omega. */
  readonly perAmp: number;
  /** What the saturation currents of all other ports add to a port's drive, V. */
  readonly leak: number;
  /** Below this drive a port carries its saturation current and nothing else, V. */
  readonly off: number;
  /** A row for each port in closed form (apart-stage.ts), and the outcome with every port at its saturation current. */
  readonly row: number;
  readonly rowWidth: number;
  readonly rest: number;
  /** Numbers in a level. */
  readonly length: number;
}

/** Where what stands in the levels of circuits of a shape. */
export function stageLayout(shape: Circuit): StageLayout {
  const { nodes, states } = shape;
  const ports = shape.ports.length;
  const rails = shape.rails.length;
  const bends = ports - shape.acPorts.length;
  const given = states + (shape.rails.some((r) => r.load.extra !== null) ? rails : 0);
  const outcomes = states + rails;
  const rowWidth = 2 + given + bends;
  let length = 0;
  const next = (size: number) => {
    const at = length;
    length += size;
    return at;
  };
  return {
    ports,
    bends,
    states,
    rails,
    nodes,
    given,
    u: next(ports * given),
    uC: next(ports),
    y: next(outcomes * given),
    yP: next(outcomes * ports),
    yC: next(outcomes),
    node: next(nodes * given),
    nodeP: next(nodes * ports),
    nodeC: next(nodes),
    z: next(ports * ports),
    ohm: next(ports),
    shift: next(ports),
    perAmp: next(ports),
    leak: next(ports),
    off: next(ports),
    row: next(ports * rowWidth),
    rowWidth,
    rest: next(outcomes),
    length,
  };
}
