import fc from 'fast-check';
import { assemble, type Circuit } from '@/core/circuit/assemble';
import { readCase } from '@/core/circuit/case-file';
import { apartStage } from '@/core/solve/apart-stage';
import { carryOf } from '@/core/solve/carry';
import { emf, RUNNING_MAINS, stops } from '@/core/solve/emf';
import { GAMMA } from '@/core/solve/esdirk';
import { stageLayout } from '@/core/solve/layout';
import { levelBuilder } from '@/core/solve/level';
import { driveOf, finishPorts, ownCurrent, spaceCharge } from '@/core/solve/port-law';
import { portResponse } from '@/core/solve/port-response';
import { DIODE, loadPorts, newPortState, VALVE } from '@/core/solve/port-state';
import { portSolver } from '@/core/solve/ports';
import { makeRoom, newRecords } from '@/core/solve/records';
import { stageSolver } from '@/core/solve/stage';
import { stepOf } from '@/core/solve/step';
import { swingingChokes } from '@/core/solve/swings';
import { wrightOmega } from '@/core/solve/wright-omega';
import { readFileSync } from 'node:fs';

const circuitOf = (id: string): Circuit =>
  assemble(readCase(JSON.parse(readFileSync(`tests/fixtures/cases/${id}.json`, 'utf8'))).network);
const bridge = () => circuitOf('01-bridge-12v-500ma');
const halfWave = () => circuitOf('03-halfwave-24v-rload-esr0');
const split = () => circuitOf('29-split-bridge-unequal');
const choked = (halfAtA: number): Circuit => {
  const circuit = circuitOf('12-centretap-choke-input-above');
  for (const e of circuit.elements) if (e.kind === 'inductor') e.halfAtA = halfAtA;
  return circuit;
};

/** A circuit's stage taken apart, its level built for a step. */
function parts(circuit: Circuit, gammaH: number) {
  const at = stageLayout(circuit);
  const state = newPortState(circuit);
  loadPorts(state, circuit);
  const builder = levelBuilder(at, circuit);
  builder.load(circuit);
  const d = new Float64Array(at.length);
  builder.build(
    d,
    gammaH,
    Int32Array.from(circuit.rails, (r) => r.load.offset.length - 1),
  );
  finishPorts(at, state, d);
  return { at, state, builder, d };
}

test('what stands in a level lies one behind the other, without a gap', () => {
  for (const circuit of [bridge(), split(), choked(1)]) {
    const at = stageLayout(circuit);
    const { ports: p, bends, states, rails, nodes, given } = at;
    const sizes: [keyof typeof at, number][] = [
      ['u', p * given],
      ['uC', p],
      ['y', (states + rails) * given],
      ['yP', (states + rails) * p],
      ['yC', states + rails],
      ['node', nodes * given],
      ['nodeP', nodes * p],
      ['nodeC', nodes],
      ['z', p * p],
      ['ohm', p],
      ['shift', p],
      ['perAmp', p],
      ['leak', p],
      ['off', p],
      ['row', p * (2 + given + bends)],
      ['rest', states + rails],
    ];
    let from = 0;
    for (const [name, size] of sizes) {
      expect(at[name]).toBe(from);
      from += size;
    }
    expect(at.length).toBe(from);
  }
});

test('one capacitor with its ESR and a resistor: a level is a divider', () => {
  // 1000 µF without ESR beside 120 ohm, seen from the diode: the capacitor is a source behind g/C.
  const gammaH = 1e-4;
  const { at, d } = parts(halfWave(), gammaH);
  const [cOhm, loadOhm] = [gammaH / 1e-3, 120];
  const both = (cOhm * loadOhm) / (cOhm + loadOhm);
  // The starting volts divide over both; the load pulls them down within the step.
  expect(d[at.node]).toBeCloseTo(loadOhm / (cOhm + loadOhm), 9);
  expect(d[at.nodeP]).toBeCloseTo(both, 9);
  expect(d[at.u]).toBeCloseTo(-loadOhm / (cOhm + loadOhm), 9);
  expect(d[at.z]).toBeCloseTo(1.5 + both, 9);
  expect(d[at.ohm]).toBeCloseTo(1.5 + both + 0.03, 9);
  // What the capacitor gains is its charge: current into it times g/C.
  expect(d[at.yP]).toBeCloseTo(both, 9);
  expect(d[at.y]).toBeCloseTo(-cOhm / (cOhm + loadOhm), 9);
});

