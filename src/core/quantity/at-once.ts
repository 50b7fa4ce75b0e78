/** Goes through a search to its end, without telling how far it is. */
export function atOnce<T>(search: Generator<unknown, T>): T {
  for (;;) {
    const step = search.next();
    if (step.done) return step.value;
  }
}
