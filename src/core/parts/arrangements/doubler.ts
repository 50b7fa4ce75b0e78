import type { Arrangement } from '../arrangement';

/** Winding J-M, diodes J>P and G>J, M between two capacitors in series: each half wave charges one of them. */
export const doubler: Arrangement = {
  words: {
    name: 'Doubler',
    when: 'Right when the winding is too low: twice the peak from two capacitors, for modest currents.',
    rmsFactor: 3.6,
  },
  ratios: [1],
  cells: [{ at: 'stack' }, { at: 'stack' }],
  loops: [
    { winding: 0, sign: 1, cells: [{ cell: 0, sign: 1 }], diodes: [0] },
    { winding: 0, sign: -1, cells: [{ cell: 1, sign: 1 }], diodes: [1] },
  ],
  rails: 1,
  mirror: { loops: [1, 0], windings: [0], windingSign: -1 },
  joints: {
    windings: [['J', 'M']],
    diodes: [
      ['J', 'P'],
      ['G', 'J'],
    ],
    cells: [
      ['P', 'M'],
      ['M', 'G'],
    ],
  },
  failsTo: [{ how: 'path-open', open: [0, 1] }],
};
