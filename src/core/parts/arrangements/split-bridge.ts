import type { Arrangement } from '../arrangement';

/** Tapped winding A-G, B-G with diodes A>P, N>B, B>P, N>A: two rails about the tap, both full-wave. */
export const splitBridge: Arrangement = {
  kind: 'split-bridge',
  facts: {
    name: 'Split bridge',
    when: 'Right for a plus and a minus rail from one tapped winding: one bridge, both rails full-wave.',
    fullWave: true,
    diodesInPath: 1,
    reversePeaks: 2,
    rmsFactor: 1.8,
  },
  ratios: [1, -1],
  loops: [
    { winding: 0, sign: 1, input: 0, railDiode: 0 },
    { winding: 1, sign: -1, input: 1, railDiode: 1 },
    { winding: 1, sign: 1, input: 0, railDiode: 2 },
    { winding: 0, sign: -1, input: 1, railDiode: 3 },
  ],
  rails: 2,
  stacked: false,
  mirror: { loops: [2, 3, 0, 1], windings: [1, 0], windingSign: 1 },
};