test('a diode with what lies in series carries what its exponential asks for', () => {
  const { at, state, d } = parts(halfWave(), 1e-4);
  const [theta, saturation, ohm] = [state.theta[0]!, state.saturation[0]!, d[at.ohm]!];
  fc.assert(
    fc.property(fc.double({ min: -5, max: 60, noNaN: true }), (drive) => {
      const i = ownCurrent(at, state, d, 0, drive);
      const law = saturation * Math.expm1((drive - ohm * i) / theta);
      expect(i).toBeGreaterThanOrEqual(-saturation);
      expect(Math.abs(i - law)).toBeLessThan(1e-9 * (Math.abs(law) + saturation) * (1 + Math.abs(drive) / theta));
      // Its slope, by differences.
      const slope = state.slope[0]!;
      const dv = 1e-5;
      const by = (ownCurrent(at, state, d, 0, drive + dv) - ownCurrent(at, state, d, 0, drive - dv)) / (2 * dv);
      expect(Math.abs(slope - by)).toBeLessThan(1e-5 * (slope + saturation / theta));
    }),
    { numRuns: 500 },
  );
});

test('a valve carries the power of three halves of what is left for it', () => {
  for (const [ohm, perveance, drive] of [
    [100, 1e-3, 50],
    [1e3, 2e-4, 300],
    [1, 1e-3, 0.01],
  ] as const) {
    const i = spaceCharge(ohm, perveance, drive);
    expect(i).toBeCloseTo(perveance * (drive - ohm * i) ** 1.5, 12);
  }
  const { at, state, d } = parts(halfWave(), 1e-4);
  state.law[0] = VALVE;
  state.perveance[0] = 2e-3;
  const i = ownCurrent(at, state, d, 0, 40);
  const own = 1.5 * 2e-3 * Math.sqrt(40 - d[at.ohm]! * i);
  expect(state.slope[0]).toBeCloseTo(own / (1 + d[at.ohm]! * own), 9);
  expect(ownCurrent(at, state, d, 0, -1)).toBe(0);
});

test('omega to twelve digits where its kept values join, and between them', () => {
  const miss = (z: number) => {
    const w = wrightOmega(z);
    // Against Newton's method on w + ln w = z from there, which squares what is left.
    const better = w - ((w + Math.log(w) - z) * w) / (1 + w);
    return Math.abs(w - better) / better;
  };
  for (const z of [-40.000001, -40, -39.97, -1, 0, 1 / 32, 63.97, 63.9999999, 64, 64.5, 2047.6, 2048, 5000]) {
    expect(miss(z)).toBeLessThan(1e-12);
  }
  fc.assert(fc.property(fc.double({ min: -39, max: 70, noNaN: true }), (z) => miss(z) < 1e-12));
  expect(wrightOmega(NaN)).toBeNaN();
});

test.each<[string, () => Circuit]>([
  ['a bridge', bridge],
  ['a split supply', split],
  ['a filter', () => circuitOf('25-bridge-rc-filter')],
])('%s in closed form is what the search finds', (_name, make) => {
  const circuit = make();
  const { at, state, builder, d } = parts(circuit, 1e-4);
  const apart = apartStage(at, state);
  expect(apart.usable).toBe(true);
  apart.finish(d, builder.uE);
  const search = portSolver(at, state, { done: 0 });
  const peak = circuit.peakV;
  let closed = 0;
  fc.assert(
    fc.property(
      fc.double({ min: -1, max: 1, noNaN: true }),
      fc.array(fc.double({ min: 0.5, max: 0.9, noNaN: true }), { minLength: at.given, maxLength: at.given }),
      (e, levels) => {
        const given = Float64Array.from(levels, (l, n) => (n < 2 ? l * peak * 0.8 : 0));
        const u = Float64Array.from(circuit.ports, (_, p) => {
          let sum = builder.uE[p]! * e * peak + d[at.uC + p]!;
          for (let g = 0; g < at.given; g++) sum += d[at.u + p * at.given + g]! * given[g]!;
          return sum;
        });
        const outcome = new Float64Array(at.states + at.rails);
        // Whatever conducted last: where it still does, and alone, both agree; else the closed form says so.
        const done = state.apart && apart.solve(d, e * peak, given, outcome, outcome.length);
        const found = Float64Array.from(state.i);
        const slopes = Float64Array.from(state.slope);
        const volts = circuit.ports.map((_, p) => (done ? apart.driveV(d, p) : 0));
        const before = Array.from(state.alive.subarray(0, state.count));
        expect(search.solve(d, u)).toBe(true);
        const now = Array.from(state.alive.subarray(0, state.count));
        if (!done) return;
        closed++;
        expect(now).toEqual(before);
        for (let p = 0; p < at.ports; p++) {
          fcClose(found[p]!, state.i[p]!, 1e-9);
          fcClose(slopes[p]!, state.slope[p]!, 1e-9);
          const waits = !now.includes(p);
          fcClose(waits ? volts[p]! : 0, waits ? driveOf(at, state, d, u, p) : 0, 1e-9 * peak);
        }
        for (let n = 0; n < outcome.length; n++) {
          let sum = d[at.yC + n]!;
          for (let g = 0; g < at.given; g++) sum += d[at.y + n * at.given + g]! * given[g]!;
          for (let p = 0; p < at.ports; p++) sum += d[at.yP + n * at.ports + p]! * state.i[p]!;
          fcClose(outcome[n]!, sum, 1e-9 * peak);
        }
      },
    ),
    { numRuns: 400 },
  );
  expect(closed).toBeGreaterThan(100);
});

