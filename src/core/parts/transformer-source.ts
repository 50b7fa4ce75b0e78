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

/** How sure a way of knowing a transformer is: in words, and about how far its resistance may be off, per cent. */
export const SOURCE_TRUST: Readonly<Record<TransformerSource['kind'], { words: string; ohmPct: number }>> = {
  plate: { words: 'Nameplate: volts at rated load, copper from its regulation', ohmPct: 20 },
  ohms: { words: 'Two ohm readings and open volts: good where the meter resolves the ohms', ohmPct: 8 },
  test: { words: 'A resistive load test: the surest, copper split half and half', ohmPct: 4 },
  fitted: { words: 'Fitted to your readings of the whole supply', ohmPct: 10 },
  wound: { words: 'Computed from turns and wire', ohmPct: 10 },
};

/** What open volts may be off where nobody measured them, per cent. */
const OPEN_PCT = 3;

/** How far open volts and resistance of a transformer may be off, per cent, by what is known of it. */
export function sourceSpread(source: TransformerSource): { voltsPct: number; ohmPct: number } {
  return source.kind === 'fitted'
    ? { voltsPct: source.voltsPct, ohmPct: source.ohmPct }
    : { voltsPct: OPEN_PCT, ohmPct: SOURCE_TRUST[source.kind].ohmPct };
}

/** One way's answer beside the nameplate's, for the person to see how they disagree. */
export interface WayCompared {
  kind: TransformerSource['kind'];
  openV: number;
  /** Resistance of one winding with the primary's share, cold, ohm. */
  ohm: number;
  /** Per cent against the nameplate. */
  openOffPct: number;
  ohmOffPct: number;
}

/** Compares a way of knowing a transformer with its nameplate. */
export function compareWithPlate(
  plate: TransformerNameplate,
  source: TransformerSource,
  nominalV: number,
  frequencyHz: number,
): { plate: WayCompared; way: WayCompared } {
  const read = (kind: TransformerSource['kind'], model: TransformerModel) => ({
    kind,
    openV: model.openCircuitV,
    ohm: model.ownColdOhm + model.sharedColdOhm,
  });
  const own = read('plate', transformerModel(plate));
  const other = read(source.kind, modelFromSource(plate, source, nominalV, frequencyHz));
  const against = (x: typeof own): WayCompared => ({
    ...x,
    openOffPct: 100 * (x.openV / own.openV - 1),
    ohmOffPct: 100 * (x.ohm / own.ohm - 1),
  });
  return { plate: against(own), way: against(other) };
}
