import type { Arrangement } from '../arrangement';

/**
 * Winding A-G, A being ground of the rail: G>N1 charges the lower can in one half wave, N1>N2 lifts a pump to twice the
 * peak in the other, N2>N3 hands that on to the upper can. The rail stands on both cans, at three times the peak.
 */
export const tripler: Arrangement = {
  words: {
    name: 'Tripler',
    when: 'Right when the winding is a third of what is needed, for milliamps: soft, and one half wave fills the rail.',
    rmsFactor: 6,
  },
  ratios: [1],
  cells: [{ at: 'stack' }, { at: 'stack' }, { at: 'pump' }],
  loops: [
    { winding: 0, sign: -1, cells: [{ cell: 1, sign: 1 }], diodes: [0] },
    {
      winding: 0,
      sign: 1,
      cells: [
        { cell: 2, sign: 1 },
        { cell: 1, sign: -1 },
      ],
      diodes: [1],
    },
    {
      winding: 0,
      sign: -1,
      cells: [
        { cell: 0, sign: 1 },
        { cell: 1, sign: 1 },
        { cell: 2, sign: -1 },
      ],
      diodes: [2],
    },
  ],
  rails: 1,
  mirror: null,
  joints: {
    windings: [['G', 'B']],
    diodes: [
      ['B', 'L'],
      ['L', 'M'],
      ['M', 'P'],
    ],
    cells: [
      ['P', 'L'],
      ['L', 'G'],
      ['M', 'B'],
    ],
  },
  failsTo: [{ how: 'path-open', open: [0, 1, 2] }],
};
