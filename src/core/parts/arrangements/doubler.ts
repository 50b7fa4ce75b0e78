import type { Arrangement } from '../arrangement';

/** Winding J-M, diodes J>P and G>J, M between two capacitors in series: each half wave charges one of them. */
export const doubler: Arrangement = {
  kind: 'doubler',
  facts: {
    name: 'Doubler',
    when: 'Right when the winding is too low: twice the peak from two capacitors, for modest currents.',
    fullWave: true,
    diodesInPath: 1,
    reversePeaks: 2,
    rmsFactor: 3.6,
  },
  ratios: [1],
  loops: [
    { winding: 0, sign: 1, input: 0, railDiode: 0 },
    { winding: 0, sign: -1, input: 1, railDiode: 1 },
  ],
  rails: 1,
  stacked: true,
  mirror: { loops: [1, 0], windings: [0], windingSign: -1 },
};