function fcClose(a: number, b: number, within: number): void {
  expect(Math.abs(a - b)).toBeLessThanOrEqual(within * (1 + Math.abs(b)));
}

test('how the currents follow the drives, by differences', () => {
  const { at, state, d } = parts(circuitOf('41-split-bridge-shared-unequal'), 1e-4);
  const search = portSolver(at, state, { done: 0 });
  const response = portResponse(at, state);
  const u = [3, -60, 4, -60];
  const currents = (drives: readonly number[]) => {
    expect(search.solve(d, Float64Array.from(drives))).toBe(true);
    return Float64Array.from(state.i);
  };
  currents(u);
  const s = new Float64Array(at.ports ** 2);
  response(d, s);
  for (let j = 0; j < at.ports; j++) {
    const moved = (by: number) => currents(u.map((v, n) => (n === j ? v + by : v)));
    const [up, down] = [moved(1e-4), moved(-1e-4)];
    for (let k = 0; k < at.ports; k++) fcClose(s[k * at.ports + j]!, (up[k]! - down[k]!) / 2e-4, 1e-5);
  }
});

describe('the common EMF', () => {
  test('is a sine cut off at its clip, missing, or rising', () => {
    const circuit = { ...bridge(), clip: 0.9 };
    const at = (degrees: number, mains = RUNNING_MAINS) => emf(circuit, mains, (degrees / 360) * circuit.periodS);
    const peak = 12 * Math.SQRT2;
    expect(at(30)).toBeCloseTo(0.5 * peak, 9);
    expect(at(90)).toBeCloseTo(0.9 * peak, 9);
    expect(at(270)).toBeCloseTo(-0.9 * peak, 9);
    expect(at(90, { phase: 0, factor: 0 })).toBe(0);
    expect(at(180, { phase: -Math.PI / 2, factor: 1, factorPerS: 10 })).toBeCloseTo(1.1 * 0.9 * peak, 9);
  });

  test('stops a step at its crest, or at both edges of its flat top', () => {
    const circuit = bridge();
    const T = circuit.periodS;
    expect(stops(circuit, RUNNING_MAINS, 0, T / 2)).toEqual([T / 4, T / 2]);
    const edge = (Math.asin(0.9) / (2 * Math.PI)) * T;
    const found = stops({ ...circuit, clip: 0.9 }, RUNNING_MAINS, 0, T / 2);
    expect(found).toHaveLength(3);
    expect(found[0]).toBeCloseTo(edge, 12);
    expect(found[1]).toBeCloseTo(T / 2 - edge, 12);
    expect(stops(circuit, { phase: 0, factor: 0 }, 0, T)).toEqual([T]);
  });
});

test('records keep their rows as room is made', () => {
  const records = newRecords(bridge());
  records.count = 500;
  records.data[499 * records.stride] = 7;
  makeRoom(records, 12);
  const same = records.data;
  makeRoom(records, 13);
  expect(records.data).not.toBe(same);
  expect(records.data[499 * records.stride]).toBe(7);
  expect(records.data.length).toBeGreaterThanOrEqual(513 * records.stride);
});

