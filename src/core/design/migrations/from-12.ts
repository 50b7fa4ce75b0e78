import { filled, type Json } from './json';

/** Version 13 keeps the board: of strips or with tracks, and where parts of it were put. */
export const from12 = (d: Json): Json => ({
  ...d,
  version: 13,
  build: filled(d, 'build', { board: { kind: 'strips', copperUm: 35, mains: false, places: [], strips: [] } }),
});
