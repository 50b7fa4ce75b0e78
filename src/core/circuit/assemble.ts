import { diodeCount, diodesOf, type Arrangement } from '@/core/parts/arrangement';
import { factsOf } from '@/core/parts/arrangement-facts';
import { ARRANGEMENTS } from '@/core/parts/arrangements';
import { mapped } from '@/core/quantity/lists';
import { loadLaw, type LoadLaw } from './load-law';
import { pathThrough, portOf, resistorPath, type Port, type PortInput } from './port';
import type { Network, Rail, Section, Winding } from './network';

/** A resistor below this joins its two nodes, ohm. */
const LEAST_SERIES_OHM = 1e-9;

/** One winding as the solver sees it. */
export interface CircuitWinding {
  /** EMF of this winding as a multiple of the common EMF, sign included. */
  ratio: number;
  ownOhm: number;
  inductanceH: number;
  /** Where its current stands among the states, -1 without inductance. */
  state: number;
}

/** A filter element in place: between nodes, -1 being ground. */
export type CircuitElement =
  | { kind: 'capacitor'; plus: number; minus: number; capacitanceF: number; esrOhm: number; state: number }
  | {
      kind: 'inductor';
      from: number;
      to: number;
      inductanceH: number;
      ohm: number;
      state: number;
      /** Current at which half of what can be lost is lost, A; Infinity for a choke that keeps its inductance. */
      halfAtA: number;
    }
  | { kind: 'resistor'; from: number; to: number; ohm: number };

export interface CircuitRail {
  section: number;
  /** Node of the rectifier output and of the load. */
  inputNode: number;
  outputNode: number;
  load: LoadLaw;
  /** The elements of its filter in order; of a stack the uppermost capacitor stands first. */
  elements: number[];
  /** Capacitors of a multiplier at the head of the rail, stacked ones from the top and then pumps; none elsewhere. */
  cans: StackedCan[];
  /** Volts of the rail without load as a multiple of a winding's peak. */
  peaks: number;
}

/** One capacitor of a multiplier. */
export interface StackedCan {
  element: number;
  at: 'stack' | 'pump';
  /** Volts across it without load as a multiple of a winding's peak. */
  peaks: number;
}

/** Where a charging current enters: node pairs, -1 being ground. */
export interface FilterInput {
  plus: number;
  minus: number;
}

export interface Circuit {
  periodS: number;
  omega: number;
  /** Peak of the unclipped common EMF, V. */
  peakV: number;
  /** (1 - flatTop). */
  clip: number;
  /** Whether the common EMF is direct, and its ripple at twice the frequency, peak to peak as a share of it. */
  direct: boolean;
  ripple: number;
  sharedOhm: number;
  windings: CircuitWinding[];
  ports: Port[];
  inputs: FilterInput[];
  floats: number;
  nodes: number;
  elements: CircuitElement[];
  rails: CircuitRail[];
  states: number;
  diodes: number;
  /** Ports that feed an alternating-current load, in the network's order. */
  acPorts: number[];
  /** What repeats half a period later with roles exchanged; null when the halves differ. */
  mirror: {
    ports: Int32Array;
    states: Int32Array;
    stateSigns: Float64Array;
    windings: Int32Array;
    windingSigns: Float64Array;
    inputs: Int32Array;
  } | null;
  /** A typical load current, A, for scales and tolerances. */
  typicalA: number;
  /** True when an inductance lies in series with diodes, so that a current is a state there. */
  inductive: boolean;
}

