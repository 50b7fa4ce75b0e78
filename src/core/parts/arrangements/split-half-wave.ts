import type { Arrangement } from '../arrangement';

/** One winding A-G, diodes A>P and N>A: a rail from each half wave. Unequal loads leave direct current in the winding. */
export const splitHalfWave: Arrangement = {
  words: {
    name: 'Split half-wave',
    when: 'Right for two small rails from a single winding or an AC adapter, when both draw alike.',
    rmsFactor: 3.5,
  },
  ratios: [1],
  cells: [
    { at: 'rail', rail: 0 },
    { at: 'rail', rail: 1 },
  ],
  loops: [
    { winding: 0, sign: 1, cells: [{ cell: 0, sign: 1 }], diodes: [0] },
    { winding: 0, sign: -1, cells: [{ cell: 1, sign: 1 }], diodes: [1] },
  ],
  rails: 2,
  mirror: null,
  joints: {
    windings: [['A', 'G']],
    diodes: [
      ['A', 'P'],
      ['N', 'A'],
    ],
    cells: [
      ['P', 'G'],
      ['G', 'N'],
    ],
  },
  failsTo: [{ how: 'path-open', open: [0, 1] }],
};
