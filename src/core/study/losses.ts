import type { Design } from '@/core/design/design';
import { regulatorModel } from '@/core/parts/regulators';

/** Watts leaving at each station, W. */
export interface Watts {
  winding: number;
  rectifier: number;
  reservoir: number;
  regulator: number;
  /** In further regulators on the same rail. */
  outputs: number;
  load: number;
}

/** Iron loss as a share of the transformer's size: middle of 3-6 % (laminated) and of 0.7-1.5 % (ring), typical. */
const IRON_SHARE = { laminated: 0.04, toroid: 0.01 } as const;

/** Everything a supply gives off as heat, W. */
export interface Losses {
  /** Magnetising the core, typical for its kind and size. */
  ironW: number;
  copperW: number;
  rectifierW: number;
  /** Reservoir, filter and bleeder. */
  filterW: number;
  regulatorW: number;
  /** Further regulators on the same rail. */
  outputsW: number;
  /** What stays in the box: all of it, less a sink whose fins stand outside. */
  insideW: number;
  totalW: number;
}

/** Adds up the losses of a solved point. */
export function lossesOf({ source, transformer, heat, regulator }: Design, watts: Watts): Losses {
  // What a DC source loses stays in the source, which stands outside the box.
  const dc = source.kind !== 'mains';
  const ironW = dc ? 0 : IRON_SHARE[transformer.core] * transformer.ratedVA;
  const copperW = dc ? 0 : watts.winding;
  const totalW = ironW + copperW + watts.rectifier + watts.reservoir + watts.regulator + watts.outputs;
  const cooled = heat.sinkKPerW !== null && (regulatorModel(regulator)?.pass.takesSink ?? false);
  const onSinkW = !cooled ? 0 : watts.regulator + (heat.sharedWithRectifier ? watts.rectifier : 0);
  return {
    ironW,
    copperW,
    rectifierW: watts.rectifier,
    filterW: watts.reservoir,
    regulatorW: watts.regulator,
    outputsW: watts.outputs,
    insideW: totalW - (heat.sinkOutside ? onSinkW : 0),
    totalW,
  };
}
