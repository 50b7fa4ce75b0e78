import type { Arrangement } from '../arrangement';

/** Winding A-G, a pump in series with A, diodes G>N and N>P: one half wave charges the pump, the other adds it to the winding. */
export const cascadeDoubler: Arrangement = {
  words: {
    name: 'Doubler, one side grounded',
    when: 'Right for twice the peak where one end of the winding has to be ground, as on a winding that feeds other rails.',
    rmsFactor: 4.5,
  },
  ratios: [1],
  cells: [{ at: 'rail', rail: 0 }, { at: 'pump' }],
  loops: [
    { winding: 0, sign: -1, cells: [{ cell: 1, sign: 1 }], diodes: [0] },
    {
      winding: 0,
      sign: 1,
      cells: [
        { cell: 0, sign: 1 },
        { cell: 1, sign: -1 },
      ],
      diodes: [1],
    },
  ],
  rails: 1,
  mirror: null,
  joints: {
    windings: [['A', 'G']],
    diodes: [
      ['G', 'M'],
      ['M', 'P'],
    ],
    cells: [
      ['P', 'G'],
      ['M', 'A'],
    ],
  },
  failsTo: [{ how: 'path-open', open: [0, 1] }],
};
