import type { Circuit, CircuitRail } from '@/core/circuit/assemble';
import { fluxAt } from '@/core/circuit/choke-flux';
import { dropV, type Port } from '@/core/circuit/port';
import { wrightOmega } from './wright-omega';
import { zeroBetween } from './zero';

/** Where the search for a periodic cycle starts, and on which scale each state counts. */
export interface Guess {
  state: Float64Array;
  /** What each state is expected to move through in a cycle. */
  swing: Float64Array;
  /** The least swing worth resolving. */
  floor: Float64Array;
  /** The largest swing that sets the scale of errors: a capacitor that swings through most of the peak still has a valley. */
  ceiling: Float64Array;
  least: Float64Array;
  most: Float64Array;
  /** The farthest one correction may move it. */
  reach: Float64Array;
}

const POINTS = 24;
const SINE = Float64Array.from({ length: POINTS }, (_, p) => Math.sin((2 * Math.PI * (p + 0.5)) / POINTS));

/**
 * Quasi-static guess, rail by rail (with `scaleOnly` the level is left rough, for a search that has a better start): a reservoir is taken as a constant voltage that just takes in what the load draws; a
 * choke input as a constant voltage behind the choke, its current continuous or not. Coupling between rails is left to
 * the search.
 */
export function firstGuess(circuit: Circuit, scaleOnly = false): Guess {
  const { states, elements, peakV, typicalA, periodS } = circuit;
  const guess: Guess = {
    state: new Float64Array(states),
    swing: new Float64Array(states),
    floor: new Float64Array(states),
    ceiling: new Float64Array(states).fill(Infinity),
    least: new Float64Array(states),
    most: new Float64Array(states),
    reach: new Float64Array(states).fill(Infinity),
  };
  /** Primary current the other rails draw at each point, A, as far as it is known. */
  const coupled = circuit.sharedOhm > 0 && circuit.rails.length > 1;
  const drawn = coupled ? circuit.rails.map(() => new Float64Array(POINTS)) : [];
  const others = new Float64Array(coupled ? POINTS : 0);
  const chokes = elements.some((e) => e.kind === 'inductor');
  const set = (n: number, value: number, swing: number, floor: number, limit: number) => {
    guess.state[n] = value;
    guess.swing[n] = Math.max(swing, floor);
    guess.floor[n] = floor;
    guess.least[n] = -limit;
    guess.most[n] = limit;
  };
  for (const winding of circuit.windings) {
    if (winding.state >= 0) set(winding.state, 0, 3 * typicalA, 1e-2 * typicalA, 1e4 * typicalA + peakV / 1e-3);
  }
  for (const [index, rail] of coupled
    ? [...circuit.rails.entries(), ...circuit.rails.entries()]
    : circuit.rails.entries()) {
    others.fill(0);
    drawn.forEach((list, r) => r !== index && list.forEach((i, p) => (others[p]! += i)));
    const first = elements[rail.elements[0] ?? -1];
    // Put together one by one: what `map` makes is of one kind or another, by how warm the machine is, and whoever reads it
    // is compiled anew each time.
    const feeding: Feed[] = [];
    let highest = 0;
    for (const port of circuit.ports) {
      const [joined] = port.into;
      if (port.law === 'open' || !joined || circuit.inputs[joined.input]!.plus !== rail.inputNode) continue;
      const fed = feed(circuit, port);
      feeding.push(fed);
      highest = Math.max(highest, fed.peakV);
    }
    const railPeak = highest || peakV;
    // Every loop of a multiplier hands on the load's current from one level to the next: one of them is looked at.
    const share = rail.peaks;
    const ahead = seriesOhm(circuit, rail);
    const input = chokeInput(circuit, rail);
    const shuntS = rail.elements.reduce((sum, n) => {
      const element = elements[n]!;
      return sum + (element.kind === 'resistor' && element.to < 0 ? 1 / element.ohm : 0);
    }, 0);
    const balance = (v: number) => {
      const loadA = loadAt(rail, share * v, ahead, shuntS);
      return (
        (input.choke
          ? meanThroughChoke(circuit, feeding, v, input)
          : coupled
            ? meanInto(circuit, feeding, v, input.ohm, others)
            : meanInPulses(circuit, feeding, v, input.ohm)) - loadA
      );
    };
    const resolution = () => {
      const running = loadAt(rail, 0.9 * share * railPeak, ahead, shuntS);
      const reservoirF = first?.kind === 'capacitor' ? first.capacitanceF : Infinity;
      return Math.min(0.01 * railPeak, Math.max(1e-5 * railPeak, (0.05 * running * periodS) / (2 * reservoirF)));
    };
    // Where only the scales are wanted the level may be a guess.
    const inputV = scaleOnly
      ? 0.8 * railPeak
      : circuit.direct
        ? standingOn(feeding, input.ohm, (v) => loadAt(rail, v, ahead, shuntS))
        : balanced(balance, railPeak, resolution());
    if (coupled && !input.choke) meanInto(circuit, feeding, inputV, input.ohm, others, drawn[index]);
    const loadA = loadAt(rail, share * inputV, ahead, shuntS);
    let v = share * inputV;
    let ripple = circuit.direct ? 0 : (loadA * periodS) / 2;
    let behind = false;
    const limitV = (chokes ? 30 : 3) * railPeak;
    for (const n of rail.elements) {
      const element = elements[n]!;
      if (element.kind === 'capacitor') {
        const swing = Math.min(ripple / element.capacitanceF, 0.2 * railPeak);
        const value =
          element === first && rail.cans.length > 0
            ? (v * (rail.cans[0]!.at === 'stack' ? rail.cans[0]!.peaks : share)) / share
            : v;
        // At the EMF's zero crossing a reservoir is about halfway down its discharge.
        guess.reach[element.state] = 0.25 * railPeak;
        guess.ceiling[element.state] = 0.1 * railPeak;
        set(element.state, Math.max(0, value - (behind ? 0 : 0.1 * swing)), swing, 1e-5 * railPeak, limitV);
        behind = true;
        ripple *= 0.2;
      } else if (element.kind === 'inductor') {
        const state = fluxAt(element.inductanceH, element.halfAtA, loadA);
        const perAmp = element.halfAtA === Infinity ? 1 : element.inductanceH;
        set(
          element.state,
          element.halfAtA === Infinity ? loadA : state,
          perAmp * typicalA,
          1e-4 * perAmp * typicalA,
          1e3 * perAmp * typicalA + (peakV * periodS) / (element.halfAtA === Infinity ? element.inductanceH : 1),
        );
        if (behind) v -= element.ohm * loadA;
        behind = true;
        ripple *= 0.1;
      } else if (element.to >= 0 && behind) v -= element.ohm * loadA;
    }
    // The other capacitors of a multiplier stand at their own levels and swing as its first does.
    const head = elements[rail.elements[0] ?? -1];
    for (const can of rail.cans) {
      const element = elements[can.element]!;
      if (head?.kind !== 'capacitor' || element.kind !== 'capacitor' || element === head) continue;
      for (const list of [guess.swing, guess.floor, guess.least, guess.most, guess.reach, guess.ceiling]) {
        list[element.state] = list[head.state]!;
      }
      const level = rail.cans[0]!.at === 'stack' ? rail.cans[0]!.peaks : share;
      guess.state[element.state] = (guess.state[head.state]! * can.peaks) / level;
    }
  }
  return guess;
}

