import type { Design } from '@/core/design/design';
import { circuitFaults, type CircuitFault } from './circuit-faults';
import type { Throughput } from './design-model';
import { outputFaults, type OutputFault } from './output-faults';

/** Everything that can be wrong with a built design: in its circuit, and behind its reservoir. */
export interface DesignFaults {
  ahead: CircuitFault[];
  behind: OutputFault[];
  /** What a sound regulator makes of its input; null where there is none. */
  sound: Throughput | null;
}

/** The faults this very design can have, those of its circuit first. */
export function designFaults(design: Design): DesignFaults {
  const { sound, faults } = outputFaults(design);
  return { ahead: circuitFaults(design), behind: faults, sound };
}
