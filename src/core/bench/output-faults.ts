import type { Design } from '@/core/design/design';
import { mainModel } from '@/core/design/outputs';
import { REFERENCE_V } from '@/core/parts/regulators/adjustable';
import { VBE } from '@/core/parts/regulators/error-transistor';
import { dropoutAt, type RegulatorModel } from '@/core/parts/regulators/model';
import type { Throughput } from './design-model';
import type { BenchFault } from './fault-words';

const sound =
  (model: RegulatorModel): Throughput =>
  (railV, loadA, setV) =>
    Math.max(0, Math.min(setV, railV - dropoutAt(model, loadA)));

/** Something wrong behind the reservoir: what then comes out. */
export interface OutputFault {
  fault: Extract<BenchFault, `output-${string}`>;
  prior: number;
  through: Throughput;
}

/** What a regulator set by resistors holds with the lower one shorted, V; null where no resistor sets it. */
function bottomV({ regulator }: Design): number | null {
  if (regulator.kind === 'adjustable') return REFERENCE_V;
  // Its reference and the base-emitter volts of the transistor that compares.
  if (regulator.kind === 'error-transistor') return regulator.zenerV + VBE;
  return null;
}

/** What can go wrong behind the reservoir, as its family can have it. */
export function outputFaults(design: Design): { sound: Throughput | null; faults: OutputFault[] } {
  const model = mainModel(design);
  if (!model) return { sound: null, faults: [] };
  const bottom = bottomV(design);
  const top: Throughput = (railV, loadA) => Math.max(0, railV - dropoutAt(model, loadA));
  return {
    sound: sound(model),
    faults: [
      { fault: 'output-dead', prior: 0.05, through: () => 0.02 },
      { fault: 'output-through', prior: 0.02, through: (railV) => railV },
      { fault: 'output-top', prior: 0.03, through: top },
      ...(bottom === null
        ? []
        : [
            {
              fault: 'output-bottom' as const,
              prior: 0.02,
              through: (railV: number, loadA: number) => Math.min(bottom, top(railV, loadA, 0)),
            },
          ]),
    ],
  };
}
