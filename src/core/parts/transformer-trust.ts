import { transformerModel, type TransformerModel, type TransformerNameplate } from './transformer';
import { modelFromSource, type TransformerSource } from './transformer-source';

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
