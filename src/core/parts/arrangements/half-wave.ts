import type { Arrangement } from '../arrangement';

/** Winding A-G, diode A>P: every other half wave charges the rail. */
export const halfWave: Arrangement = {
  kind: 'half-wave',
  facts: {
    name: 'Half-wave',
    when: 'Right for a few milliamps, where one diode is all there is room for.',
    fullWave: false,
    diodesInPath: 1,
    reversePeaks: 2,
    rmsFactor: 2.5,
  },
  ratios: [1],
  loops: [{ winding: 0, sign: 1, input: 0, railDiode: 0 }],
  rails: 1,
  stacked: false,
  mirror: null,
};
