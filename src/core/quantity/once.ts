/**
 * What is worked out from a thing that never changes (a design, a part of it: an edit makes another) is worked out once and
 * kept as long as the thing itself.
 */
export function once<K extends object, V>(find: (of: K) => V): (of: K) => V {
  const known = new WeakMap<K, { value: V }>();
  return (of) => {
    const kept = known.get(of);
    if (kept) return kept.value;
    const value = find(of);
    known.set(of, { value });
    return value;
  };
}
