import type { Arrangement } from '../arrangement';

/** Windings A-G and B-G, diodes A>P and B>P: the halves of a tapped winding take turns. */
export const centreTap: Arrangement = {
  kind: 'centre-tap',
  facts: {
    name: 'Centre tap',
    when: 'Right for a tapped winding and low volts or valves: one diode drop, two windings taking turns.',
    fullWave: true,
    diodesInPath: 1,
    reversePeaks: 2,
    rmsFactor: 1.25,
  },
  ratios: [1, -1],
  loops: [
    { winding: 0, sign: 1, input: 0, railDiode: 0 },
    { winding: 1, sign: 1, input: 0, railDiode: 1 },
  ],
  rails: 1,
  stacked: false,
  mirror: { loops: [1, 0], windings: [1, 0], windingSign: 1 },
};
