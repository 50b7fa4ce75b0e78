/** A document as it comes out of a file, before anything about it is known. */
export type Json = Record<string, unknown>;

export const isRecord = (value: unknown): value is Json =>
  typeof value === 'object' && value !== null && !Array.isArray(value);

/** A member of a document with what its version did not know added; anything but a group of values is left as it is. */
export function filled(document: Json, key: string, more: Json): unknown {
  const old = document[key];
  return isRecord(old) ? { ...more, ...old } : old;
}

/** The same of each group in a list. */
export function eachFilled(document: Json, key: string, more: Json): unknown {
  const old = document[key];
  return Array.isArray(old)
    ? old.map((member) => (isRecord(member) ? { ...more, ...member } : (member as unknown)))
    : old;
}
