/** Housings of regulators and transistors: whether they take a sink, and what they give to free air without one, typical. */
export const PACKAGES = [
  { id: 'TO-92', takesSink: false, jaKPerW: 180 },
  { id: 'TO-126', takesSink: false, jaKPerW: 100 },
  { id: 'SOT-223', takesSink: false, jaKPerW: 90 },
  { id: 'TO-220', takesSink: true, jaKPerW: 62 },
  { id: 'TO-247', takesSink: true, jaKPerW: 40 },
  { id: 'TO-3', takesSink: true, jaKPerW: 35 },
] as const;

export type PackageId = (typeof PACKAGES)[number]['id'];

/** @throws RangeError for an id that is none of them */
export function packageOf(id: PackageId): (typeof PACKAGES)[number] {
  const found = PACKAGES.find((p) => p.id === id);
  if (!found) throw new RangeError(`no package '${id}'`);
  return found;
}
