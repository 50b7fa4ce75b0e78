import type { Patch, Pick } from '@/core/design/design';
import type { PartRole } from '@/core/design/kinds';
import type { SetPart } from './choices';

export type SizingBy = 'cost' | 'heat' | 'height' | 'margin';

export interface SizingAsk {
  /** Where parts may come from. */
  from: 'drawer' | 'values' | 'both';
  by: SizingBy;
}

/** A complete set, simulated and judged. */
export interface SizedSet {
  patch: Patch;
  parts: SetPart[];
  /** What has to be paid: parts from the drawer cost nothing more. */
  toPayEur: number;
  worthEur: number;
  lostW: number;
  /** Of the tallest can, estimated from its energy where nobody measured it, mm. */
  heightMm: number;
  fails: number;
  /** Least share of the wanted margin over all verdicts. */
  worstLeft: number;
  worst: string;
}

export interface SizingProgress {
  /** Whole sets looked at; sets that differ in the sink alone share one study of their circuit. */
  simulated: number;
  studies: number;
  /** Sets found since the last progress, passing or the cheapest failing. */
  found: SizedSet[];
  /** What is not looked at, and why: a sentence each. */
  leftOut: string[];
}

/** The order sets are shown in. */
export function compareSets(by: SizingBy): (a: SizedSet, b: SizedSet) => number {
  const key = (s: SizedSet) =>
    by === 'cost' ? s.toPayEur : by === 'heat' ? s.lostW : by === 'height' ? s.heightMm : -Math.min(s.worstLeft, 3);
  return (a, b) => a.fails - b.fails || key(a) - key(b) || a.toPayEur - b.toPayEur || b.worstLeft - a.worstLeft;
}

/** What taking a set does: its values, and which parts came from the drawer. */
export function patchOfSet(set: SizedSet): Patch {
  const picked: Pick[] = set.parts.flatMap((p) =>
    p.partId === null
      ? []
      : [
          {
            role: p.role,
            partId: p.partId,
            name: p.name,
            priceEur: p.priceEur,
            heightMm: p.heightMm,
            values: valuesOf(set.patch, p.role),
          },
        ],
  );
  return { ...set.patch, picked };
}

const ROLE_MEMBER = {
  transformer: 'transformer',
  rectifier: 'rectifier',
  choke: 'filter',
  reservoir: 'reservoir',
  regulator: 'regulator',
  transistor: 'regulator',
  sink: 'heat',
} as const satisfies Record<PartRole, keyof Patch>;

function valuesOf(patch: Patch, role: PartRole): Patch {
  const member = ROLE_MEMBER[role];
  return { [member]: patch[member] };
}
