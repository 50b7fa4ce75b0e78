import { ARRANGEMENTS } from '@/core/parts/arrangements';
import { diodeCount } from '@/core/parts/arrangement';
import { loadLaw, type LoadLaw } from './load-law';
import { SATURATED_SHARE, type DiodeFault, type Network, type Rail, type Section, type Winding } from './network';

const BOLTZMANN_J_PER_K = 1.380649e-23;
const ELEMENTARY_CHARGE_C = 1.602176634e-19;

/** What stands in for a shorted diode, ohm. */
export const SHORTED_OHM = 0.005;
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

/**
 * A nonlinear branch seen as a loop: v = share*v(winding) - V(input) + floatSign*V(float), and the current it carries
 * adds share*i to the winding and i to the input.
 */
export interface Port {
  winding: number;
  share: number;
  /** Index of the filter input it charges, -1 when the path closes over ground. */
  input: number;
  /** Index of the floating potential it sees, -1 for none. */
  floating: number;
  floatSign: number;
  law: 'diode' | 'resistor' | 'open';
  /** n*Vt of all diodes in the path, V. */
  thetaV: number;
  saturationA: number;
  /** Rs of all diodes in the path, or the resistance of a 'resistor', ohm. */
  ohm: number;
  /** Which diodes (numbered through the whole network) it stands for, all alike in series. */
  diodes: number[];
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
  /** The elements of its filter in order; for a doubler the upper capacitor stands first. */
  elements: number[];
  /** A doubler's second capacitor among the elements. */
  lowerElement: number;
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
  const stackedPairs: [number, number][] = [];

