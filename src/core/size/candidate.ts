import { arrangementFacts } from '@/core/design/source';
import type { Design, Patch } from '@/core/design/design';
import type { PartRole } from '@/core/design/kinds';
import { usesOf, type Use } from '@/core/drawer/fit';
import type { Part } from '@/core/drawer/part';
import type { Verdict } from '@/core/judge/verdict';

/** A part in one use, simulated in the design. */
export interface Candidate {
  part: Part;
  use: Use;
  /** What taking it changes. */
  patch: Patch;
  fails: number;
  /** The tightest verdict the part decides. */
  tightest: Pick<Verdict, 'title' | 'sentence' | 'state' | 'left'> | null;
  /** Watts lost in the whole supply, nominal line. */
  lostW: number;
  priceEur: number | null;
}

/** A part in one of the ways it could serve. */
export interface Try {
  part: Part;
  use: Use;
}

/** Every way in which parts could serve in a role. What is far away by the rules of thumb is left out. */
export function triesOf(design: Design, role: PartRole, parts: readonly Part[]): Try[] {
  return parts.flatMap((part) =>
    usesOf(part, design, role)
      .filter((use) => plausible(design, use))
      .map((use) => ({ part, use })),
  );
}

/** Rules of thumb that only spare the simulation of what is far away; they never choose. */
function plausible(design: Design, { patch }: Use): boolean {
  const { demand } = design;
  if (patch.transformer) {
    const { ratedV = 0, ratedVA = 0 } = patch.transformer;
    const stacked = arrangementFacts(design).railPeaks;
    return (
      ratedV * stacked > 0.55 * demand.outputV &&
      ratedV * stacked < 2.5 * demand.outputV + 8 &&
      ratedVA > 0.5 * demand.outputV * demand.outputA
    );
  }
  if (patch.reservoir) {
    const { capacitanceF = 0, ratedV = 0, cans = 1 } = patch.reservoir;
    const needed = demand.outputA / (2 * design.mains.frequencyHz * Math.max(demand.outputV, 1));
    return ratedV > 0.9 * demand.outputV && cans * capacitanceF > 0.5 * needed;
  }
  return true;
}

/** Best first: nothing failing, then the most left at the part's own tightest verdict up to what is wanted, then the price. */
export function rankCandidates(found: readonly Candidate[]): Candidate[] {
  const room = (c: Candidate) => Math.min(c.tightest?.left ?? 1, 1);
  return [...found].sort(
    (a, b) => a.fails - b.fails || room(b) - room(a) || (a.priceEur ?? 1e9) - (b.priceEur ?? 1e9) || a.lostW - b.lostW,
  );
}
