import type { Json } from './json';

/** Version 11 keeps how far the building is: what is in its place, which wires are made, what came in the parcel. */
export const from10 = (d: Json): Json => ({ ...d, version: 11, build: { placed: [], wired: [], kit: [] } });
