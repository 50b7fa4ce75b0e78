import type { Arrangement } from '../arrangement';

/** Windings A-B and C-D, each with its own bridge; the minus of the first and the plus of the second meet at ground. */
export const twoBridges: Arrangement = {
  words: {
    name: 'Two bridges',
    when: 'Right for a plus and a minus rail from two separate windings; each rail its own bridge.',
    rmsFactor: 1.8,
  },
  ratios: [1, 1],
  cells: [
    { at: 'rail', rail: 0 },
    { at: 'rail', rail: 1 },
  ],
  loops: [
    { winding: 0, sign: 1, cells: [{ cell: 0, sign: 1 }], diodes: [0], returnDiodes: [1] },
    { winding: 0, sign: -1, cells: [{ cell: 0, sign: 1 }], diodes: [2], returnDiodes: [3] },
    { winding: 1, sign: 1, cells: [{ cell: 1, sign: 1 }], diodes: [5], returnDiodes: [4] },
    { winding: 1, sign: -1, cells: [{ cell: 1, sign: 1 }], diodes: [7], returnDiodes: [6] },
  ],
  rails: 2,
  mirror: { loops: [1, 0, 3, 2], windings: [0, 1], windingSign: -1 },
  joints: {
    windings: [
      ['A', 'B'],
      ['C', 'D'],
    ],
    diodes: [
      ['A', 'P'],
      ['G', 'B'],
      ['B', 'P'],
      ['G', 'A'],
      ['N', 'D'],
      ['C', 'G'],
      ['N', 'C'],
      ['D', 'G'],
    ],
    cells: [
      ['P', 'G'],
      ['G', 'N'],
    ],
  },
  failsTo: [
    { how: 'path-open', open: [0, 1, 2, 3, 4, 5, 6, 7] },
    { how: 'winding-open', winding: 0, open: [0, 1, 2, 3] },
    { how: 'winding-open', winding: 1, open: [4, 5, 6, 7] },
  ],
};
