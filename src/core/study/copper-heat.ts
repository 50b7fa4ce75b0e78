import { modelOf } from '@/core/circuit/feed';
import type { Design } from '@/core/design/design';
import { windingCount } from '@/core/design/words';
import { copperRatio } from '@/core/parts/transformer';
import { insideAir } from './heat';
import { lossesOf, type Lossy } from './losses';

/** Rise of an ordinary transformer at its rated load, K. */
const RATED_RISE_K = 60;
/** Growth of copper's resistance, of its value at 20 °C, 1/K. */
const COPPER_PER_K = 1 / 254.5;

export interface CopperHeat {
  airC: number;
  /** Copper loss if it stayed at 20 °C, W. */
  coldW: number;
  ironW: number;
  kPerW: number;
  /** Where it comes to rest, °C; meaningless where it does not. */
  copperC: number;
  settles: boolean;
}

/**
 * Where the winding's temperature comes to rest with its own resistance growing as it warms: closed form. It has no end
 * where a kelvin more makes more heat than a kelvin more carries away.
 * @param copperC what the copper was taken at when the losses were solved, °C
 */
export function copperHeat(design: Design, point: Lossy, copperC: number = design.transformer.hotC): CopperHeat {
  const model = modelOf(design);
  const losses = lossesOf(design, point);
  const coldW = losses.copperW / copperRatio(copperC);
  const halves = windingCount(design);
  // At rated load both halves of a centre tap carry the rated current.
  const ratedCopperW = halves * model.ratedA ** 2 * (model.ownHotOhm + model.sharedHotOhm * halves);
  const kPerW = RATED_RISE_K / Math.max(ratedCopperW + losses.ironW, 1e-6);
  const airC = insideAir(design, losses.insideW);
  // T = air + k*(iron + cold*(1 + a*(T - 20)))
  const gain = kPerW * coldW * COPPER_PER_K;
  const settles = gain < 0.95;
  const endC = settles ? (airC + kPerW * (losses.ironW + coldW * (1 - 20 * COPPER_PER_K))) / (1 - gain) : Infinity;
  return { airC, coldW, ironW: losses.ironW, kPerW, copperC: endC, settles };
}
