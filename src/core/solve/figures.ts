import { SATURATED_SHARE, type Network } from '@/core/circuit/network';
import { regulatorOutput } from '@/core/circuit/load-law';
import type { Circuit } from '@/core/circuit/assemble';
import { SHORTED_OHM } from '@/core/circuit/port';
import { mapped } from '@/core/quantity/lists';
import type { Integrator } from './integrator';
import type { Reading, Tally } from './reading';
import { SolveError } from './solve-error';
import { ENERGY_TOLERANCE, type DiodeResult, type ElementResult, type Solution } from './solution';

export type Figures = Pick<
  Solution,
  | 'id'
  | 'source'
  | 'rails'
  | 'windings'
  | 'diodes'
  | 'elements'
  | 'doublerLowerCapacitor'
  | 'cans'
  | 'primary'
  | 'acLoads'
  | 'energyBalance'
>;

/** Root of a mean square: what rests can come out a rounding below nothing. */
function root(meanSquare: number): number {
  return Math.sqrt(Math.max(0, meanSquare));
}

/** Open-circuit RMS of a winding of the given unclipped RMS, V: a direct EMF is its own peak. */
function openRms(circuit: Circuit, voltageRms: number): number {
  return circuit.direct ? Math.SQRT2 * voltageRms : clippedRms(voltageRms, circuit.clip);
}

/** RMS of an EMF of the given unclipped RMS after clipping at (1-k) of its peak, V. */
export function clippedRms(voltageRms: number, clip: number): number {
  if (!(clip < 1)) return voltageRms;
  const a = Math.asin(clip);
  return (
    Math.SQRT2 * voltageRms * Math.sqrt((2 / Math.PI) * (a / 2 - Math.sin(2 * a) / 4 + (Math.PI / 2 - a) * clip * clip))
  );
}

/** Energy in all capacitors, chokes and winding inductances at the given states, J. */
export function storedEnergy(integrator: Integrator, x: Float64Array): number {
  const { circuit } = integrator;
  let joule = 0;
  circuit.elements.forEach((e, n) => {
    if (e.kind === 'capacitor') joule += 0.5 * e.capacitanceF * x[e.state]! ** 2;
    else if (e.kind === 'inductor') {
      if (e.halfAtA === Infinity) joule += 0.5 * e.inductanceH * x[e.state]! ** 2;
      else {
        const i = integrator.stage.chokeCurrent(n, x[e.state]!);
        const lost = (1 - SATURATED_SHARE) * e.inductanceH;
        joule +=
          0.5 * SATURATED_SHARE * e.inductanceH * i * i +
          0.5 * lost * e.halfAtA ** 2 * Math.log1p((i / e.halfAtA) ** 2);
      }
    }
  });
  for (const w of circuit.windings) if (w.state >= 0) joule += 0.5 * w.inductanceH * x[w.state]! ** 2;
  return joule;
}

/**
 * Turns one cycle, as its records read, into the figures of every rail, winding, diode and filter element.
 * @param mirror given when the records hold half a cycle whose other half is the same with these roles exchanged
 * @throws SolveError when source, losses, load and stored energy do not balance to 1e-4
 */
