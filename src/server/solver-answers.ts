import type { readDesign } from '@/core/design/schema';
import { nextStep } from '@/core/bench/next-step';
import { underWay } from '@/core/build/under-way';
import { headlineOf, summaryOf } from '@/core/picture/summary';
import type { Picture } from '@/core/picture/picture';
import type { pictureOf } from '@/core/judge/picture';
import { SolveError } from '@/core/solve/solve-error';
import type { Summed } from './designs';

/** What the server has solved for it: a page's first picture, or what a list says of a stored document. */
export type Question = { what: 'picture'; design: unknown } | { what: 'summary'; document: string };
export type Answered = Picture | Summed | null;

interface Tools {
  readDesign: typeof readDesign;
  pictureOf: typeof pictureOf;
}

/** Solves one question. Never throws: what cannot be read or solved is an answer too. */
export function answerTo(question: Question, { readDesign, pictureOf }: Tools): Answered {
  if (question.what === 'picture') {
    try {
      return pictureOf(question.design as Parameters<typeof pictureOf>[0]).picture;
    } catch {
      // The window solves it itself and says why it cannot be.
      return null;
    }
  }
  const nothing = (fault: string): Summed => ({ headline: null, summary: null, fault });
  try {
    const read = readDesign(JSON.parse(question.document));
    if (!read.ok)
      return nothing(`Cannot be read${read.fault.path ? `, at ${read.fault.path}` : ''}: ${read.fault.sentence}.`);
    const { picture, study } = pictureOf(read.design);
    return {
      headline: headlineOf(picture, nextStep(read.design, picture, underWay(study)).text),
      summary: summaryOf(picture),
      fault: null,
    };
  } catch (error) {
    if (error instanceof SolveError) return nothing(`Could not be solved: ${error.message}.`);
    return nothing('Cannot be read: what was stored is no design.');
  }
}
