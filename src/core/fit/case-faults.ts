import { diodeCount, diodesOf } from '@/core/parts/arrangement';
import { factsOf } from '@/core/parts/arrangement-facts';
import { ARRANGEMENTS } from '@/core/parts/arrangements';
import type { FilterElement, Load, Network } from '@/core/circuit/network';
import type { Unknown } from './belief';

/** What can be wrong with a circuit, as a file of diagnosis names it. */
export type FaultName =
  | 'none'
  | 'diode-open'
  | 'diode-short'
  | 'reservoir-dry'
  | 'reservoir-open'
  | 'source-weak'
  | 'source-low'
  | 'source-high'
  | 'extra-load'
  | 'other';

/**
 * How common each is among supplies somebody reads because they doubt them: dried capacitors, weak joints and single
 * dead diodes before anything else. Rules of thumb; they decide only where readings do not.
 */
export const HOW_COMMON: Readonly<Record<FaultName, number>> = {
  none: 0.25,
  'diode-open': 0.12,
  'diode-short': 0.06,
  'reservoir-dry': 0.15,
  'reservoir-open': 0.06,
  'source-weak': 0.11,
  'source-low': 0.11,
  'source-high': 0.06,
  'extra-load': 0.06,
  other: 0.02,
};

/** One fault at one place: an edit of the circuit with how bad it is as its own unknowns. */
export interface CaseFault {
  fault: Exclude<FaultName, 'other'>;
  part: string;
  /** Share of its fault's commonness. */
  share: number;
  severity: readonly Unknown[];
  /** The circuit with it. */
  edit(circuit: Network, severity: readonly number[]): Network;
}

/** The heaviest load in amperes anybody hung on it, and what one rail stands at: what a severity is measured by. */
export interface Scale {
  railV: number;
  loadA: number;
}

/** Every fault the circuit can have, one entry a place. */
export function caseFaults(circuit: Network, scale: Scale): CaseFault[] {
  const kind = circuit.sections[0]!.rectifier.kind;
  const { rails, rectifier } = circuit.sections[0]!;
  const diodes = diodeCount(ARRANGEMENTS[kind]);
  const taken = new Set((rectifier.faults ?? []).map((f) => f.diode));
  const free = Array.from({ length: diodes }, (_, n) => n).filter((n) => !taken.has(n));
  // Where a capacitor holds every rail up, what stands in series with an open diode carries nothing either: the winding
  // then need not be solved as afloat.
  const held = rails.every((rail) => rail.filter[0]?.kind === 'capacitor');
  const inSeriesWith = (d: number) => [
    ...new Set(
      ARRANGEMENTS[kind].loops
        .map(diodesOf)
        .filter((all) => all.includes(d))
        .flat(),
    ),
  ];
  const reservoirs = rails.flatMap((rail, r) => {
    const place = rail.filter.findIndex((e) => e.kind === 'capacitor');
    return place < 0 ? [] : [{ r, place }];
  });
  const ownCans = factsOf(ARRANGEMENTS[kind]).ownCans;
  const diode = (state: 'open' | 'short') =>
    free.map((n): CaseFault => {
      const places = state === 'open' && held ? inSeriesWith(n).filter((d) => free.includes(d)) : [n];
      return {
        fault: `diode-${state}`,
        part: `diode ${n}`,
        share: 1 / free.length,
        severity: [],
        edit: (c) =>
          inSection(c, (s) => ({
            ...s,
            rectifier: {
              ...s.rectifier,
              faults: [...(s.rectifier.faults ?? []), ...places.map((d) => ({ diode: d, state }))],
            },
          })),
      };
    });
  return [
    { fault: 'none', part: '', share: 1, severity: [], edit: (c) => c },
    ...diode('open'),
    ...reservoirs.flatMap(({ r, place }): CaseFault[] => {
      const part = `rails.${r}.filter.${place}`;
      return [
        {
          fault: 'reservoir-dry',
          part,
          share: 1 / reservoirs.length,
          severity: [
            { id: 'share of its capacitance left', centre: 0.35, spread: 0.5 },
            { id: 'ESR, times', centre: 3, spread: 0.9 },
          ],
          edit: (c, [left, esr]) =>
            withElement(c, r, place, (e) =>
              e.kind === 'capacitor'
                ? { ...e, capacitanceF: e.capacitanceF * left!, esrOhm: e.esrOhm * Math.max(1, esr!) }
                : e,
            ),
        },
        {
          fault: 'reservoir-open',
          part,
          share: 1 / reservoirs.length,
          severity: [],
          edit: (c) =>
            ownCans && place === 0
              ? withElement(c, r, place, (e) => ({ ...e, capacitanceF: 1e-8 }) as FilterElement)
              : inSection(c, (s) => ({
                  ...s,
                  rails: s.rails.map((rail, n) =>
                    n === r ? { ...rail, filter: rail.filter.filter((_, k) => k !== place) } : rail,
                  ),
                })),
        },
      ];
    }),
    {
      fault: 'source-weak',
      part: 'source',
      share: 1,
      severity: [{ id: 'ohms more', centre: weakOhm(circuit, scale), spread: 0.9 }],
      edit: (c, [more]) =>
        inSection(c, (s) => ({ ...s, winding: { ...s.winding, resistanceOhm: s.winding.resistanceOhm + more! } })),
    },
    volts('source-low', 0.82, 0.12, 0.8),
    volts('source-low', 0.5, 0.05, 0.2),
    volts('source-high', 1.22, 0.12, 0.8),
    volts('source-high', 2, 0.05, 0.2),
    ...rails.flatMap((_, r) =>
      (['current', 'resistance'] as const).map((how): CaseFault => ({
        fault: 'extra-load',
        part: `rails.${r}`,
        share: 0.5 / rails.length,
        severity: [{ id: 'amperes more', centre: 0.5 * scale.loadA, spread: 0.9 }],
        edit: (c, [amps]) => {
          const extra: Load =
            how === 'current'
              ? { kind: 'current', currentA: amps! }
              : { kind: 'resistance', resistanceOhm: scale.railV / amps! };
          return inSection(c, (s) => ({
            ...s,
            rails: s.rails.map((rail, n) => (n === r ? { ...rail, load: [...rail.load, extra] } : rail)),
          }));
        },
      })),
    ),
    // Last: a winding that is shorted every half cycle takes longest to solve, and by then most of it is out of question.
    ...diode('short'),
  ];
}

/** A bad joint is several times the source's own ohms, and shows: at least a twelfth of the volts at the heaviest load. */
function weakOhm(circuit: Network, { railV, loadA }: Scale): number {
  return Math.max(3 * circuit.sections[0]!.winding.resistanceOhm, (0.08 * railV) / loadA);
}

const volts = (fault: 'source-low' | 'source-high', centre: number, spread: number, share: number): CaseFault => ({
  fault,
  part: 'source',
  share,
  severity: [{ id: 'volts, times', centre, spread }],
  edit: (c, [times]) =>
    inSection(c, (s) => ({ ...s, winding: { ...s.winding, voltageRms: s.winding.voltageRms * times! } })),
});

type Section = Network['sections'][number];
const inSection = (c: Network, edit: (s: Section) => Section): Network => ({
  ...c,
  sections: [edit(c.sections[0]!), ...c.sections.slice(1)],
});

const withElement = (c: Network, r: number, k: number, edit: (e: FilterElement) => FilterElement): Network =>
  inSection(c, (s) => ({
    ...s,
    rails: s.rails.map((rail, n) =>
      n === r ? { ...rail, filter: rail.filter.map((e, m) => (m === k ? edit(e) : e)) } : rail,
    ),
  }));