export function figuresOf(
  network: Network,
  circuit: Circuit,
  reading: Reading,
  storedJ: number,
  mirror: Circuit['mirror'] = null,
): Figures {
  const T = circuit.periodS;

  /** The whole cycle's figure from its half's, `other` being what plays the same part in the other half. */
  const whole = (own: Tally, other: Tally, sign = 1): Tally => ({
    mean: own.mean + sign * other.mean,
    meanSquare: own.meanSquare + other.meanSquare,
    max: Math.max(own.max, sign > 0 ? other.max : -other.min),
    min: Math.min(own.min, sign > 0 ? other.min : -other.max),
  });
  const twice = (x: Tally) => (mirror ? whole(x, x) : x);
  const factor = mirror ? 2 : 1;

  let sourceW = 0;
  let copperW = 0;
  const first = network.sections[0]!.winding.voltageRms;
  const windingTallies = mapped(circuit.windings, (_, w) => reading.windingA(w));
  const windings = mapped(circuit.windings, (winding, w) => {
    const own = windingTallies[w]!;
    const i = mirror ? whole(own, windingTallies[mirror.windings[w]!]!, mirror.windingSigns[w]) : own;
    const rmsA = root(i.meanSquare);
    sourceW += factor * winding.ratio * reading.drawnW(w);
    copperW += winding.ownOhm * i.meanSquare;
    return {
      rmsA,
      meanA: i.mean,
      peakA: mostIn(i),
      voltAmpere: openRms(circuit, Math.abs(winding.ratio) * first) * rmsA,
      copperLossW: winding.ownOhm * i.meanSquare,
    };
  });
  const ownPrimary = reading.primaryA();
  const primary = mirror ? whole(ownPrimary, ownPrimary, -1) : ownPrimary;
  const sharedW = circuit.sharedOhm * primary.meanSquare;

  let diodeW = 0;
  const diodes = new Array<DiodeResult>(circuit.diodes);
  const portTallies = mapped(circuit.ports, (_, n) => reading.portA(n));
  const reverseV = mapped(circuit.ports, (port, n) => (port.diodes.length > 0 ? reading.reverseV(n) : 0));
  const watts = mapped(circuit.ports, (port, n) =>
    port.law === 'open' || port.diodes.length === 0
      ? 0
      : port.law === 'resistor'
        ? port.ohm * portTallies[n]!.meanSquare
        : reading.portW(n),
  );
  circuit.ports.forEach((port, n) => {
    if (port.diodes.length === 0) return;
    const m = mirror ? mirror.ports[n]! : n;
    const i = mirror ? whole(portTallies[n]!, portTallies[m]!) : portTallies[n]!;
    const power = mirror ? watts[n]! + watts[m]! : watts[n]!;
    const open = port.law === 'open';
    const shorted = port.law === 'resistor';
    diodeW += power;
    const share = port.diodes.length;
    const lost = port.shorted.length * SHORTED_OHM * i.meanSquare;
    const result: DiodeResult = {
      meanA: open ? 0 : i.mean,
      rmsA: open ? 0 : root(i.meanSquare),
      peakA: open ? 0 : Math.max(0, i.max, shorted ? -i.min : 0),
      peakReverseV: Math.max(0, reverseV[n]!, reverseV[m]!) / share,
      meanW: (power - lost) / share,
      conductionDeg: 0,
    };
    for (const d of port.diodes) diodes[d] = { ...result };
    for (const d of port.shorted) diodes[d] = { ...result, peakReverseV: 0, meanW: SHORTED_OHM * i.meanSquare };
  });
  let strongest = 0;
  for (const d of diodes) strongest = Math.max(strongest, d.peakA);
  // A list of nothing but whole numbers is of another kind than one with a fraction: its readers would be compiled anew.
  const seconds = new Float64Array(circuit.ports.length);
  circuit.ports.forEach((port, n) => {
    if (port.diodes.length === 0 || port.law === 'open') return;
    const { peakA } = diodes[port.diodes[0]!]!;
    // In its own half of a cycle that mirrors it may not conduct at all.
    if (peakA <= 1e-6 * strongest || mostIn(portTallies[n]!) < 0.009 * peakA) return;
    seconds[n] = reading.conductionS(n, 0.01 * peakA);
  });
  circuit.ports.forEach((port, n) => {
    const whole = seconds[n]! + (mirror ? seconds[mirror.ports[n]!]! : 0);
    for (const d of port.diodes) diodes[d]!.conductionDeg = (360 * whole) / T;
  });

  let filterW = 0;
  const elementTallies = mapped(circuit.elements, (_, n) => reading.elementA(n));
  const voltTallies = mapped(circuit.elements, (_, n) => reading.elementV(n));
  const elementResults = mapped(circuit.elements, (element, n): ElementResult => {
    // The two capacitors of a doubler take turns; everything else in a filter does the same twice.
    const m = mirror && element.kind === 'capacitor' ? elementOf(circuit, mirror.states[element.state]!) : n;
    const i = mirror ? whole(elementTallies[n]!, elementTallies[m]!) : elementTallies[n]!;
    filterW += i.meanSquare * (element.kind === 'capacitor' ? element.esrOhm : element.ohm);
    const maxV = Math.max(voltTallies[n]!.max, voltTallies[m]!.max);
    const minV = Math.min(voltTallies[n]!.min, voltTallies[m]!.min);
    return {
      kind: element.kind,
      rmsA: root(i.meanSquare),
      meanA: i.mean,
      meanV: mirror ? voltTallies[n]!.mean + voltTallies[m]!.mean : voltTallies[n]!.mean,
      peakToPeakV: maxV - minV,
      minA: i.min,
      maxA: i.max,
      minV,
      maxV,
    };
  });

  let loadW = 0;
  const rails = mapped(circuit.rails, (rail, r) => {
    const v = twice(reading.railV(r));
    const same = rail.inputNode === rail.outputNode;
    const input = same ? v : twice(reading.railInputV(r));
    const loadPowerW = factor * reading.loadW(r);
    loadW += loadPowerW;
    const { regulator } = rail.load;
    return {
      meanV: v.mean,
      minV: v.min,
      maxV: v.max,
      ripplePeakToPeakV: v.max - v.min,
      rippleRmsV: root(factor * reading.spreadV2(r, v.mean)),
      inputMeanV: input.mean,
      inputMinV: input.min,
      inputMaxV: input.max,
      inputRipplePeakToPeakV: input.max - input.min,
      loadMeanA: factor * reading.loadA(r).mean,
      loadPowerW,
      // There with and without a regulator: rails laid out in two ways would have their readers compiled twice.
      outputMinV: regulator ? regulatorOutput(regulator, v.min) : undefined,
      outputMaxV: regulator ? regulatorOutput(regulator, v.max) : undefined,
    };
  });
  const acLoads = mapped(circuit.acPorts, (n) => {
    const meanSquare = factor * portTallies[n]!.meanSquare;
    const { ohm } = circuit.ports[n]!;
    loadW += ohm * meanSquare;
    return { rmsV: ohm * Math.sqrt(meanSquare), rmsA: Math.sqrt(meanSquare), powerW: ohm * meanSquare };
  });

  const storedW = storedJ / T;
  const scale = Math.max(Math.abs(sourceW), Math.abs(loadW), 1e-12);
  const energyBalance: Figures['energyBalance'] = {
    sourceW,
    loadW,
    copperW,
    diodeW,
    filterW,
    storedW,
    relativeError: (sourceW - loadW - copperW - sharedW - diodeW - filterW - storedW) / scale,
  };
  if (circuit.sharedOhm > 0) energyBalance.sharedW = sharedW;
  // A supply that idles on leakage alone handles no power worth balancing to parts in ten thousand.
  const floor = 1e-9 * circuit.peakV * circuit.typicalA;
  if (!(Math.abs(energyBalance.relativeError) * scale <= ENERGY_TOLERANCE * Math.max(scale, floor))) {
    throw new SolveError(
      `the energy of the cycle does not balance (${(100 * energyBalance.relativeError).toFixed(3)} % off)`,
    );
  }

  const figures: Figures = {
    source: { rms: openRms(circuit, first) },
    primary: { rmsA: root(primary.meanSquare), meanA: primary.mean, peakA: mostIn(primary) },
    rails,
    windings,
    diodes,
    elements: elementsByRail(network, circuit, elementResults),
    energyBalance,
  };
  // Set one by one: put together from pieces, each of which may be left out, it takes a fifth of all figures' time.
  if (network.id !== undefined) figures.id = network.id;
  if (circuit.sharedOhm > 0) figures.source.sharedLossW = sharedW;
  const cans = circuit.rails.flatMap((r) => r.cans);
  if (cans.length > 0) figures.cans = mapped(cans, (c) => elementResults[c.element]!);
  if (cans.length === 2 && cans[1]!.at === 'stack') figures.doublerLowerCapacitor = figures.cans![1]!;
  if (acLoads.length > 0) figures.acLoads = acLoads;
  return figures;
}

/** Under the kinds their filters have them by. */
function elementsByRail(network: Network, { rails }: Circuit, results: readonly ElementResult[]): ElementResult[][] {
  const found: ElementResult[][] = [];
  for (const section of network.sections)
    for (const { filter } of section.rails) {
      const { elements } = rails[found.length]!;
      found.push(mapped(elements, (n, position) => ({ ...results[n]!, kind: filter[position]!.kind })));
    }
  return found;
}

const mostIn = ({ max, min }: Tally): number => Math.max(max, -min);

/** The capacitor or choke a state belongs to. */
function elementOf(circuit: Circuit, state: number): number {
  return circuit.elements.findIndex((e) => e.kind !== 'resistor' && e.state === state);
}
