import type { Design } from '@/core/design/design';
import { rectifierSink } from '@/core/design/heaters';
import { outputModel, outputsOf } from '@/core/design/outputs';

/** Watts leaving at each station, W. */
export interface Watts {
  winding: number;
  /** In the diodes; of valves with what heats their cathodes. */
  rectifier: number;
  reservoir: number;
  /** In the pass devices of the main output and its twin, pre-regulators included. */
  regulator: number;
  /** In the pass devices of further outputs. */
  outputs: number;
  /** In zeners, setting and sense resistors, drivers, the indicator: whatever else burns. */
  small: number;
  load: number;
}

/** Iron loss as a share of the transformer's size: middle of 3-6 % (laminated) and of 0.7-1.5 % (ring), typical. */
const IRON_SHARE = { laminated: 0.04, toroid: 0.01 } as const;

/** Everything a supply gives off as heat, W. */
export interface Losses {
  /** Magnetising the core, typical for its kind and size. */
  ironW: number;
  copperW: number;
  /** In the diodes; with valves what heats them too. */
  rectifierW: number;
  /** Reservoir, filter and bleeder. */
  filterW: number;
  regulatorW: number;
  /** Regulators of further outputs. */
  outputsW: number;
  smallW: number;
  /** What stays in the box: all of it, less the sinks whose fins stand outside. */
  insideW: number;
  totalW: number;
}

/** What losses are added up from: the watts of a solved point, and those of each further output's pass device. */
export interface Lossy {
  watts: Watts;
  outputs: readonly { regulatorW: number }[];
}

/** Adds up the losses of a solved point. */
export function lossesOf(design: Design, { watts, outputs }: Lossy): Losses {
  const { source, transformer, heat } = design;
  // What a DC source loses stays in the source, which stands outside the box.
  const dc = source.kind !== 'mains';
  const ironW = dc ? 0 : IRON_SHARE[transformer.core] * transformer.ratedVA;
  const copperW = dc ? 0 : watts.winding;
  const totalW = ironW + copperW + watts.rectifier + watts.reservoir + watts.regulator + watts.outputs + watts.small;
  const outside = heat.sinkOutside && heat.box !== 'open';
  const onSinks = outside ? onSinksW(design, watts, outputs) : 0;
  return {
    ironW,
    copperW,
    rectifierW: watts.rectifier,
    filterW: watts.reservoir,
    regulatorW: watts.regulator,
    outputsW: watts.outputs,
    smallW: watts.small,
    insideW: totalW - onSinks,
    totalW,
  };
}

/** Watts that leave by way of sinks, W. */
function onSinksW(design: Design, watts: Watts, outputs: Lossy['outputs']): number {
  const { heat } = design;
  let sum = 0;
  let main = false;
  for (const output of outputsOf(design)) {
    const sinks = outputModel(output)?.pass.takesSink ?? false;
    if (!sinks) continue;
    if (output.id === 'main') main = heat.sinkKPerW !== null;
    const cooled = output.place < 0 ? heat.sinkKPerW !== null : heat.oneSink ? main : output.sinkKPerW !== null;
    if (!cooled) continue;
    if (output.id === 'main') sum += watts.regulator;
    else if (output.place >= 0) sum += outputs[output.place]?.regulatorW ?? 0;
  }
  const cooled = rectifierSink(design);
  const rectifier = cooled === 'own' || (cooled === 'shared' && main);
  return sum + (rectifier ? watts.rectifier : 0);
}
