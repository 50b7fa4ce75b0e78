import { readCase } from '@/core/circuit/case-file';
import { caseFaults, type CaseFault } from '@/core/fit/case-faults';
import { CaseSolver, unloaded } from '@/core/fit/case-model';
import { predictRows } from '@/core/fit/fit-file';
import type { Network } from '@/core/circuit/network';

/** Numbers that are the same every time: uniform between 0 and 1, and normal. */
export function dice(seed: number): { uniform(): number; normal(): number } {
  let state = seed >>> 0;
  const uniform = () => {
    state = (Math.imul(state, 1664525) + 1013904223) >>> 0;
    return (state + 0.5) / 2 ** 32;
  };
  return {
    uniform,
    normal: () => Math.sqrt(-2 * Math.log(uniform())) * Math.cos(2 * Math.PI * uniform()),
  };
}

const silicon = { saturationCurrentA: 4e-9, emissionCoefficient: 1.8, seriesResistanceOhm: 0.03, temperatureC: 25 };
const rail = (capacitanceF: number) => ({
  filter: [{ kind: 'capacitor', capacitanceF, esrOhm: 0.05 }],
  load: { kind: 'current', currentA: 0.1 },
});

/** Supplies somebody might read: their file and the most they are loaded with, A. */
export const READ_SUPPLIES = {
  bridge: [
    {
      frequencyHz: 50,
      source: { voltageRms: 13.2, resistanceOhm: 0.7 },
      rectifier: { kind: 'bridge', diode: silicon },
      rails: [rail(0.0047)],
    },
    0.6,
  ],
  'centre tap': [
    {
      frequencyHz: 50,
      source: { voltageRms: 26, resistanceOhm: 0.9 },
      rectifier: { kind: 'centre-tap', diode: silicon },
      rails: [rail(0.0068)],
    },
    1.2,
  ],
  'split bridge': [
    {
      frequencyHz: 60,
      source: { voltageRms: 20, resistanceOhm: 1.2 },
      rectifier: { kind: 'split-bridge', diode: silicon },
      rails: [rail(0.0033), rail(0.0033)],
    },
    0.3,
  ],
} as const satisfies Record<string, readonly [object, number]>;

export interface SimulatedFile {
  circuit: object;
  referenceMainsV: number;
  readings: { mainsV: number; loads: object[]; read: { at: string; value: number; sigma: number }[] }[];
}

/** What a person with an ordinary meter would read of a circuit, lightly and heavily loaded. */
export function simulatedReadings(
  circuit: object,
  real: Network,
  amps: readonly number[],
  roll: ReturnType<typeof dice>,
): SimulatedFile {
  const rails = real.sections[0]!.rails.map((_, r) => r);
  const rows = amps.map((a, n) => ({
    mainsV: 231 - (n % 3),
    loads: rails.map(() => ({ kind: 'current', currentA: a })),
    at: [
      ...(n === 0 ? ['source.rms'] : []),
      ...rails.flatMap((r) => [`rails.${r}.meanV`, ...(n > 0 ? [`rails.${r}.ripplePeakToPeakV`] : [])]),
    ],
  }));
  const values = predictRows(
    new CaseSolver(230),
    real,
    rows.map((row) => ({ ...row, loads: row.loads.map((l) => [l] as never) })),
  );
  let next = 0;
  return {
    circuit,
    referenceMainsV: 230,
    readings: rows.map(({ at, ...row }) => ({
      ...row,
      read: at.map((place) => {
        const value = values[next++]!;
        const sigma = 0.0042 * Math.abs(value) + (place.includes('ripple') ? 0.01 : 0.005);
        return { at: place, value: value + sigma * roll.normal(), sigma };
      }),
    })),
  };
}

/** A build of a circuit with tolerances of its own and, where wanted, one fault at one of its places. */
export function simulatedBuild(
  circuit: object,
  fault: CaseFault['fault'],
  loadA: number,
  roll: ReturnType<typeof dice>,
): { real: Network; part: string } {
  const nominal = unloaded(readCase(circuit).network);
  const places = caseFaults(nominal, { railV: 1.3 * nominal.sections[0]!.winding.voltageRms, loadA }).filter(
    (f) => f.fault === fault,
  );
  const place = places[Math.floor(roll.uniform() * places.length)]!;
  const build = structuredClone(nominal);
  const { winding, rails } = build.sections[0]!;
  winding.voltageRms *= 1 + 0.025 * roll.normal();
  winding.resistanceOhm *= Math.exp(0.15 * roll.normal());
  for (const { filter } of rails)
    for (const e of filter) if (e.kind === 'capacitor') e.capacitanceF *= 1 + 0.1 * roll.normal();
  const u = roll.uniform();
  const severity: Partial<Record<CaseFault['fault'], number[]>> = {
    'reservoir-dry': [0.15 + 0.3 * u, 4],
    'source-weak': [(3 + 5 * u) * winding.resistanceOhm],
    'source-low': [0.72 + 0.14 * u],
    'source-high': [1.14 + 0.14 * u],
    'extra-load': [(0.4 + 0.6 * u) * loadA],
  };
  return { real: place.edit(build, severity[fault] ?? []), part: place.part };
}
