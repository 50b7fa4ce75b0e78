import type { UnderWay } from '@/core/bench/next-step';
import type { Design } from '@/core/design/design';
import { netlistOf } from '@/core/netlist/netlist-of';
import { billOf } from '@/core/study/bill';
import type { Study } from '@/core/study/study';
import { assemblyNext, assemblyOf } from './assembly';
import { kitOf } from './kit';

/** Whether anything was counted or put in. */
const isUnderWay = ({ build }: Design): boolean => build.kit.length > 0 || build.placed.length > 0;

/** How far the parts of a design are; null where nothing was counted or put in. */
export function underWay(study: Study): UnderWay | null {
  const { design } = study;
  if (!isUnderWay(design)) return null;
  const short = design.build.kit.length > 0 ? kitOf(design, billOf(study)).reduce((sum, l) => sum + l.missing, 0) : 0;
  // What was built before anybody ticked is not asked for: only what was begun is finished.
  return { short, left: design.build.placed.length > 0 ? begun(design) : null };
}

/** The first stage that wants parts; none where an earlier one has to be measured first. */
function begun(design: Design): UnderWay['left'] {
  const stages = assemblyOf(design, netlistOf(design));
  const next = assemblyNext(design, stages);
  if (next.do !== 'place') return null;
  const { name, parts, placed } = stages.find((s) => s.name === next.stage)!;
  return { stage: name, parts: parts.length - placed };
}
