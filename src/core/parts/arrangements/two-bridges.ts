import type { Arrangement } from '../arrangement';

/** Windings A-B and C-D, each with its own bridge; the minus of the first and the plus of the second meet at ground. */
export const twoBridges: Arrangement = {
  kind: 'two-bridges',
  facts: {
    name: 'Two bridges',
    when: 'Right for a plus and a minus rail from two separate windings; each rail its own bridge.',
    fullWave: true,
    diodesInPath: 2,
    reversePeaks: 1,
    rmsFactor: 1.8,
  },
  ratios: [1, 1],
  loops: [
    { winding: 0, sign: 1, input: 0, railDiode: 0, groundDiode: 1 },
    { winding: 0, sign: -1, input: 0, railDiode: 2, groundDiode: 3 },
    { winding: 1, sign: 1, input: 1, railDiode: 5, groundDiode: 4 },
    { winding: 1, sign: -1, input: 1, railDiode: 7, groundDiode: 6 },
  ],
  rails: 2,
  stacked: false,
  mirror: { loops: [1, 0, 3, 2], windings: [0, 1], windingSign: -1 },
};