/** Below this share of the peak few rails stand: from here the balance is looked for, upwards or downwards. */
const USUAL = 0.8;

/** The voltage at which what comes in is what goes out: nothing or the peak where one always outweighs the other. */
function balanced(balance: (v: number) => number, peakV: number, resolution: number): number {
  const usualV = USUAL * peakV;
  const usual = balance(usualV);
  const endV = usual > 0 ? peakV : 0;
  const end = balance(endV);
  if (end > 0 === usual > 0) return endV;
  return usual > 0
    ? zeroBetween(balance, usualV, peakV, usual, end, resolution)
    : zeroBetween(balance, 0, usualV, end, usual, resolution);
}

/** Crest of a usual charging pulse as a multiple of the direct current. */
const PULSE_TIMES = 5;

interface Feed {
  /** Peak of this loop's EMF, V, with its polarity against the common EMF. */
  peakV: number;
  polarity: number;
  /** EMF against the common one, V/V. */
  ratio: number;
  ohm: number;
  thetaV: number;
  saturationA: number;
}

function feed(circuit: Circuit, port: Port): Feed {
  const winding = circuit.windings[port.winding]!;
  const whole = port.floating >= 0 ? 2 : 1;
  const ratio = winding.ratio * port.share * whole;
  // A valve is taken as the resistance it has at the crest of a usual pulse: enough for a guess.
  const crestA = PULSE_TIMES * circuit.typicalA;
  const valveOhm = port.law === 'valve' ? dropV(port, crestA) / crestA : 0;
  return {
    peakV: Math.abs(ratio) * circuit.peakV,
    polarity: Math.sign(ratio),
    ratio: Math.abs(ratio),
    ohm: winding.ownOhm + circuit.sharedOhm * winding.ratio ** 2 + (port.ohm + valveOhm) * whole + 1e-6,
    thetaV: Math.max(port.thetaV * whole, 1e-3),
    saturationA: port.saturationA || 1e-9,
  };
}

