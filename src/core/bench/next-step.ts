import type { Design } from '@/core/design/design';
import { dcSourceOf } from '@/core/design/source';
import type { Verdict } from '@/core/judge/verdict';
import { stagesOf } from './stages';

/** Where the next step is taken. */
export type NextRoom = 'supply' | 'mains' | 'checklist' | 'assembly' | 'bench' | 'sheet' | 'log';

export interface NextStep {
  /** A few words that follow 'Next:'. */
  text: string;
  room: NextRoom;
}

/** How far the parts of a design are. */
export interface UnderWay {
  /** Parts that were counted and found missing. */
  short: number;
  /** The stage of the building that has begun and is not all in its place, and how many parts of it are not. */
  left: { stage: string; parts: number } | null;
}

/**
 * What a design wants done next, in the order of work: cure, fuse, checklist, parts that are missing or not in their
 * place, stage by stage, sheet.
 * @param underWay null where nothing was counted or put in
 */
export function nextStep(
  design: Design,
  { verdicts, fails }: { verdicts: readonly Pick<Verdict, 'title' | 'state'>[]; fails: number },
  underWay: UnderWay | null = null,
): NextStep {
  if (design.stage === 'retired') return { room: 'log', text: 'nothing, it is retired' };
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
  if (underWay && underWay.short > 0)
    return { room: 'assembly', text: `${underWay.short} ${underWay.short === 1 ? 'part' : 'parts'} short` };
  if (underWay?.left) {
    const { stage, parts } = underWay.left;
    return { room: 'assembly', text: `${lowerFirst(stage)}, ${parts} ${parts === 1 ? 'part' : 'parts'} to put in` };
  }
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
