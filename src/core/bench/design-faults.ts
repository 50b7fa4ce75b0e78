import { CONDITIONS } from '@/core/circuit/condition';
import { mainsVolts } from '@/core/circuit/feed';
import { networkOf } from '@/core/circuit/network-of';
import type { Design } from '@/core/design/design';
import { caseFaults, type CaseFault } from '@/core/fit/case-faults';
import type { Throughput } from './design-model';
import { outputFaults, type OutputFault } from './output-faults';

/** Everything that can be wrong with a built design: in its circuit, and behind its reservoir. */
export interface DesignFaults {
  ahead: CaseFault[];
  behind: OutputFault[];
  /** What a sound regulator makes of its input; null where there is none. */
  sound: Throughput | null;
}

/** The faults this very design can have, those of its circuit first. */
export function designFaults(design: Design): DesignFaults {
  const network = networkOf(design, CONDITIONS.nominal, { mainsV: mainsVolts(design, 'nominal') });
  const scale = { railV: 1.3 * network.sections[0]!.winding.voltageRms, loadA: design.demand.outputA };
  const { sound, faults } = outputFaults(design);
  return { ahead: caseFaults(network, scale), behind: faults, sound };
}
