import { arrangementFacts } from './source';
import { CAPACITOR_VOLTS, E12, E6, nearestInDecades, stepInList } from '@/core/quantity/preferred';
import type { Design, Filter, FilterStep, Patch } from './design';

/** The usual ways to smooth, each as parts sized roughly for a design: a place to start from. */
export const FILTER_SHAPES = [
  { id: 'plain', name: 'Reservoir only' },
  { id: 'resistor', name: 'C-R-C' },
  { id: 'choke', name: 'C-L-C' },
  { id: 'choke-input', name: 'Choke input' },
  { id: 'small-first', name: 'Small C, then choke' },
] as const;
export type FilterShape = (typeof FILTER_SHAPES)[number]['id'];

/** Which of the usual ways a filter is; null for one of its own. */
export function filterShape({ before, after }: Filter): FilterShape | null {
  const kinds = (list: readonly FilterStep[]) => list.map((s) => s.kind).join();
  const shape = `${kinds(before)}|${kinds(after)}`;
  switch (shape) {
    case '|':
      return 'plain';
    case '|resistor,capacitor':
      return 'resistor';
    case '|choke,capacitor':
      return 'choke';
    case 'choke|':
      return 'choke-input';
    case 'capacitor,choke|':
      return 'small-first';
    default:
      return null;
  }
}

/**
 * Critical inductance of a full-wave choke input, H: RL/(3*w), below which the choke's current ceases in every cycle.
 * Source: first harmonic of the rectified sine against the direct current; valid for full-wave rectifiers.
 */
export function criticalInductanceH(loadOhm: number, frequencyHz: number): number {
  return loadOhm / (3 * 2 * Math.PI * frequencyHz);
}

/** A filter of the given shape for this design: a patch that keeps what the old filter already had of the kind. */
export function withFilterShape(design: Design, shape: FilterShape): Patch {
  const { filter, demand, mains, reservoir } = design;
  const had = [...filter.before, ...filter.after];
  const loadOhm = demand.outputV / demand.outputA;
  const critical = criticalInductanceH(loadOhm, mains.frequencyHz);
  const choke: FilterStep = had.find((s) => s.kind === 'choke') ?? {
    kind: 'choke',
    inductanceH: Math.min(100, Math.max(1e-5, nearestInDecades(4 * critical, E12))),
    resistanceOhm: nearestInDecades(Math.max(0.01, 0.04 * loadOhm), E12),
    ratedA: nearestInDecades(1.5 * demand.outputA, E12),
    swinging: false,
  };
  const resistor: FilterStep = had.find((s) => s.kind === 'resistor') ?? {
    kind: 'resistor',
    resistanceOhm: Math.max(0.1, nearestInDecades(0.06 * loadOhm, E12)),
  };
  const second: FilterStep = had.find(
    (s) => s.kind === 'capacitor' && s.capacitanceF > 0.05 * reservoir.capacitanceF,
  ) ?? {
    kind: 'capacitor',
    capacitanceF: Math.max(1e-6, reservoir.capacitanceF),
    ratedV: reservoir.ratedV,
  };
  const small: FilterStep = {
    kind: 'capacitor',
    // Half the load's charge of a half cycle at about the output's volts: enough to lift the mean, not to hold the peak.
    capacitanceF: nearestInDecades((0.5 * demand.outputA) / (2 * mains.frequencyHz * demand.outputV), E6),
    ratedV: stepInList(reservoir.ratedV, CAPACITOR_VOLTS, 1),
  };
  const parts: Record<FilterShape, Pick<Filter, 'before' | 'after'>> = {
    plain: { before: [], after: [] },
    resistor: { before: [], after: [resistor, second] },
    choke: { before: [], after: [choke, second] },
    'choke-input': { before: [choke], after: [] },
    'small-first': { before: [small, choke], after: [] },
  };
  return { filter: parts[shape] };
}

/** Whether a choke stands between rectifier and reservoir. */
export function hasChokeInput(design: Design): boolean {
  return !arrangementFacts(design).ownCans && design.filter.before.some((s) => s.kind === 'choke');
}
