import { copperRatio, transformerModel, type TransformerModel, type TransformerNameplate } from './transformer';
import { woundModel, type WindingPlan } from './winding';

/** A way of knowing a transformer. */
export type TransformerSource =
  | { kind: 'plate' }
  /** Cold ohms of both sides, the secondary of one winding or half, and its open-circuit volts at a mains voltage. */
  | { kind: 'ohms'; primaryOhm: number; secondaryOhm: number; openV: number; mainsV: number }
  /** Volts open and with a resistive load, at a mains voltage. An adapter with AC output is measured so. */
  | { kind: 'test'; openV: number; loadedV: number; loadA: number; mainsV: number }
  /**
   * Fitted to readings of the whole supply: open volts at a mains voltage; ohms of one winding and, referred to it, of what
   * all windings share, at 25 °C; and how far either may be off, per cent.
   */
  | {
      kind: 'fitted';
      openV: number;
      mainsV: number;
      ownOhm: number;
      sharedOhm: number;
      voltsPct: number;
      ohmPct: number;
    }
  | { kind: 'wound'; plan: WindingPlan };

/** Air the readings are usually taken in, °C. */
export const READ_AT_C = 25;

/**
 * The one model of a transformer, whichever way it is known. Voltages are those at nominal mains.
 * @param nominalV the mains voltage the design reckons with, V RMS
 */
export function modelFromSource(
  plate: TransformerNameplate,
  source: TransformerSource,
  nominalV: number,
  frequencyHz: number,
): TransformerModel {
  switch (source.kind) {
    case 'plate':
      return transformerModel(plate);
    case 'ohms': {
      // Two ohm readings and the open-circuit volts: the ratio refers the primary's copper to the secondary.
      const ratio = source.openV / source.mainsV;
      return fromCopper(plate, ratio * nominalV, source.secondaryOhm, source.primaryOhm * ratio ** 2, READ_AT_C);
    }
    case 'test': {
      // A resistive load test says how much copper there is, not on which side: half each, as with a plate.
      const ohm = (source.openV - source.loadedV) / source.loadA;
      return fromCopper(plate, (source.openV / source.mainsV) * nominalV, ohm / 2, ohm / 2, READ_AT_C);
    }
    case 'fitted':
      return fromCopper(plate, (source.openV / source.mainsV) * nominalV, source.ownOhm, source.sharedOhm, READ_AT_C);
    case 'wound': {
      const wound = woundModel(source.plan, nominalV, frequencyHz, plate.halves);
      return fromCopper(plate, wound.openV, wound.secondaryOhm, wound.primaryReferredOhm, 20);
    }
  }
}

/** @param readAtC temperature at which the resistances hold, °C */
function fromCopper(
  plate: TransformerNameplate,
  openCircuitV: number,
  ownOhm: number,
  sharedOhm: number,
  readAtC: number,
): TransformerModel {
  const ratedA = plate.ratedVA / (plate.ratedV * plate.halves);
  const cold = 1 / copperRatio(readAtC);
  const hot = copperRatio(plate.hotC) * cold;
  const dropV = ratedA * hot * (ownOhm + plate.halves * sharedOhm);
  return {
    openCircuitV,
    ratedA,
    // What a plate would say: the drop at rated current against what is left.
    regulation: dropV / Math.max(openCircuitV - dropV, 0.01 * openCircuitV),
    regulationKnown: true,
    ownHotOhm: ownOhm * hot,
    sharedHotOhm: sharedOhm * hot,
    ownColdOhm: ownOhm * cold,
    sharedColdOhm: sharedOhm * cold,
  };
}
