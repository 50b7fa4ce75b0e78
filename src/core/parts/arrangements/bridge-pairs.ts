import type { Arrangement } from '../arrangement';

/** A bridge with two diodes in series in each arm, for volts that one would not bear backwards. */
export const bridgeOfPairs: Arrangement = {
  words: {
    name: 'Bridge of pairs',
    when: 'Right for high volts: two diodes in series in each arm share them; a resistor across each keeps the shares alike.',
    rmsFactor: 1.8,
  },
  ratios: [1],
  cells: [{ at: 'rail', rail: 0 }],
  loops: [
    { winding: 0, sign: 1, cells: [{ cell: 0, sign: 1 }], diodes: [0, 1], returnDiodes: [2, 3] },
    { winding: 0, sign: -1, cells: [{ cell: 0, sign: 1 }], diodes: [4, 5], returnDiodes: [6, 7] },
  ],
  rails: 1,
  mirror: { loops: [1, 0], windings: [0], windingSign: -1 },
  joints: {
    windings: [['A', 'B']],
    diodes: [
      ['A', 'w'],
      ['w', 'P'],
      ['G', 'x'],
      ['x', 'B'],
      ['B', 'y'],
      ['y', 'P'],
      ['G', 'z'],
      ['z', 'A'],
    ],
    cells: [['P', 'G']],
  },
  failsTo: [{ how: 'path-open', open: [0, 1, 2, 3, 4, 5, 6, 7] }],
};
