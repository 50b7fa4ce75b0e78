import type { Arrangement } from '../arrangement';

/** Tapped winding A-G, B-G with diodes A>P, N>B, B>P, N>A: two rails about the tap, both full-wave. */
export const splitBridge: Arrangement = {
  words: {
    name: 'Split bridge',
    when: 'Right for a plus and a minus rail from one tapped winding: one bridge, both rails full-wave.',
    rmsFactor: 1.8,
  },
  ratios: [1, -1],
  cells: [
    { at: 'rail', rail: 0 },
    { at: 'rail', rail: 1 },
  ],
  loops: [
    { winding: 0, sign: 1, cells: [{ cell: 0, sign: 1 }], diodes: [0] },
    { winding: 1, sign: -1, cells: [{ cell: 1, sign: 1 }], diodes: [1] },
    { winding: 1, sign: 1, cells: [{ cell: 0, sign: 1 }], diodes: [2] },
    { winding: 0, sign: -1, cells: [{ cell: 1, sign: 1 }], diodes: [3] },
  ],
  rails: 2,
  mirror: { loops: [2, 3, 0, 1], windings: [1, 0], windingSign: 1 },
  joints: {
    windings: [
      ['A', 'G'],
      ['B', 'G'],
    ],
    diodes: [
      ['A', 'P'],
      ['N', 'B'],
      ['B', 'P'],
      ['N', 'A'],
    ],
    cells: [
      ['P', 'G'],
      ['G', 'N'],
    ],
  },
  failsTo: [
    { how: 'path-open', open: [0, 1, 2, 3] },
    { how: 'winding-open', winding: 0, open: [0, 3] },
    { how: 'winding-open', winding: 1, open: [1, 2] },
  ],
};
