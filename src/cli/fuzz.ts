import { xoroshiro128plus } from 'pure-rand/generator/xoroshiro128plus';
import { uniformFloat64 } from 'pure-rand/distribution/uniformFloat64';
import { ARRANGEMENTS } from '@/core/parts/arrangements';
import { diodeCount } from '@/core/parts/arrangement';
import { factsOf } from '@/core/parts/arrangement-facts';
import { type FilterElement, type Load, type Network, type Run } from '@/core/circuit/network';
import { RECTIFIER_KINDS } from '@/core/parts/arrangements';
import { ENERGY_TOLERANCE, type Solution } from '@/core/solve/solution';
import { SolveError } from '@/core/solve/solve-error';
import { solveRun } from '@/core/solve/solve-run';

export interface FuzzCounts {
  cases: number;
  solved: number;
  refused: number;
  crashed: number;
  notFinite: number;
  slow: number;
  unbalanced: number;
  worstMs: number;
  /** What the refusals said, and how often. */
  reasons: Record<string, number>;
  /** Seeds of everything that should not have happened. */
  suspects: number[];
}

/** Longest a case may take before it counts as hanging, ms. */
const PATIENCE_MS = 2000;

/** Solves `cases` random circuits, from plausible to absurd, and counts what became of them. */
export function fuzz(cases: number, onProgress?: (done: number) => void): FuzzCounts {
  const counts: FuzzCounts = {
    cases,
    solved: 0,
    refused: 0,
    crashed: 0,
    notFinite: 0,
    slow: 0,
    unbalanced: 0,
    worstMs: 0,
    reasons: {},
    suspects: [],
  };
  for (let seed = 1; seed <= cases; seed++) {
    const { network, run } = fuzzCase(seed);
    const start = performance.now();
    try {
      const solution = solveRun(network, run);
      counts.solved++;
      if (!allFinite(solution)) {
        counts.notFinite++;
        counts.suspects.push(seed);
      }
      const { relativeError, sourceW, loadW } = solution.energyBalance;
      const handled = Math.max(Math.abs(sourceW), Math.abs(loadW)) > 1e-6;
      if (handled && !(Math.abs(relativeError) <= ENERGY_TOLERANCE)) {
        counts.unbalanced++;
        counts.suspects.push(seed);
      }
    } catch (error) {
      if (error instanceof SolveError) {
        counts.refused++;
        const reason = error.message.replace(/\([^)]*\)/g, '').trim();
        counts.reasons[reason] = (counts.reasons[reason] ?? 0) + 1;
      } else {
        counts.crashed++;
        counts.suspects.push(seed);
      }
    }
    const ms = performance.now() - start;
    counts.worstMs = Math.max(counts.worstMs, ms);
    if (ms > PATIENCE_MS) {
      counts.slow++;
      counts.suspects.push(seed);
    }
    if (seed % 500 === 0) onProgress?.(seed);
  }
  return counts;
}

