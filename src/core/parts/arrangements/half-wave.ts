import type { Arrangement } from '../arrangement';

/** Winding A-G, diode A>P: every other half wave charges the rail. */
export const halfWave: Arrangement = {
  words: {
    name: 'Half-wave',
    when: 'Right for a few milliamps, where one diode is all there is room for.',
    rmsFactor: 2.5,
  },
  ratios: [1],
  cells: [{ at: 'rail', rail: 0 }],
  loops: [{ winding: 0, sign: 1, cells: [{ cell: 0, sign: 1 }], diodes: [0] }],
  rails: 1,
  mirror: null,
  joints: {
    windings: [['A', 'G']],
    diodes: [['A', 'P']],
    cells: [['P', 'G']],
  },
  failsTo: [],
};
