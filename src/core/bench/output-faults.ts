import type { Design } from '@/core/design/design';
import { mainModel } from '@/core/design/outputs';
import { dropoutAt, type OutputFailure, type RegulatorModel } from '@/core/parts/regulators/model';
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

/** What is left at an output nothing comes to, V. */
const NEXT_TO_NOTHING = 0.02;

/** What a dead part of a regulator makes of its input. */
function failed(model: RegulatorModel, { how, heldV = 0 }: OutputFailure): Throughput {
  const top: Throughput = (railV, loadA) => Math.max(0, railV - dropoutAt(model, loadA));
  switch (how) {
    case 'dead':
      return () => NEXT_TO_NOTHING;
    case 'through':
      return (railV) => railV;
    case 'top':
      return top;
    case 'bottom':
      return (railV, loadA, setV) => Math.min(heldV, top(railV, loadA, setV));
  }
}

/** What can go wrong behind the reservoir, as its family says. */
export function outputFaults(design: Design): { sound: Throughput | null; faults: OutputFault[] } {
  const model = mainModel(design);
  if (!model) return { sound: null, faults: [] };
  return {
    sound: sound(model),
    faults: model.failsTo.map((f) => ({ fault: `output-${f.how}`, prior: f.share, through: failed(model, f) })),
  };
}
