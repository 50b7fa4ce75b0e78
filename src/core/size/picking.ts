import { applyPatch, type Design } from '@/core/design/design';
import type { PartRole } from '@/core/design/kinds';
import { withPart } from '@/core/drawer/fit';
import { countFails, judge } from '@/core/judge/judge';
import { rulesDeciding } from '@/core/judge/rules';
import { SolveError } from '@/core/solve/solve-error';
import { studyDesign } from '@/core/study/study';
import type { Candidate, Try } from './candidate';

/** Simulates and judges the design with one part taken. @returns null where no answer was found with it */
export function tryPart(design: Design, role: PartRole, { part, use }: Try): Candidate | null {
  const patch = withPart(design, part, use);
  try {
    const study = studyDesign(applyPatch(design, patch));
    const verdicts = judge(study);
    const deciding = rulesDeciding(role);
    const own = verdicts.filter((v) => !v.caution && deciding.includes(v.id)).sort((a, b) => a.left - b.left)[0];
    const { winding, rectifier, regulator } = study.nominal.watts;
    return {
      part,
      use,
      patch,
      fails: countFails(verdicts),
      tightest: own ? { title: own.title, sentence: own.sentence, state: own.state, left: own.left } : null,
      lostW: winding + rectifier + regulator,
      priceEur: part.priceEur === null ? null : part.priceEur * use.pieces,
    };
  } catch (error) {
    if (error instanceof SolveError) return null;
    throw error;
  }
}
