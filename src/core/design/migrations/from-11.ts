import { filled, type Json } from './json';

/** Version 12 keeps the box: what the transformer is wound on, its size, and where parts were put. */
export const from11 = (d: Json): Json => ({
  ...d,
  version: 12,
  build: filled(d, 'build', { box: { core: 'laminated', inside: null, places: [], sizes: [], own: [] } }),
});
