/**
 * What is worked out from a thing that never changes and is soon done with, as the designs of a search are: worked out once
 * and kept until so many others were asked of. Unlike `once` it keeps nothing alive as long as the thing lives: what hangs on
 * a weak map outlives every quick collection of garbage, and thousands of designs a second would fill the memory.
 * @param many how many are kept, 1 or more
 */
export function recently<K extends object, V>(many: number, find: (of: K) => V): (of: K) => V {
  const things = new Array<K | undefined>(many).fill(undefined);
  const values = new Array<V | undefined>(many).fill(undefined);
  let last = 0;
  let next = 0;
  return (of) => {
    if (things[last] === of) return values[last]!;
    const known = things.indexOf(of);
    if (known >= 0) {
      last = known;
      return values[known]!;
    }
    const value = find(of);
    last = next;
    things[next] = of;
    values[next] = value;
    next = (next + 1) % many;
    return value;
  };
}
