import type { Design } from '@/core/design/design';
import { dcSourceOf } from '@/core/design/source';
import type { Verdict } from '@/core/judge/verdict';
import { stagesOf } from './stages';

/** Where the next step is taken. */
export type NextRoom = 'supply' | 'mains' | 'checklist' | 'bench' | 'sheet';

export interface NextStep {
  /** A few words that follow 'Next:'. */
  text: string;
  room: NextRoom;
}

/** What a design wants done next, in the order of work: cure, fuse, checklist, stage by stage, sheet. */
export function nextStep(
  design: Design,
  { verdicts, fails }: { verdicts: readonly Pick<Verdict, 'title' | 'state'>[]; fails: number },
): NextStep {
  if (fails > 0) {
    const first = verdicts.find((v) => v.state === 'fails')!;
    return {
      room: 'supply',
      text: `cure ${lowerFirst(first.title)}${fails > 1 ? `, the first of ${fails} that fail` : ''}`,
    };
  }
  const { mainsSide: side, bench } = design;
  if (!dcSourceOf(design) && !design.transformer.sealed && side.primaryFuseA === null)
    return { room: 'mains', text: 'choose the primary fuse' };
  if (side.ticked.length === 0 && bench.readings.length === 0)
    return { room: 'checklist', text: 'go through the checklist' };
  const read = new Set(bench.readings.map((r) => r.point));
  const stages = stagesOf(design);
  const at = stages.findIndex((s) => s.points.some((p) => !read.has(p)));
  return at < 0
    ? { room: 'sheet', text: 'print the sheet that stays with the box' }
    : { room: 'bench', text: `stage ${at + 1}, ${lowerFirst(stages[at]!.name)}, is not yet read` };
}

function lowerFirst(text: string): string {
  return text[0]!.toLowerCase() + text.slice(1);
}
