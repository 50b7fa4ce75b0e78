import type { Figure } from '@/core/study/figure';
import type { Inside, PlacedBlock } from './block';
import { PAIR_RULES, WALL_RULES, type BoxRuleId, type PairRule, type Standing, type Surroundings } from './rules';
import { solidOf } from './solid';

/** A distance in the box, as it is and as it should be. */
export interface Clearance {
  rule: BoxRuleId;
  name: string;
  why: string;
  source: string;
  /** How its limit comes about, where it is computed for these two. */
  working: Figure | null;
  /** Between what: one block and the box, or two blocks. */
  blocks: readonly string[];
  hasMm: number;
  wantsMm: number;
  /** No farther than what is wanted, instead of no nearer. */
  atMost: boolean;
  /** What is left of it, mm; below nothing by how much it is short. */
  leftMm: number;
  holds: boolean;
}

/** A rule that has a say between two blocks, and what it wants of them. */
export interface Wanted {
  rule: Omit<PairRule, 'wants'>;
  wantsMm: number;
  working: Figure | null;
}

/** Rounding of what is moved in whole millimetres. */
const SLACK_MM = 1e-6;

export const standing = ({ block, spot }: Pick<PlacedBlock, 'block' | 'spot'>, inside: Inside): Standing => ({
  block,
  spot,
  solid: solidOf(block, spot, inside),
});

/** What two blocks have to keep from each other, wherever they stand. */
export const wantedBetween = (a: Standing['block'], b: Standing['block'], around: Surroundings): Wanted[] =>
  PAIR_RULES.flatMap((rule) => {
    const wantsMm = rule.wants(a, b, around);
    return wantsMm === null ? [] : [{ rule, wantsMm, working: rule.working?.(a, b, around) ?? null }];
  });

/** What is left of what two blocks have to keep from each other, mm. */
export const leftBetween = ({ rule, wantsMm }: Wanted, a: Standing, b: Standing): number => {
  const has = rule.has(a, b);
  if (has === Infinity) return Infinity;
  return rule.atMost ? wantsMm - has : has - wantsMm;
};

/** Whether a distance of which so much is left is kept. */
export const keeps = (leftMm: number): boolean => leftMm >= -SLACK_MM;

/** What one block's place is worth against the box alone. */
export function wallClearances(one: Standing, inside: Inside): Clearance[] {
  return WALL_RULES.flatMap((rule) => {
    const wantsMm = rule.wants(one);
    return wantsMm === null ? [] : clearance(rule, [one], rule.has(one, inside), { wantsMm });
  });
}

/** What two blocks have to keep from each other where they stand. */
export const pairClearances = (a: Standing, b: Standing, wanted: readonly Wanted[]): Clearance[] =>
  wanted.flatMap(({ rule, ...limit }) => clearance(rule, [a, b], rule.has(a, b), limit));

function clearance(
  { id, name, why, source, atMost }: Pick<PairRule, 'id' | 'name' | 'why' | 'source' | 'atMost'>,
  of: readonly Standing[],
  hasMm: number,
  { wantsMm, working = null }: { wantsMm: number; working?: Figure | null },
): Clearance[] {
  if (hasMm === Infinity) return [];
  const leftMm = atMost ? wantsMm - hasMm : hasMm - wantsMm;
  const blocks = of.map((s) => s.block.id);
  return [
    {
      rule: id,
      name,
      why,
      source,
      working,
      blocks,
      hasMm,
      wantsMm,
      atMost: atMost === true,
      leftMm,
      holds: keeps(leftMm),
    },
  ];
}

/** Every distance that is asked for in a box, what does not hold first, then by what is left. */
export function clearances(placed: readonly PlacedBlock[], inside: Inside, around: Surroundings): Clearance[] {
  const all = placed.map((p) => standing(p, inside));
  const found = all.flatMap((one, n) => [
    ...wallClearances(one, inside),
    ...all.slice(n + 1).flatMap((other) => pairClearances(one, other, wantedBetween(one.block, other.block, around))),
  ]);
  return found.sort((a, b) => a.leftMm - b.leftMm);
}
