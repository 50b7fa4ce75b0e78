import { blankDesign } from './defaults';
import { demoDesigns } from './demo-designs';
import type { Design } from './design';

/** A sound supply to take the first steps on: the clock's, without the story of the box. */
export function exampleForFirstSteps(): Design {
  const [clock] = demoDesigns();
  const { log, note, build, bench, picked, stage } = blankDesign('', clock!.demand, clock!.mains);
  return { ...clock!, name: 'First steps', note, stage, log, build, bench, picked };
}