function emfAt(circuit: Circuit, point: number): number {
  return Math.min(Math.max(SINE[point]!, -circuit.clip), circuit.clip);
}

/** Mean current into a constant voltage, A. */
function meanInto(
  circuit: Circuit,
  feeding: readonly Feed[],
  v: number,
  extraOhm: number,
  others: Float64Array,
  drawn?: Float64Array,
): number {
  drawn?.fill(0);
  // Where the halves of a cycle mirror each other one tells all.
  const points = circuit.mirror && feeding.length > 1 && !drawn && circuit.sharedOhm === 0 ? POINTS / 2 : POINTS;
  let sum = 0;
  for (const f of feeding) {
    const ohm = f.ohm + extraOhm;
    const x = (ohm * f.saturationA) / f.thetaV;
    const shift = x + Math.log(x);
    const scale = f.thetaV / ohm;
    for (let p = 0; p < points; p++) {
      const drive = f.polarity * (emfAt(circuit, p) * f.peakV - f.ratio * circuit.sharedOhm * others[p]!) - v;
      if (drive <= 0) continue;
      const i = wrightOmega(drive / f.thetaV + shift) * scale;
      sum += i;
      if (drawn) drawn[p]! += f.polarity * f.ratio * i;
    }
  }
  return sum / points;
}

/** Where a rail stands that a DC source feeds: its volts less what resistance and diode take at the load it then has. */
function standingOn(feeding: readonly Feed[], extraOhm: number, load: (v: number) => number): number {
  const f = feeding[0];
  if (!f) return 0;
  let v = f.peakV;
  for (let round = 0; round < 25; round++) {
    const amps = Math.max(0, load(v));
    const given = f.peakV - amps * (f.ohm + extraOhm) - f.thetaV * Math.log1p(amps / f.saturationA);
    v = Math.max(0, round === 0 ? given : (v + given) / 2);
  }
  return v;
}

/** Points of a pulse: even a short one is resolved, for they all lie within it. */
const IN_PULSE = 10;

/** The same where nothing is shared: each loop is looked at only while its EMF stands above what it charges. */
function meanInPulses(circuit: Circuit, feeding: readonly Feed[], v: number, extraOhm: number): number {
  let mean = 0;
  let own = 0;
  for (let n = 0; n < feeding.length; n++) {
    const f = feeding[n]!;
    // The loops of a bridge or a centre tap differ in when their pulses come, and in nothing else.
    if (n === 0 || !pulsesAlike(f, feeding[n - 1]!)) own = meanOfPulses(circuit, f, v, extraOhm);
    mean += own;
  }
  return mean;
}

