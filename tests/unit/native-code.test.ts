import { spawnSync } from 'node:child_process';
import { readdirSync, readFileSync } from 'node:fs';
import { readCase } from '@/core/circuit/case-file';
import type { Network } from '@/core/circuit/network';
import { takeSlot } from '@/core/solve/native/memory';
import type { Solution } from '@/core/solve/solution';
import { SolveError } from '@/core/solve/solve-error';
import { solveSteady } from '@/core/solve/steady';

type Solves = (network: Network) => Solution;

/** The solver with the machine's own code, or without. */
function solver(native: boolean): Solves {
  const kept = globalThis.WebAssembly;
  let made: Solves | undefined;
  jest.isolateModules(() => {
    // eslint-disable-next-line @typescript-eslint/no-require-imports
    const { solveSteady } = require('@/core/solve/steady') as { solveSteady: Solves };
    made = (network) => {
      // It looks for it with the first circuit.
      if (!native) Reflect.deleteProperty(globalThis, 'WebAssembly');
      try {
        return solveSteady(network);
      } finally {
        globalThis.WebAssembly = kept;
      }
    };
  });
  return made!;
}

const CASES = readdirSync('tests/fixtures/cases')
  .filter((f) => f.endsWith('.json'))
  .map((f) => readCase(JSON.parse(readFileSync(`tests/fixtures/cases/${f}`, 'utf8'))))
  .filter((c) => c.run.kind === 'steady')
  .map((c) => c.network);

/** A network with every value of its parts moved, each by up to twofold. */
function moved(network: Network, seed: number): Network {
  let state = seed * 2654435761 + 1;
  const random = () => {
    state = (Math.imul(state, 1664525) + 1013904223) >>> 0;
    return state / 2 ** 32;
  };
  const turn = (value: unknown, key: string): unknown => {
    if (typeof value === 'number') {
      return /^(capacitanceF|esrOhm|resistanceOhm|voltageRms|currentA|inductanceH|saturationCurrentA|ohm)$/.test(key)
        ? value * 2 ** (2 * random() - 1)
        : value;
    }
    if (Array.isArray(value)) return value.map((v) => turn(v, key));
    if (value && typeof value === 'object')
      return Object.fromEntries(Object.entries(value).map(([k, v]) => [k, turn(v, k)]));
    return value;
  };
  return turn(network, '') as Network;
}

const numbers = (s: Solution): number[] => [
  ...s.rails.flatMap((r) => [r.meanV, r.minV, r.maxV, r.inputMinV, r.loadMeanA]),
  ...s.windings.flatMap((w) => [w.rmsA, w.peakA, w.copperLossW]),
  ...s.diodes.flatMap((d) => [d.meanA, d.rmsA, d.peakA, d.peakReverseV, d.meanW, d.conductionDeg]),
  ...s.elements.flat().flatMap((e) => [e.rmsA, e.maxV, e.minV]),
];

test('2,000 random circuits: the machine’s own code and the general way give the same figures', () => {
  const [quick, general] = [solver(true), solver(false)];
  const answer = (solve: Solves, network: Network): Solution | string => {
    try {
      return solve(network);
    } catch (error) {
      return (error as Error).message.replace(/\(.*/, '');
    }
  };
  let worst = 0;
  const apart: string[] = [];
  for (let seed = 0; seed < 2000; seed++) {
    const network = moved(CASES[seed % CASES.length]!, seed);
    const [a, b] = [answer(quick, network), answer(general, network)];
    if (typeof a === 'string' || typeof b === 'string') {
      if (a !== b) apart.push(`${seed}: ${String(a)} / ${String(b)}`);
      continue;
    }
    const [p, q] = [numbers(a), numbers(b)];
    let most = 0;
    for (let n = 0; n < p.length; n++) {
      // Against what is large in the circuit where a figure is next to nothing.
      most = Math.max(most, Math.abs(p[n]! - q[n]!) / (Math.abs(q[n]!) + 1e-3));
    }
    worst = Math.max(worst, most);
  }
  expect(apart).toEqual([]);
  expect(worst).toBeLessThan(1e-7);
});

test('the last digits of a choke-input supply’s mains move no figure that anybody reads', () => {
  const below = CASES.find(
    (n) => n.sections[0]!.rectifier.kind === 'bridge' && n.sections[0]!.rails[0]!.filter[0]!.kind === 'inductor',
  )!;
  for (const seed of [294, 311, 1093]) {
    const network = moved(below, seed);
    const [section] = network.sections;
    const watts = Array.from({ length: 8 }, (_, n) => {
      const winding = { ...section!.winding, voltageRms: section!.winding.voltageRms * (1 + 3e-16 * n) };
      return solveSteady({ ...network, sections: [{ ...section!, winding }] }).windings[0]!.copperLossW;
    });
    expect(Math.max(...watts) / Math.min(...watts) - 1).toBeLessThan(1e-7);
  }
});

test('what is kept compiled is what the source says', () => {
  const { status, stderr } = spawnSync('node', ['scripts/native.mjs', '--check'], { encoding: 'utf8' });
  expect(stderr.replace(/^npm warn.*\n/gm, '')).toBe('');
  expect(status).toBe(0);
});

test('a hundred circuits of other shapes that fail leave a slot for the next', () => {
  const bridge = CASES[0]!;
  for (let n = 1; n <= 100; n++) {
    const filter = Array.from({ length: n }, () => ({ kind: 'resistor' as const, resistanceOhm: NaN }));
    const rails = bridge.sections[0]!.rails.map((r) => ({ ...r, filter: [...r.filter, ...filter] }));
    expect(() => solveSteady({ ...bridge, sections: [{ ...bridge.sections[0]!, rails }] })).toThrow(SolveError);
  }
  const slot = takeSlot();
  expect(slot).not.toBeNull();
  slot!.release();
});