/** One random circuit; the same seed always gives the same one. */
export function fuzzCase(seed: number): { network: Network; run: Run } {
  const generator = xoroshiro128plus(seed);
  const unit = () => uniformFloat64(generator);
  const log = (low: number, high: number) => low * (high / low) ** unit();
  const pick = <T>(list: readonly T[]): T => list[Math.floor(unit() * list.length)]!;
  const maybe = (share: number) => unit() < share;
  const absurd = maybe(0.35);
  const volts = absurd ? log(0.01, 1e5) : log(3, 400);
  const amps = absurd ? log(1e-9, 1e3) : log(1e-3, 5);
  const ohm = volts / amps;
  const hertz = absurd ? log(1, 2000) : pick([50, 60]);
  const kind = pick(RECTIFIER_KINDS);
  const arrangement = ARRANGEMENTS[kind];
  const spread = () => (absurd ? log(1e-4, 1e4) : log(0.1, 10));

  const capacitor = (): FilterElement => ({
    kind: 'capacitor',
    capacitanceF: (10 / (2 * Math.PI * hertz * ohm)) * spread(),
    esrOhm: maybe(0.3) ? 0 : 0.01 * ohm * spread(),
  });
  const inductor = (): FilterElement => ({
    kind: 'inductor',
    inductanceH: (ohm / (3 * 2 * Math.PI * hertz)) * spread(),
    resistanceOhm: maybe(0.2) ? 0 : 0.03 * ohm * spread(),
    ...(maybe(0.1) ? { halfAtA: amps * spread() } : {}),
  });
  const resistor = (): FilterElement => ({ kind: 'resistor', resistanceOhm: 0.05 * ohm * spread() });
  const load = (): Load => {
    const share = spread();
    switch (pick(['current', 'resistance', 'regulator', 'power'] as const)) {
      case 'current':
        return { kind: 'current', currentA: amps * share };
      case 'resistance':
        return { kind: 'resistance', resistanceOhm: ohm * share };
      case 'regulator':
        return {
          kind: 'regulator',
          outputV: volts * log(0.3, 1.3),
          dropoutV: maybe(0.1) ? 0 : 0.1 * volts * spread(),
          currentA: amps * share,
          quiescentA: maybe(0.3) ? 0 : 0.01 * amps,
        };
      case 'power':
        return { kind: 'power', powerW: 0.5 * volts * amps * share, minV: volts * log(0.3, 1) };
    }
  };
  const filter = (): FilterElement[] => {
    const list = Array.from({ length: Math.floor(unit() * 5) }, () =>
      pick([capacitor, capacitor, inductor, resistor])(),
    );
    return factsOf(arrangement).ownCans ? [capacitor(), ...list] : list;
  };
  const diodes = diodeCount(arrangement);
  const network: Network = {
    frequencyHz: hertz,
    mains: {
      sharedResistanceOhm: maybe(0.5) ? 0 : 0.05 * ohm * spread(),
      flatTop: maybe(0.7) ? 0 : unit() * (absurd ? 0.95 : 0.15),
    },
    sections: [
      {
        winding: {
          voltageRms: volts,
          resistanceOhm: maybe(0.1) ? 0 : 0.05 * ohm * spread(),
          inductanceH: maybe(0.7) ? 0 : (0.01 * ohm * spread()) / (2 * Math.PI * hertz),
        },
        rectifier: {
          kind,
          diode: {
            saturationCurrentA: absurd ? log(1e-15, 1e-3) : log(1e-10, 1e-5),
            emissionCoefficient: absurd ? log(0.05, 20) : log(1, 2),
            seriesResistanceOhm: maybe(0.2) ? 0 : 0.003 * ohm * spread(),
            temperatureC: absurd ? -200 + 500 * unit() : 25 + 75 * unit(),
          },
          ...(maybe(0.1)
            ? { faults: [{ diode: Math.floor(unit() * diodes), state: pick(['open', 'short'] as const) }] }
            : {}),
        },
        rails: Array.from({ length: arrangement.rails }, () => ({
          filter: filter(),
          load: Array.from({ length: 1 + Math.floor(unit() * 2) }, load),
        })),
      },
    ],
    ...(maybe(0.1)
      ? {
          acLoads: [
            {
              winding: { voltageRms: volts * log(0.02, 1), resistanceOhm: 0.01 * ohm, inductanceH: 0 },
              resistanceOhm: ohm * spread(),
            },
          ],
        }
      : {}),
  };
  const stepped = network.sections[0]!.rails[0]!.load.some((l) => l.kind === 'current' || l.kind === 'regulator');
  const cycles = 1 + Math.floor(unit() * 6);
  const run: Run = maybe(0.6)
    ? { kind: 'steady' }
    : maybe(0.4)
      ? { kind: 'start', cycles, switchOnPhaseDeg: 360 * unit() }
      : stepped && maybe(0.5)
        ? { kind: 'step', fromA: amps * spread(), toA: amps * spread(), cycles }
        : { kind: 'dip', missingCycles: unit() * cycles, atCycle: 0, cycles };
  return { network, run };
}

function allFinite(solution: Solution): boolean {
  let finite = true;
  JSON.stringify(solution, (_key, value: unknown) => {
    if (typeof value === 'number' && !Number.isFinite(value)) finite = false;
    return value;
  });
  return finite;
}
