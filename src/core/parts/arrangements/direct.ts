import type { Arrangement } from '../arrangement';

/** No winding: a DC source A-G, through a diode A>P against swapped leads (or a wire), charges the rail all the time. */
export const direct: Arrangement = {
  kind: 'direct',
  facts: {
    name: 'Direct current',
    when: 'Right where a battery or an adapter feeds it: no transformer, no rectifier.',
    fullWave: true,
    diodesInPath: 1,
    reversePeaks: 2,
    rmsFactor: 1,
  },
  ratios: [1],
  loops: [{ winding: 0, sign: 1, input: 0, railDiode: 0 }],
  rails: 1,
  stacked: false,
  mirror: null,
};