test('a capacitor left alone with its resistor falls as an exponential, and so does how it moves with its start', () => {
  const circuit = halfWave();
  const stage = stageSolver(circuit, { done: 0 });
  const records = newRecords(circuit);
  const carry = carryOf(stage, 1);
  const step = stepOf(circuit, stage, records, carry);
  const options = { mains: { phase: 0, factor: 0 }, record: true, carry: true, fromRest: false };
  step.x[0] = 30;
  step.setTolerance(1e-6, Float64Array.of(1), 1);
  carry.begin();
  step.derive(0, options);
  // dV/dt at the start: V/RC.
  expect(step.lastK[0]).toBeCloseTo(-30 / 0.12, 3);
  const h = 0.012;
  expect(step.take(0, h, -1, options)).toBe(true);
  step.accept(h, options);
  // A tenth of the time constant in one step of order 4.
  const left = Math.exp(-0.1);
  expect(Math.abs(step.x[0]! / 30 - left)).toBeLessThan(1e-6);
  expect(Math.abs(carry.transition[0]! - left)).toBeLessThan(1e-6);
  expect(records.count).toBe(6);
  // Weights of an integral: they add up to the step.
  let weight = 0;
  for (let r = 0; r < 6; r++) weight += records.data[r * records.stride + 1]!;
  expect(weight).toBeCloseTo(h, 12);
});

test('halving a step divides its estimated error by sixteen', () => {
  const circuit = halfWave();
  const errorAt = (h: number) => {
    const stage = stageSolver(circuit, { done: 0 });
    const records = newRecords(circuit);
    const step = stepOf(circuit, stage, records, carryOf(stage, 1));
    const options = { mains: { phase: 0, factor: 0 }, record: false, carry: false, fromRest: false };
    step.x[0] = 30;
    step.setTolerance(1e-6, Float64Array.of(1), 1);
    step.derive(0, options);
    step.take(0, h, -1, options);
    return step.error(h);
  };
  const ratio = errorAt(0.02) / errorAt(0.01);
  expect(ratio).toBeGreaterThan(13);
  expect(ratio).toBeLessThan(19);
});

test('a swinging choke: flux and current are two names for one thing', () => {
  const circuit = choked(0.4);
  const swings = swingingChokes(circuit);
  expect(swings.any).toBe(true);
  swings.load(circuit);
  const element = circuit.elements.findIndex((e) => e.kind === 'inductor');
  const { state } = circuit.elements[element] as { state: number };
  for (const amps of [0, 0.01, 0.3, 2]) {
    expect(swings.currentOf(element, swings.stateFor(state, amps))).toBeCloseTo(amps, 10);
  }
  // At little current the flux is L times it.
  const { inductanceH } = circuit.elements[element] as { inductanceH: number };
  expect(swings.stateFor(state, 1e-6) / 1e-6 / inductanceH).toBeCloseTo(1, 6);
  expect(swingingChokes(choked(Infinity)).any).toBe(false);
});

test('a stage of a choke that swings is the stage of a stiff one with the inductance it has there', () => {
  const circuit = choked(0.5);
  const stage = stageSolver(circuit, { done: 0 });
  const x = Float64Array.from({ length: circuit.states }, (_, s) => (s === 0 ? 0 : 20));
  for (const e of circuit.elements) if (e.kind === 'inductor') x[e.state] = stage.stateFor(e.state, 0.8);
  const gammaH = GAMMA * 1e-4;
  stage.setStep(-1, gammaH);
  stage.aim(x);
  stage.base.set(x);
  expect(stage.solve(0.9 * circuit.peakV, Infinity)).toBe(true);
  stage.spell();
  const element = circuit.elements.findIndex((e) => e.kind === 'inductor');
  const choke = circuit.elements[element] as Extract<Circuit['elements'][number], { kind: 'inductor' }>;
  // Flux gained in the step is the volts across it times its length, resistance taken off.
  const amps = stage.chokeCurrent(element, stage.x[choke.state]!);
  const volts = stage.node[choke.from]! - stage.node[choke.to]! - choke.ohm * amps;
  expect(stage.change[choke.state]! / gammaH).toBeCloseTo(volts, 6);
});

test('whether ports bend is told by their law alone', () => {
  const state = newPortState(split());
  expect(Array.from(state.law)).toEqual([DIODE, DIODE, DIODE, DIODE]);
});
