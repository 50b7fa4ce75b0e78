import type { Arrangement } from '../arrangement';

/** One winding A-G, diodes A>P and N>A: a rail from each half wave. Unequal loads leave direct current in the winding. */
export const splitHalfWave: Arrangement = {
  kind: 'split-half-wave',
  facts: {
    name: 'Split half-wave',
    when: 'Right for two small rails from a single winding or an AC adapter, when both draw alike.',
    fullWave: false,
    diodesInPath: 1,
    reversePeaks: 2,
    rmsFactor: 3.5,
  },
  ratios: [1],
  loops: [
    { winding: 0, sign: 1, input: 0, railDiode: 0 },
    { winding: 0, sign: -1, input: 1, railDiode: 1 },
  ],
  rails: 2,
  stacked: false,
  mirror: null,
};
