import { ValidationError } from 'yup';

export interface Fault {
  /** Where, as 'mains.lowPct' or 'rails[0].load'; empty for the whole thing. */
  path: string;
  /** What is wrong, as a sentence. */
  sentence: string;
}

/** The first fault of a failed validation. Anything but a validation error is passed on. */
export function firstFault(error: unknown): Fault {
  if (!(error instanceof ValidationError)) throw error;
  const inner = error.inner[0] ?? error;
  const path = inner.path ?? '';
  // Yup names the path in front of many messages; the path travels beside the sentence here.
  const sentence = inner.errors[0] ?? inner.message;
  return {
    path,
    sentence: path && sentence.startsWith(`${path} `) ? `it ${sentence.slice(path.length + 1)}` : sentence,
  };
}
