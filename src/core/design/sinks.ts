import type { Design } from './design';
import { rectifierSink } from './heaters';
import { outputModel, outputsOf } from './outputs';

/** A heatsink of a design. */
export interface Sink {
  /** H1. */
  ref: string;
  /** Sink to air, K/W. */
  kPerW: number;
  /** Whose it is: the main output's and its twin's, a further output's by its place, or the rectifier's. */
  of: 'main' | 'rectifier' | number;
  /** What is screwed to it, in words. */
  what: string;
}

/** Every heatsink, in the order they are referred to: the main output's, the further ones', the rectifier's. */
export function sinksOf(design: Design): Sink[] {
  const { heat } = design;
  const sinks: Omit<Sink, 'ref'>[] = [];
  for (const output of outputsOf(design)) {
    const main = output.place < 0;
    // One for all is the main output's.
    if (heat.oneSink && sinks.length > 0) break;
    if (output.sinkKPerW === null || !outputModel(output)?.pass.takesSink || (heat.oneSink && !main)) continue;
    sinks.push({
      kPerW: output.sinkKPerW,
      of: main ? 'main' : output.place,
      what: heat.oneSink ? 'all regulators' : `the regulator of ${output.name}`,
    });
  }
  if (heat.rectifierSinkKPerW !== null && rectifierSink(design) === 'own')
    sinks.push({ kPerW: heat.rectifierSinkKPerW, of: 'rectifier', what: 'the rectifier' });
  return sinks.map((s, n) => ({ ref: `H${n + 1}`, ...s }));
}
