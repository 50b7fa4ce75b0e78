import type { Condition } from '@/core/circuit/condition';
import type { Design } from '@/core/design/design';
import { dcSourceOf, hasDiodes } from '@/core/design/source';
import { diodeOf } from '@/core/parts/diode';
import type { DiodeResult } from '@/core/solve/solution';
import { copperHeat } from './copper-heat';
import type { RegulatorHeat } from './heat';
import { insideAir } from './heat';
import { lossesOf, type Watts } from './losses';

/** Temperatures the circuit's copper and diodes are solved at, °C. */
export interface Warmth {
  copperC: number;
  diodeC: number;
}

/** Diode junction to a sink it is screwed to, K/W. */
export const DIODE_TO_SINK_K_PER_W = 2;

/** Junction to free air of one rectifier diode by its size, K/W: 65 for an ampere, falling with the root; typical. */
export function diodeKPerW(averageA: number): number {
  return 65 / Math.sqrt(averageA);
}

/** Hotter than any copper or junction stays in one piece, °C: what a search that has no end is stopped at. */
export const NO_REST_C = 250;

/** What the data of a diode is given at, °C. */
const DATA_C = 25;

/** What the circuit is solved at where nothing is solved together: copper as chosen, diodes as their data has them. */
export function chosenWarmth({ transformer }: Design): Warmth {
  return { copperC: transformer.hotC, diodeC: DATA_C };
}

interface Burning {
  watts: Watts;
  heat: RegulatorHeat | null;
  solution: { diodes: readonly DiodeResult[] };
}

/** The hottest diode's junction in the end, °C: in the air of the box, or on the regulator's sink where it shares it. */
export function diodeJunctionC(design: Design, point: Burning): number {
  const { heat, rectifier } = design;
  const each = Math.max(...point.solution.diodes.map((d) => d.meanW));
  const onSink = heat.sharedWithRectifier && heat.sinkKPerW !== null && point.heat && point.heat.chain.length > 1;
  return onSink
    ? point.heat!.sinkC + each * DIODE_TO_SINK_K_PER_W
    : insideAir(design, lossesOf(design, point.watts).insideW) + each * diodeKPerW(diodeOf(rectifier).averageA);
}

/** Where copper and diodes end with the losses of a point that was solved at `assumed`; `settles` false where they run away. */
export function warmthAfter(design: Design, point: Burning, assumed: Warmth): Warmth & { settles: boolean } {
  const copper = dcSourceOf(design) ? null : copperHeat(design, point, assumed.copperC);
  const diodeC = hasDiodes(design) ? diodeJunctionC(design, point) : DATA_C;
  return {
    copperC: copper ? Math.min(copper.settles ? copper.copperC : NO_REST_C, NO_REST_C) : assumed.copperC,
    diodeC: Math.min(diodeC, NO_REST_C),
    settles: (!copper || (copper.settles && copper.copperC < NO_REST_C)) && diodeC < NO_REST_C,
  };
}

/** Whether a condition is one in which copper and diodes are warm, of a design that has them solved together. */
export function solvedTogether(design: Design, condition: Condition): boolean {
  return design.heat.together && condition.copper === 'hot';
}
