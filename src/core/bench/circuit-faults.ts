import { CONDITIONS } from '@/core/circuit/condition';
import { mainsVolts } from '@/core/circuit/feed';
import type { Network } from '@/core/circuit/network';
import { networkOf } from '@/core/circuit/network-of';
import type { Design } from '@/core/design/design';
import { arrangementOf } from '@/core/design/source';
import type { Unknown } from '@/core/fit/belief';
import { caseFaults, HOW_COMMON } from '@/core/fit/case-faults';
import type { BenchFault } from './fault-words';

/** Something wrong ahead of the regulator, at one place: an edit of the circuit, with how bad it is as its own unknowns. */
export interface CircuitFault {
  fault: Exclude<BenchFault, `output-${string}` | 'probe-factor' | 'bad-choice' | 'other'>;
  part: string;
  /** How common it is at this place, among supplies somebody doubts. Rule of thumb. */
  prior: number;
  severity: readonly Unknown[];
  edit(circuit: Network, severity: readonly number[]): Network;
}

/** How common what stops everything is; rules of thumb, like those of the circuit's own faults. */
const STOPS = { 'source-dead': 0.06, 'path-open': 0.03, 'winding-open': 0.03 } as const;
/** Share of its volts a dead source still shows: nothing a meter reads, and enough for the solver. */
const DEAD = 1e-5;

/** Every fault a design's circuit can have: those of any circuit, and those its arrangement lists. */
export function circuitFaults(design: Design): CircuitFault[] {
  const network = networkOf(design, CONDITIONS.nominal, { mainsV: mainsVolts(design, 'nominal') });
  const scale = { railV: 1.3 * network.sections[0]!.winding.voltageRms, loadA: design.demand.outputA };
  const own = arrangementOf(design).failsTo;
  return [
    ...caseFaults(network, scale).map((f): CircuitFault => ({
      fault: f.fault,
      part: f.part,
      prior: HOW_COMMON[f.fault] * f.share,
      severity: f.severity,
      edit: (c, severity) => f.edit(c, severity),
    })),
    {
      fault: 'source-dead',
      part: 'source',
      prior: STOPS['source-dead'],
      severity: [],
      edit: (c) => ({
        ...c,
        sections: c.sections.map((s) => ({
          ...s,
          winding: { ...s.winding, voltageRms: DEAD * s.winding.voltageRms },
        })),
      }),
    },
    ...own.map(({ how, winding, open }): CircuitFault => ({
      fault: how,
      part: winding === undefined ? '' : `winding ${winding}`,
      prior: STOPS[how] / own.filter((f) => f.how === how).length,
      severity: [],
      edit: (c) => withOpen(c, open),
    })),
  ];
}

/** Nothing flows through some of the diodes. */
const withOpen = (c: Network, diodes: readonly number[]): Network => ({
  ...c,
  sections: c.sections.map((s) => ({
    ...s,
    rectifier: { ...s.rectifier, faults: diodes.map((diode) => ({ diode, state: 'open' as const })) },
  })),
});
