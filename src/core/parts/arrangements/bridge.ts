import type { Arrangement } from '../arrangement';

/** Winding A-B, diodes A>P, G>B, B>P, G>A: the whole winding works in both half waves, two diodes in the path. */
export const bridge: Arrangement = {
  words: {
    name: 'Bridge',
    when: 'Right for nearly everything: the whole winding works in both half waves.',
    rmsFactor: 1.8,
  },
  ratios: [1],
  cells: [{ at: 'rail', rail: 0 }],
  loops: [
    { winding: 0, sign: 1, cells: [{ cell: 0, sign: 1 }], diodes: [0], returnDiodes: [1] },
    { winding: 0, sign: -1, cells: [{ cell: 0, sign: 1 }], diodes: [2], returnDiodes: [3] },
  ],
  rails: 1,
  mirror: { loops: [1, 0], windings: [0], windingSign: -1 },
  joints: {
    windings: [['A', 'B']],
    diodes: [
      ['A', 'P'],
      ['G', 'B'],
      ['B', 'P'],
      ['G', 'A'],
    ],
    cells: [['P', 'G']],
  },
  failsTo: [{ how: 'path-open', open: [0, 1, 2, 3] }],
};