  network.sections.forEach((section, sectionIndex) => {
    const arrangement = ARRANGEMENTS[section.rectifier.kind];
    const faults = section.rectifier.faults ?? [];
    const windingFrom = windings.length;
    const inputFrom = inputs.length;
    const portFrom = ports.length;
    for (const ratio of arrangement.ratios) windings.push(windingOf(section.winding, ratio, first));
    if (faults.length > 0 || !arrangement.mirror) mirrored = false;
    else {
      mirrorLoops.push(...arrangement.mirror.loops.map((n) => portFrom + n));
      mirrorWindings.push(...arrangement.mirror.windings.map((n) => windingFrom + n));
      mirrorWindingSigns.push(...arrangement.mirror.windings.map(() => arrangement.mirror!.windingSign));
    }
    section.rails.forEach((rail) => addRail(rail, sectionIndex, arrangement.stacked));
    if (arrangement.stacked) mirrorInputs.push(inputFrom + 1, inputFrom);
    else section.rails.forEach((_, n) => mirrorInputs.push(inputFrom + n));

    const floatOf = new Map<number, number>();
    for (const loop of arrangement.loops) {
      const pair = loop.groundDiode === undefined ? [loop.railDiode] : [loop.railDiode, loop.groundDiode];
      const bridgeFaulted =
        faults.length > 0 &&
        arrangement.loops.some(
          (other) =>
            other.groundDiode !== undefined &&
            other.winding === loop.winding &&
            faults.some((f) => f.diode === other.railDiode || f.diode === other.groundDiode),
        );
      const winding = windingFrom + loop.winding;
      const input = inputFrom + loop.input;
      if (!bridgeFaulted) {
        ports.push({
          ...portOf(section, faults, pair, diodes),
          winding,
          share: loop.sign,
          input,
          floating: -1,
          floatSign: 0,
        });
      } else {
        // A bridge with a fault is no longer two loops: its winding floats on a potential of its own.
        if (!floatOf.has(loop.winding)) floatOf.set(loop.winding, floats++);
        const floating = floatOf.get(loop.winding)!;
        const half = { winding, share: loop.sign / 2, floating };
        ports.push({ ...portOf(section, faults, [loop.railDiode], diodes), ...half, input, floatSign: 1 });
        ports.push({ ...portOf(section, faults, [loop.groundDiode!], diodes), ...half, input: -1, floatSign: -1 });
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
    ports.push({
      winding: windings.length,
      share: 1,
      input: -1,
      floating: -1,
      floatSign: 0,
      law: 'resistor',
      thetaV: 0,
      saturationA: 0,
      ohm: load.resistanceOhm,
      diodes: [],
    });
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
    direct: network.sections[0]!.rectifier.kind === 'direct',
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

  function addRail(rail: Rail, sectionIndex: number, stacked: boolean) {
    let node = nodes++;
    const inputNode = node;
    const chain: number[] = [];
    let lowerElement = -1;
    rail.filter.forEach((element, position) => {
      if (element.kind === 'capacitor' && stacked && position === 0) {
        const middle = nodes++;
        const both = { kind: 'capacitor' as const, capacitanceF: element.capacitanceF, esrOhm: element.esrOhm };
        chain.push(elements.length);
        elements.push({ ...both, plus: node, minus: middle, state: states++ });
        lowerElement = elements.length;
        elements.push({ ...both, plus: middle, minus: -1, state: states++ });
        stackedPairs.push([states - 2, states - 1]);
        inputs.push({ plus: node, minus: middle }, { plus: middle, minus: -1 });
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
    if (!stacked) inputs.push({ plus: inputNode, minus: -1 });
    rails.push({
      section: sectionIndex,
      inputNode,
      outputNode: node,
      load: loadLaw(rail.load),
      elements: chain,
      lowerElement,
    });
  }

  function mirrorOf(): NonNullable<Circuit['mirror']> {
    const stateMap = Int32Array.from({ length: states }, (_, n) => n);
    const stateSigns = new Float64Array(states).fill(1);
    for (const [upper, lower] of stackedPairs) {
      stateMap[upper] = lower;
      stateMap[lower] = upper;
    }
    windings.forEach((winding, n) => {
      if (winding.state < 0) return;
      stateMap[winding.state] = windings[mirrorWindings[n]!]!.state;
      stateSigns[winding.state] = mirrorWindingSigns[n]!;
    });
    return {
      ports: Int32Array.from(mirrorLoops),
      states: stateMap,
      stateSigns,
      windings: Int32Array.from(mirrorWindings),
      windingSigns: Float64Array.from(mirrorWindingSigns),
      inputs: Int32Array.from(mirrorInputs),
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

function portOf(section: Section, faults: readonly DiodeFault[], diodes: readonly number[], offset: number) {
  const { diode } = section.rectifier;
  const fault = faults.find((f) => diodes.includes(f.diode))?.state;
  const vt = (BOLTZMANN_J_PER_K * (diode.temperatureC + 273.15)) / ELEMENTARY_CHARGE_C;
  return {
    law: fault === 'open' ? ('open' as const) : fault === 'short' ? ('resistor' as const) : ('diode' as const),
    thetaV: diodes.length * diode.emissionCoefficient * vt,
    saturationA: diode.saturationCurrentA,
    ohm: fault === 'short' ? SHORTED_OHM : diodes.length * diode.seriesResistanceOhm,
    diodes: diodes.map((d) => offset + d),
  };
}

/** Flux of a choke that keeps a tenth of its inductance and loses the rest with current, Vs. */
export function fluxAt(inductanceH: number, halfAtA: number, currentA: number): number {
  if (halfAtA === Infinity) return inductanceH * currentA;
  return (
    SATURATED_SHARE * inductanceH * currentA +
    (1 - SATURATED_SHARE) * inductanceH * halfAtA * Math.atan(currentA / halfAtA)
  );
}

/** Differential inductance at a current, H. */
export function inductanceAt(inductanceH: number, halfAtA: number, currentA: number): number {
  if (halfAtA === Infinity) return inductanceH;
  const x = currentA / halfAtA;
  return inductanceH * (SATURATED_SHARE + (1 - SATURATED_SHARE) / (1 + x * x));
}