/** Turns a network of any arrangement into the one circuit the solver knows. The network is taken as validated. */
export function assemble(network: Network): Circuit {
  const first = network.sections[0]!.winding.voltageRms;
  const windings: CircuitWinding[] = [];
  const ports: Port[] = [];
  const inputs: FilterInput[] = [];
  const elements: CircuitElement[] = [];
  const rails: CircuitRail[] = [];
  let floats = 0;
  let nodes = 0;
  let states = 0;
  let diodes = 0;
  let mirrored = true;
  const mirrorLoops: number[] = [];
  const mirrorInputs: number[] = [];
  const mirrorWindings: number[] = [];
  const mirrorWindingSigns: number[] = [];
  const pairs: [number, number][] = [];
  let direct = false;

  network.sections.forEach((section, sectionIndex) => {
    const arrangement = ARRANGEMENTS[section.rectifier.kind];
    if (sectionIndex === 0) direct = arrangement.direct ?? false;
    const faults = section.rectifier.faults ?? [];
    const windingFrom = windings.length;
    const inputFrom = inputs.length;
    const portFrom = ports.length;
    for (const ratio of arrangement.ratios) windings.push(windingOf(section.winding, ratio, first));
    if (faults.length > 0 || !arrangement.mirror) mirrored = false;
    else {
      mirrorLoops.push(...mapped(arrangement.mirror.loops, (n) => portFrom + n));
      mirrorWindings.push(...mapped(arrangement.mirror.windings, (n) => windingFrom + n));
      mirrorWindingSigns.push(...mapped(arrangement.mirror.windings, () => arrangement.mirror!.windingSign));
    }
    const inputOf = addCells(section, sectionIndex, arrangement);
    mirrorCells(arrangement, inputOf, inputFrom);

    const floatOf = new Map<number, number>();
    const faultOf = (d: number) => faults.find((f) => f.diode === d)?.state;
    // A loop with all its diodes open is gone, and leaves the other as it was.
    const halfGone = arrangement.loops.filter((l) => {
      if (faults.length === 0 || l.returnDiodes === undefined) return false;
      const found = mapped(diodesOf(l), faultOf);
      return found.some(Boolean) && !found.every((f) => f === 'open');
    });
    for (const loop of arrangement.loops) {
      const bridgeFaulted = halfGone.some((other) => other.winding === loop.winding);
      const winding = windingFrom + loop.winding;
      const into = mapped(loop.cells, ({ cell, sign }): PortInput => ({ input: inputOf[cell]!, sign }));
      const input = into.length === 1 ? into[0]!.input : -1;
      const pathOf = (numbers: readonly number[]) => pathThrough(section, faults, numbers, diodes);
      if (!bridgeFaulted) {
        const joined = { winding, share: loop.sign, into, input, floating: -1, floatSign: 0 };
        ports.push(portOf(joined, pathOf(diodesOf(loop))));
      } else {
        // A bridge with a fault is no longer two loops: its winding floats on a potential of its own.
        if (!floatOf.has(loop.winding)) floatOf.set(loop.winding, floats++);
        const floating = floatOf.get(loop.winding)!;
        const share = loop.sign / 2;
        ports.push(portOf({ winding, share, into, input, floating, floatSign: 1 }, pathOf(loop.diodes)));
        const back = { winding, share, into: [], input: -1, floating, floatSign: -1 };
        ports.push(portOf(back, pathOf(loop.returnDiodes!)));
      }
    }
    diodes += diodeCount(arrangement);
  });

  const acPorts: number[] = [];
  for (const load of network.acLoads ?? []) {
    acPorts.push(ports.length);
    mirrorLoops.push(ports.length);
    mirrorWindings.push(windings.length);
    mirrorWindingSigns.push(-1);
    const joined = { winding: windings.length, share: 1, into: [], input: -1, floating: -1, floatSign: 0 };
    ports.push(portOf(joined, resistorPath(load.resistanceOhm)));
    windings.push(windingOf(load.winding, 1, first));
  }
  for (const winding of windings) if (winding.inductanceH > 0) winding.state = states++;

  const peakV = Math.SQRT2 * first;
  let typicalA = 0;
  for (const rail of rails) {
    const winding = network.sections[rail.section]!.winding;
    const aboutV = 1.27 * winding.voltageRms;
    let current = rail.load.current(aboutV, Infinity);
    for (const n of rail.elements) {
      const element = elements[n]!;
      if (element.kind === 'resistor' && element.to < 0) current += aboutV / element.ohm;
    }
    typicalA = Math.max(typicalA, current);
  }
  const choked = rails.some((rail) => {
    const firstElement = elements[rail.elements[0] ?? -1];
    return (
      firstElement !== undefined && firstElement.kind !== 'capacitor' && elements.some((e) => e.kind === 'inductor')
    );
  });
  return {
    periodS: 1 / network.frequencyHz,
    omega: 2 * Math.PI * network.frequencyHz,
    peakV,
    clip: 1 - network.mains.flatTop,
    direct,
    ripple: network.mains.ripple ?? 0,
    sharedOhm: network.mains.sharedResistanceOhm,
    windings,
    ports,
    inputs,
    floats,
    nodes,
    elements,
    rails,
    states,
    diodes,
    acPorts,
    mirror: mirrored ? mirrorOf() : null,
    typicalA: Math.max(typicalA, 1e-9 * peakV),
    inductive: choked || windings.some((w) => w.inductanceH > 0),
  };

  /** The rails and capacitors of a section. @returns the filter input of each of its cells */
  function addCells(section: Section, sectionIndex: number, arrangement: Arrangement): number[] {
    const facts = factsOf(arrangement);
    const inputOf = new Array<number>(arrangement.cells.length).fill(-1);
    section.rails.forEach((rail, r) => {
      const { head, stack, pumps } = facts.cellsOf[r]!;
      const added = addRail(rail, sectionIndex, stack.length);
      stack.forEach((n, k) => (inputOf[n] = added.inputFrom + k));
      if (head >= 0) inputOf[head] = added.inputFrom;
      const here = rails[rails.length - 1]!;
      here.peaks = r === 0 ? facts.railPeaks : 1;
      stack.forEach((n, k) => (here.cans[k]!.peaks = facts.cellPeaks[n]!));
      for (const n of pumps) {
        const first = rail.filter[0];
        if (first?.kind !== 'capacitor') continue;
        // A pump touches nothing but its loops: it stands on a node of its own.
        const plus = nodes++;
        inputOf[n] = inputs.length;
        inputs.push({ plus, minus: -1 });
        here.cans.push({ element: elements.length, at: 'pump', peaks: facts.cellPeaks[n]! });
        const { capacitanceF, esrOhm } = first;
        elements.push({ kind: 'capacitor', plus, minus: -1, capacitanceF, esrOhm, state: states++ });
      }
    });
    return inputOf;
  }

  /** Which filter input does what another did half a period before, by the loops that charge them. */
  function mirrorCells(arrangement: Arrangement, inputOf: readonly number[], inputFrom: number): void {
    const map = Array.from({ length: inputs.length - inputFrom }, (_, n) => inputFrom + n);
    arrangement.mirror?.loops.forEach((other, n) => {
      arrangement.loops[n]!.cells.forEach(({ cell }, k) => {
        const to = inputOf[arrangement.loops[other]!.cells[k]!.cell]!;
        map[inputOf[cell]! - inputFrom] = to;
      });
    });
    mirrorInputs.push(...map);
    const cans = rails.flatMap((r) => mapped(r.cans, (c) => elements[c.element]!));
    const stateAt = (input: number) => {
      const { plus, minus } = inputs[input]!;
      const found = cans.find((e) => e.kind === 'capacitor' && e.plus === plus && e.minus === minus);
      return found?.kind === 'capacitor' ? found.state : -1;
    };
    map.forEach((to, n) => {
      const from = inputFrom + n;
      if (to > from && stateAt(from) >= 0) pairs.push([stateAt(from), stateAt(to)]);
    });
  }

  function addRail(rail: Rail, sectionIndex: number, stacked: number): { inputFrom: number } {
    let node = nodes++;
    const inputFrom = inputs.length;
    const cans: StackedCan[] = [];
    const inputNode = node;
    const chain: number[] = [];
    rail.filter.forEach((element, position) => {
      if (element.kind === 'capacitor' && stacked > 0 && position === 0) {
        const { capacitanceF, esrOhm } = element;
        chain.push(elements.length);
        let plus = node;
        for (let n = 0; n < stacked; n++) {
          const minus = n === stacked - 1 ? -1 : nodes++;
          cans.push({ element: elements.length, at: 'stack', peaks: 1 });
          elements.push({ kind: 'capacitor', plus, minus, capacitanceF, esrOhm, state: states++ });
          inputs.push({ plus, minus });
          plus = minus;
        }
        return;
      }
      chain.push(elements.length);
      if (element.kind === 'capacitor') {
        const { capacitanceF, esrOhm } = element;
        elements.push({ kind: 'capacitor', plus: node, minus: -1, capacitanceF, esrOhm, state: states++ });
      } else if (element.kind === 'shunt') {
        elements.push({ kind: 'resistor', from: node, to: -1, ohm: Math.max(element.resistanceOhm, LEAST_SERIES_OHM) });
      } else if (element.kind === 'resistor' || element.inductanceH === 0) {
        const next = element.resistanceOhm < LEAST_SERIES_OHM ? node : nodes++;
        elements.push({
          kind: 'resistor',
          from: node,
          to: next,
          ohm: Math.max(element.resistanceOhm, LEAST_SERIES_OHM),
        });
        node = next;
      } else {
        elements.push({
          kind: 'inductor',
          from: node,
          to: nodes,
          inductanceH: element.inductanceH,
          ohm: element.resistanceOhm,
          state: states++,
          halfAtA: element.halfAtA ?? Infinity,
        });
        node = nodes++;
      }
    });
    if (stacked === 0) inputs.push({ plus: inputNode, minus: -1 });
    rails.push({
      section: sectionIndex,
      inputNode,
      outputNode: node,
      load: loadLaw(rail.load),
      elements: chain,
      cans,
      peaks: 1,
    });
    return { inputFrom };
  }

  function mirrorOf(): NonNullable<Circuit['mirror']> {
    const stateMap = new Int32Array(states).map((_, n) => n);
    const stateSigns = new Float64Array(states).fill(1);
    for (const [upper, lower] of pairs) {
      stateMap[upper] = lower;
      stateMap[lower] = upper;
    }
    windings.forEach((winding, n) => {
      if (winding.state < 0) return;
      stateMap[winding.state] = windings[mirrorWindings[n]!]!.state;
      stateSigns[winding.state] = mirrorWindingSigns[n]!;
    });
    return {
      ports: new Int32Array(mirrorLoops),
      states: stateMap,
      stateSigns,
      windings: new Int32Array(mirrorWindings),
      windingSigns: new Float64Array(mirrorWindingSigns),
      inputs: new Int32Array(mirrorInputs),
    };
  }
}

function windingOf(winding: Winding, ratio: number, referenceRms: number): CircuitWinding {
  return {
    ratio: (ratio * winding.voltageRms) / referenceRms,
    ownOhm: winding.resistanceOhm,
    inductanceH: winding.inductanceH,
    state: -1,
  };
}
