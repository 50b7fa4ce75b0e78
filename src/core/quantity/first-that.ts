/**
 * The first of so many that holds, where all that come after one that holds hold too: found by halving.
 * @returns its number from 0; `count` where none holds
 */
export function firstThat(count: number, holds: (n: number) => boolean): number {
  let least = count;
  for (let below = -1; least - below > 1;) {
    const middle = Math.floor((below + least) / 2);
    if (holds(middle)) least = middle;
    else below = middle;
  }
  return least;
}
