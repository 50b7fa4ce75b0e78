import type { Load, Network } from '@/core/circuit/network';
import { SolveError } from '@/core/solve/solve-error';
import { resultFile } from '@/core/solve/solve-run';
import { solveSteady } from '@/core/solve/steady';

/** One state a case is read or asked in: what the mains gave and what hung on each rail. */
export interface CaseState {
  mainsV: number;
  /** Of each rail in turn. */
  loads: readonly (readonly Load[])[];
}

/** Where a case's own part of the network lies, by the first name of a path. */
const HOME: Readonly<Record<string, (network: Network) => unknown>> = {
  rails: (n) => n.sections[0]!.rails,
  rectifier: (n) => n.sections[0]!.rectifier,
};

/** Words of a dotted path, 'rails.0.filter.1.esrOhm' or 'rails[0].filter[1].esrOhm'. */
export const wordsOfPath = (path: string): string[] =>
  path
    .replace(/\[(\d+)\]/g, '.$1')
    .split('.')
    .filter((w) => w !== '');

function placeOf(network: Network, path: string): { holder: Record<string, unknown>; key: string } | null {
  const words = wordsOfPath(path);
  const [first, ...rest] = words;
  let holder: unknown;
  const key = rest.pop();
  if (first === 'source') {
    if (rest.length > 0 || key === undefined) return null;
    holder = key === 'sharedResistanceOhm' || key === 'flatTop' ? network.mains : network.sections[0]!.winding;
  } else {
    holder = first === undefined ? null : HOME[first]?.(network);
    for (const word of rest) holder = (holder as Record<string, unknown> | null | undefined)?.[word];
  }
  if (key === undefined || holder === null || typeof holder !== 'object') return null;
  if (Array.isArray(holder)) return null;
  return { holder: holder as Record<string, unknown>, key };
}

/** The number a path leads to in a case; null where there is none. */
export function numberAt(network: Network, path: string): number | null {
  const place = placeOf(network, path);
  const value = place && Object.hasOwn(place.holder, place.key) ? place.holder[place.key] : null;
  return typeof value === 'number' ? value : null;
}

/** A copy of the network with numbers put where paths lead. */
export function withNumbers(network: Network, paths: readonly string[], values: readonly number[]): Network {
  const copy = structuredClone(network);
  paths.forEach((path, n) => {
    const { holder, key } = placeOf(copy, path)!;
    holder[key] = values[n]!;
  });
  return copy;
}

/** The number a path leads to in a result; null where there is none. */
export function resultAt(result: Record<string, unknown>, path: string): number | null {
  let value: unknown = result;
  for (const word of wordsOfPath(path))
    value = value !== null && typeof value === 'object' && Object.hasOwn(value, word) ? (value as never)[word] : null;
  return typeof value === 'number' && Number.isFinite(value) ? value : null;
}

/** The circuit with nothing hanging on it: what hangs there belongs to a state. */
export const unloaded = (network: Network): Network => ({
  ...network,
  sections: network.sections.map((s) => ({ ...s, rails: s.rails.map((r) => ({ ...r, load: [] })) })),
});

/** More of the crest than this is never clipped off. */
const MOST_FLAT = 0.9;

/** Solves a circuit in states, each beginning where that state was solved last. */
export class CaseSolver {
  private readonly warm = new Map<CaseState, readonly number[]>();

  constructor(private readonly referenceMainsV: number) {}

  /**
   * The result of one state.
   * @param network what hangs on its rails does so besides the state's loads: a leak, something forgotten
   * @throws SolveError
   */
  result(network: Network, state: CaseState): Record<string, unknown> {
    if (network.mains.flatTop > MOST_FLAT) throw new SolveError('nothing of the sine is left');
    const section = network.sections[0]!;
    const { winding } = section;
    const warm = this.warm.get(state);
    const solution = solveSteady(
      {
        ...network,
        sections: [
          {
            ...section,
            winding: { ...winding, voltageRms: (winding.voltageRms * state.mainsV) / this.referenceMainsV },
            rails: section.rails.map((rail, r) => ({ ...rail, load: [...rail.load, ...state.loads[r]!] })),
          },
        ],
      },
      warm ? { warm } : {},
    );
    this.warm.set(state, solution.state);
    return resultFile(solution);
  }
}