const pulsesAlike = (a: Feed, b: Feed): boolean =>
  a.peakV === b.peakV && a.ohm === b.ohm && a.thetaV === b.thetaV && a.saturationA === b.saturationA;

function meanOfPulses(circuit: Circuit, f: Feed, v: number, extraOhm: number): number {
  if (f.peakV * circuit.clip <= v) return 0;
  const ohm = f.ohm + extraOhm;
  const x = (ohm * f.saturationA) / f.thetaV;
  const shift = x + Math.log(x);
  const scale = f.thetaV / ohm;
  const from = v <= 0 ? 0 : Math.asin(v / f.peakV);
  const width = Math.PI - 2 * from;
  let sum = 0;
  // The pulse is the same on both sides of its crest.
  for (let p = 0; p < IN_PULSE; p++) {
    const s = Math.min(Math.sin(from + ((p + 0.5) / (2 * IN_PULSE)) * width), circuit.clip);
    sum += wrightOmega((s * f.peakV - v) / f.thetaV + shift) * scale;
  }
  return (sum / IN_PULSE) * (width / (2 * Math.PI));
}

/** Mean current through a choke input into a constant voltage, A: two cycles from rest show whether it ever ceases. */
function meanThroughChoke(
  circuit: Circuit,
  feeding: readonly Feed[],
  v: number,
  input: { inductanceH: number; ohm: number },
): number {
  const dt = circuit.periodS / POINTS;
  const ohm = input.ohm + (feeding[0]?.ohm ?? 0);
  const drop = (feeding[0]?.thetaV ?? 0) * 16;
  const drive = (p: number) => {
    const s = emfAt(circuit, p % POINTS);
    let best = -drop;
    for (const f of feeding) best = Math.max(best, f.polarity * s * f.peakV - drop);
    return best;
  };
  let mean = 0;
  for (let p = 0; p < POINTS; p++) mean += drive(p) / POINTS;
  const continuousA = (mean - v) / Math.max(ohm, 1e-6);
  let i = 0;
  let sum = 0;
  let ceased = false;
  for (let p = 0; p < 2 * POINTS; p++) {
    i = Math.max(0, (i + ((drive(p) - v) / input.inductanceH) * dt) / (1 + (ohm / input.inductanceH) * dt));
    if (p >= POINTS) {
      sum += i / POINTS;
      if (i === 0) ceased = true;
    }
  }
  return ceased ? sum : Math.max(sum, continuousA);
}

/** What lies in series before the first capacitor. */
function chokeInput(circuit: Circuit, rail: CircuitRail): { choke: boolean; inductanceH: number; ohm: number } {
  let inductanceH = 0;
  let ohm = 0;
  for (const n of rail.elements) {
    const element = circuit.elements[n]!;
    if (element.kind === 'capacitor') break;
    if (element.kind === 'inductor') inductanceH += element.inductanceH;
    if (element.kind === 'inductor' || element.to >= 0) ohm += element.ohm;
  }
  return { choke: inductanceH > 0, inductanceH, ohm };
}

/** Series resistance between the first capacitor and the load, ohm. */
function seriesOhm(circuit: Circuit, rail: CircuitRail): number {
  let ohm = 0;
  let behind = false;
  for (const n of rail.elements) {
    const element = circuit.elements[n]!;
    if (element.kind === 'capacitor') behind = true;
    else if (behind && (element.kind === 'inductor' || element.to >= 0)) ohm += element.ohm;
  }
  return ohm;
}

/** Current a rail whose reservoir stands at v takes out of it, bleeders included, A. */
function loadAt(rail: CircuitRail, v: number, ohm: number, shuntS: number): number {
  const { current } = rail.load;
  if (ohm === 0 || v <= 0) return current(v, Infinity) + shuntS * v;
  const short = (at: number) => at + ohm * current(at, Infinity) - v;
  const most = short(v);
  const atRail = most > 0 ? zeroBetween(short, 0, v, short(0), most, 1e-9 * v) : v;
  return current(atRail, Infinity) + shuntS * v;
}
