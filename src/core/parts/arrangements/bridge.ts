import type { Arrangement } from '../arrangement';

/** Winding A-B, diodes A>P, G>B, B>P, G>A: the whole winding works in both half waves, two diodes in the path. */
export const bridge: Arrangement = {
  kind: 'bridge',
  facts: {
    name: 'Bridge',
    when: 'Right for nearly everything: the whole winding works in both half waves.',
    fullWave: true,
    diodesInPath: 2,
    reversePeaks: 1,
    rmsFactor: 1.8,
  },
  ratios: [1],
  loops: [
    { winding: 0, sign: 1, input: 0, railDiode: 0, groundDiode: 1 },
    { winding: 0, sign: -1, input: 0, railDiode: 2, groundDiode: 3 },
  ],
  rails: 1,
  stacked: false,
  mirror: { loops: [1, 0], windings: [0], windingSign: -1 },
};
