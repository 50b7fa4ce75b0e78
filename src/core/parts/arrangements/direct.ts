import type { Arrangement } from '../arrangement';

/** No winding: a DC source A-G, through a diode A>P against swapped leads (or a wire), charges the rail all the time. */
export const direct: Arrangement = {
  words: {
    name: 'Direct current',
    when: 'Right where a battery or an adapter feeds it: no transformer, no rectifier.',
    rmsFactor: 1,
  },
  ratios: [1],
  cells: [{ at: 'rail', rail: 0 }],
  loops: [{ winding: 0, sign: 1, cells: [{ cell: 0, sign: 1 }], diodes: [0] }],
  rails: 1,
  direct: true,
  mirror: null,
  joints: {
    windings: [['A', 'G']],
    diodes: [['A', 'P']],
    cells: [['P', 'G']],
  },
  failsTo: [],
};
