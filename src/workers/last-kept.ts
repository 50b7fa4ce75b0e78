/** A piece of work that keeps its last answer: asked the same again, as every edit of something else does, it does nothing. */
export function lastKept<A extends readonly unknown[], R>(work: (...asked: A) => R): (...asked: A) => R {
  let kept: { key: string; answer: R } | null = null;
  return (...asked) => {
    const key = JSON.stringify(asked);
    if (kept?.key !== key) kept = { key, answer: work(...asked) };
    return kept.answer;
  };
}

/** The same of work that is done in steps. */
export function lastKeptSteps<A extends readonly unknown[], P, R>(
  work: (...asked: A) => Generator<P, R>,
): (...asked: A) => Generator<P, R> {
  let kept: { key: string; answer: R } | null = null;
  return function* (...asked) {
    const key = JSON.stringify(asked);
    if (kept?.key !== key) kept = { key, answer: yield* work(...asked) };
    return kept.answer;
  };
}
