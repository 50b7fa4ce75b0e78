import type { Picture } from '@/core/picture/picture';
import type { State } from '@/core/judge/verdict';

/** A state of a verdict as it is said: what holds with all its margin passes. */
export const STATE_WORDS: Readonly<Record<State, string>> = {
  fails: 'fails',
  tight: 'tight',
  holds: 'passes',
  caution: 'caution',
};

/**
 * How a design stands, in a few words: what fails first, then what is tight.
 * @param current false while the picture is of an earlier state of the design
 */
export function stateInWords(
  picture: Pick<Picture, 'fails' | 'tight' | 'verdicts'> | null,
  current: boolean,
): { sign: State | null; words: string } {
  if (!picture || !current) return { sign: null, words: 'Not solved yet' };
  const { fails, tight, verdicts } = picture;
  if (fails > 0) return { sign: 'fails', words: `${fails} of ${verdicts.length} fail` };
  if (tight > 0) return { sign: 'tight', words: `All ${verdicts.length} pass, ${tight} tight` };
  return { sign: 'holds', words: `All ${verdicts.length} pass` };
}
