import { bulbsOf } from '@/core/design/heaters';
import type { Condition } from '@/core/circuit/condition';
import type { Design } from '@/core/design/design';
import { arrangementFacts, dcSourceOf, hasDiodes } from '@/core/design/source';
import { mainModel } from '@/core/design/outputs';
import { DIODE_MAX_C, diodeOf } from '@/core/parts/diode';
import { thermalInterface } from '@/core/parts/heatsink';
import type { DiodeResult } from '@/core/solve/solution';
import { greatest } from '@/core/quantity/lists';
import { copperHeat } from './copper-heat';
import type { RegulatorHeat } from './heat';
import { insideAir, sinkRise } from './heat';
import { lossesOf, type Lossy } from './losses';

/** Temperatures the circuit's copper and diodes are solved at, °C. */
export interface Warmth {
  copperC: number;
  diodeC: number;
}

/** Hotter than any copper or junction stays in one piece, °C: what a search that has no end is stopped at. */
export const NO_REST_C = 250;

/** The most a winding of insulation class A bears, °C. */
export const WINDING_MAX_C = 105;

/** What the data of a diode is given at, °C. */
const DATA_C = 25;

/** What the circuit is solved at where nothing is solved together: copper as chosen, diodes as their data has them. */
export function chosenWarmth({ transformer }: Design): Warmth {
  return { copperC: transformer.hotC, diodeC: DATA_C };
}

interface Burning extends Lossy {
  heat: RegulatorHeat | null;
  solution: { diodes: readonly DiodeResult[] };
}

/** How the rectifier gives its heat away, warmest last: where its body stands, and its hottest junction, °C. */
export interface DiodeHeat {
  airC: number;
  /** Sink it is screwed to, or its own body in free air. */
  bodyC: number;
  junctionC: number;
  where: 'regulator’s sink' | 'its own sink' | 'free air';
  /** Where its own chain begins: the air, or the metal of a sink that others warm as well. */
  from: { label: 'air' | 'sink'; tempC: number };
  /** Resistances from there to the hottest junction, K/W, each with what flows through it, W. */
  chain: { label: string; kPerW: number; of: 'all of them' | 'the hottest of them' | 'one bulb'; watts: number }[];
}

/** The rectifier on the regulator's sink, on one of its own, or in the air of the box. */
export function diodeHeat(design: Design, point: Burning): DiodeHeat {
  const { heat, rectifier } = design;
  const diode = diodeOf(rectifier);
  const each = greatest(point.solution.diodes, (d) => d.meanW);
  if (diode.technology === 'valve') {
    const airC = insideAir(design, lossesOf(design, point).insideW);
    const bulbs = bulbsOf(design).reduce((a, b) => a + b, 0);
    const diodesW = point.solution.diodes.reduce((sum, d) => sum + d.meanW, 0);
    const heaterW = Math.max(0, point.watts.rectifier - diodesW) / Math.max(1, bulbs);
    const anodes = Math.min(2, Math.max(...arrangementFacts(design).cathodes));
    const bulbW = heaterW + anodes * each;
    const bulbC = airC + bulbW * diode.jaKPerW;
    return {
      airC,
      bodyC: bulbC,
      junctionC: bulbC,
      where: 'free air',
      from: { label: 'air', tempC: airC },
      chain: [{ label: 'bulb to air', kPerW: diode.jaKPerW, of: 'one bulb', watts: bulbW }],
    };
  }
  const contact = thermalInterface(heat.interface).kPerW;
  const hottest = { of: 'the hottest of them', watts: each } as const;
  const all = { of: 'all of them', watts: point.watts.rectifier } as const;
  const toSink = { label: 'junction to sink', kPerW: diode.jcKPerW + contact, ...hottest };
  if (heat.sharedWithRectifier && heat.sinkKPerW !== null && point.heat && point.heat.chain.length > 1) {
    const { airC, sinkC } = point.heat;
    return {
      airC,
      bodyC: sinkC,
      junctionC: sinkC + each * toSink.kPerW,
      where: 'regulator’s sink',
      from: { label: 'sink', tempC: sinkC },
      chain: [toSink],
    };
  }
  const insideC = insideAir(design, lossesOf(design, point).insideW);
  if (heat.rectifierSinkKPerW !== null) {
    const airC = heat.sinkOutside && heat.box !== 'open' ? heat.ambientC : insideC;
    const { riseK, kPerW } = sinkRise(heat.rectifierSinkKPerW, point.watts.rectifier, false);
    const bodyC = airC + riseK;
    return {
      airC,
      bodyC,
      junctionC: bodyC + each * toSink.kPerW,
      where: 'its own sink',
      from: { label: 'air', tempC: airC },
      chain: [{ label: 'sink to air, at this rise', kPerW, ...all }, toSink],
    };
  }
  if (diode.housing === 'block') {
    const bodyC = insideC + point.watts.rectifier * diode.jaKPerW;
    return {
      airC: insideC,
      bodyC,
      junctionC: bodyC + each * diode.jcKPerW,
      where: 'free air',
      from: { label: 'air', tempC: insideC },
      chain: [
        { label: 'block to air', kPerW: diode.jaKPerW, ...all },
        { label: 'junction to case', kPerW: diode.jcKPerW, ...hottest },
      ],
    };
  }
  const bodyC = insideC + each * (diode.jaKPerW - diode.jcKPerW);
  return {
    airC: insideC,
    bodyC,
    junctionC: insideC + each * diode.jaKPerW,
    where: 'free air',
    from: { label: 'air', tempC: insideC },
    chain: [{ label: 'junction to air', kPerW: diode.jaKPerW, ...hottest }],
  };
}

/** Where copper and diodes end with the losses of a point that was solved at `assumed`; `settles` false where they run away. */
export function warmthAfter(design: Design, point: Burning, assumed: Warmth): Warmth & { settles: boolean } {
  const copper = dcSourceOf(design) ? null : copperHeat(design, point, assumed.copperC);
  const diodeC = hasDiodes(design) ? diodeHeat(design, point).junctionC : DATA_C;
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
      tempC: Math.min(diodeHeat(design, point).junctionC, NO_REST_C),
      limitC: DIODE_MAX_C[diodeOf(design.rectifier).technology],
    };
  }
  const model = mainModel(design);
  if (model && point.heat) out.regulator = { tempC: point.heat.junctionC, limitC: model.pass.junctionMaxC };
  return out;
}
