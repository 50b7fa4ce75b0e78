import type { Condition } from '@/core/circuit/condition';
import type { Design } from '@/core/design/design';
import { dcSourceOf, hasDiodes } from '@/core/design/source';
import { diodeOf } from '@/core/parts/diode';
import { regulatorModel } from '@/core/parts/regulators';
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

/** The most a silicon or Schottky junction bears, and a winding of insulation class A, °C. */
export const DIODE_MAX_C = { silicon: 150, Schottky: 125 } as const;
export const WINDING_MAX_C = 105;

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

/** How warm the parts of three stations get in the end, and what each bears, °C. */
export interface StationHeat {
  winding?: { tempC: number; limitC: number };
  rectifier?: { tempC: number; limitC: number };
  regulator?: { tempC: number; limitC: number };
}

/** Temperatures of a solved point for its drawing: without what is not there, or has no end. */
export function stationHeat(design: Design, point: Burning & { warmth: Warmth }): StationHeat {
  const out: StationHeat = {};
  if (!dcSourceOf(design)) {
    const copper = copperHeat(design, point, point.warmth.copperC);
    out.winding = { tempC: copper.settles ? Math.min(copper.copperC, NO_REST_C) : NO_REST_C, limitC: WINDING_MAX_C };
  }
  if (hasDiodes(design)) {
    out.rectifier = {
      tempC: Math.min(diodeJunctionC(design, point), NO_REST_C),
      limitC: DIODE_MAX_C[diodeOf(design.rectifier).technology],
    };
  }
  const model = regulatorModel(design.regulator);
  if (model && point.heat) out.regulator = { tempC: point.heat.junctionC, limitC: model.pass.junctionMaxC };
  return out;
}
