import { typicalEsr } from '@/core/parts/capacitor';
import type { Design, FilterStep } from '@/core/design/design';
import { arrangementFacts } from '@/core/design/source';
import { bankF, bankOhmFactor, shuntOhm } from '@/core/design/bank';
import { mapped } from '@/core/quantity/lists';
import type { FilterElement } from './network';
import type { Condition } from './condition';

/** ESR grows as an electrolytic dries out; this factor is the usual end-of-life limit (IEC 60384-4). */
const AGED_ESR = 2;

/** Reservoir capacitance left under a condition, F. */
export function capacitanceAt(design: Design, state: Condition['capacitor']): number {
  const { tolerancePct, agedPct } = design.reservoir;
  const capacitanceF = bankF(design.reservoir);
  if (state === 'aged') return capacitanceF * (1 - tolerancePct / 100) * (1 - agedPct / 100);
  if (state === 'large') return capacitanceF * (1 + tolerancePct / 100);
  return capacitanceF;
}

/** ESR of the new reservoir, ohm: as given for its cans, or typical for their size. */
export function esrOf(design: Design): number {
  const { capacitanceF, ratedV, esrOhm } = design.reservoir;
  return (esrOhm ?? typicalEsr(capacitanceF, ratedV)) * bankOhmFactor(design.reservoir);
}

/** Where the reservoir stands in a rail's filter, -1 when there is none. */
export function reservoirPlace(design: Design): number {
  if (arrangementFacts(design).ownCans) return 0;
  return design.reservoir.capacitanceF > 0 ? design.filter.before.length : -1;
}

/** One filter part of a design with its index in each rail's filter, as a solution's elements are numbered. */
export interface PlacedPart {
  part: FilterStep;
  side: 'before' | 'after';
  at: number;
}

/** Where each filter part stands in the chain: the same order filterOf builds. A doubler has nothing before its capacitors. */
export function placedParts(design: Design): PlacedPart[] {
  const { before, after } = design.filter;
  const ahead = arrangementFacts(design).ownCans ? [] : before;
  const behind = ahead.length + (reservoirPlace(design) >= 0 ? 1 : 0) + (shuntOhm(design) === null ? 0 : 1);
  return [
    ...mapped(ahead, (part, at): PlacedPart => ({ part, side: 'before', at })),
    ...mapped(after, (part, n): PlacedPart => ({ part, side: 'after', at: behind + n })),
  ];
}

/** Stands in for a doubler's capacitors where none are fitted: stray capacitance, too small to show. */
const STRAY_F = 1e-9;

/** The chain of each rail under a condition, from the rectifier to the load. */
export function filterOf(design: Design, condition: Condition, capacitanceFactor: number): FilterElement[] {
  const aged = condition.capacitor === 'aged' ? AGED_ESR : 1;
  const left = (nominalF: number) =>
    (capacitanceAt(design, condition.capacitor) / Math.max(bankF(design.reservoir), 1e-12)) * nominalF;
  const step = (part: FilterStep): FilterElement => {
    if (part.kind === 'resistor') return part;
    if (part.kind === 'choke') {
      const { inductanceH, resistanceOhm } = part;
      return { kind: 'inductor', inductanceH, resistanceOhm, ...(part.swinging ? { halfAtA: part.ratedA / 2 } : {}) };
    }
    const capacitanceF = design.reservoir.capacitanceF > 0 ? left(part.capacitanceF) : part.capacitanceF;
    return { kind: 'capacitor', capacitanceF, esrOhm: typicalEsr(part.capacitanceF, part.ratedV) * aged };
  };
  const multiplied = arrangementFacts(design).ownCans;
  const capacitanceF = capacitanceAt(design, condition.capacitor) * capacitanceFactor;
  const { before, after } = design.filter;
  const across = shuntOhm(design);
  return [
    ...(multiplied ? [] : mapped(before, step)),
    ...(capacitanceF > 0 || multiplied
      ? [
          {
            kind: 'capacitor' as const,
            capacitanceF: Math.max(capacitanceF, STRAY_F),
            esrOhm: esrOf(design) * aged,
          },
        ]
      : []),
    ...(across === null ? [] : [{ kind: 'shunt' as const, resistanceOhm: across }]),
    ...mapped(after, step),
  ];
}
