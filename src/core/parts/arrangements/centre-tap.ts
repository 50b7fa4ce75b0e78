import type { Arrangement } from '../arrangement';

/** Windings A-G and B-G, diodes A>P and B>P: the halves of a tapped winding take turns. */
export const centreTap: Arrangement = {
  words: {
    name: 'Centre tap',
    when: 'Right for a tapped winding and low volts or valves: one diode drop, two windings taking turns.',
    rmsFactor: 1.25,
  },
  ratios: [1, -1],
  cells: [{ at: 'rail', rail: 0 }],
  loops: [
    { winding: 0, sign: 1, cells: [{ cell: 0, sign: 1 }], diodes: [0] },
    { winding: 1, sign: 1, cells: [{ cell: 0, sign: 1 }], diodes: [1] },
  ],
  rails: 1,
  mirror: { loops: [1, 0], windings: [1, 0], windingSign: 1 },
  joints: {
    windings: [
      ['A', 'G'],
      ['B', 'G'],
    ],
    diodes: [
      ['A', 'P'],
      ['B', 'P'],
    ],
    cells: [['P', 'G']],
  },
  failsTo: [{ how: 'path-open', open: [0, 1] }],
};
