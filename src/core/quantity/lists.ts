// Lists and sums of what is worked out some thousand times a second. What an engine's own `map` makes is of one kind where
// the code around it is compiled and of another where it is not yet: whoever reads such a list is compiled for one kind, and
// thrown back when the other comes. Grown one by one a list is of the same kind everywhere, and read with for...of it stays so
// (docs/engine.md says what that is worth).

/** What each of some things comes to, in their order. */
export function mapped<T, U>(list: readonly T[], of: (one: T, n: number) => U): U[] {
  const all: U[] = [];
  let n = 0;
  for (const one of list) all.push(of(one, n++));
  return all;
}

/** The sum of what each of some things comes to; 0 of none. */
export function summed<T>(list: readonly T[], of: (one: T) => number): number {
  let sum = 0;
  for (const one of list) sum += of(one);
  return sum;
}

/** The greatest of what each of some things comes to; -Infinity of none. */
export function greatest<T>(list: readonly T[], of: (one: T) => number): number {
  let most = -Infinity;
  for (const one of list) most = Math.max(most, of(one));
  return most;
}
