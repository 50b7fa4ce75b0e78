/**
 * A mains transformer known from its nameplate. Model: open-circuit volts behind copper, half of it in the primary
 * (shared by all windings on the core), half in the secondary. Referred to one winding, or to one half of a centre tap.
 */

export interface TransformerNameplate {
  /** RMS volts of the winding, or of each half of a centre tap, at rated resistive load, V. */
  ratedV: number;
  /** Apparent power of the whole transformer, VA. */
  ratedVA: number;
  /** (no-load - full-load)/full-load volts; null when the plate does not say and the typical figure is taken. */
  regulation: number | null;
  /** 1, or 2 for a centre-tapped winding. */
  halves: 1 | 2;
  /** Temperature of the warm copper, °C. The plate's regulation is taken as a warm figure. */
  hotC: number;
}

export interface TransformerModel {
  openCircuitV: number;
  ratedA: number;
  regulation: number;
  regulationKnown: boolean;
  /** Own and shared resistance of each winding, warm, ohm. */
  ownHotOhm: number;
  sharedHotOhm: number;
  /** The same at 20 °C. */
  ownColdOhm: number;
  sharedColdOhm: number;
}

/** Typical regulation of laminated (E-I) transformers by size, [VA, fraction]. */
const TYPICAL_REGULATION: readonly (readonly [number, number])[] = [
  [3, 0.4],
  [6, 0.3],
  [10, 0.235],
  [20, 0.18],
  [30, 0.16],
  [50, 0.125],
  [80, 0.11],
  [120, 0.095],
  [160, 0.085],
  [225, 0.075],
  [300, 0.065],
  [500, 0.05],
  [1000, 0.035],
];

/** Typical regulation for a transformer of `va` volt-amperes, interpolated on a logarithmic scale; the ends are held. */
export function typicalRegulation(va: number): number {
  const table = TYPICAL_REGULATION;
  if (va <= table[0]![0]) return table[0]![1];
  for (let n = 1; n < table.length; n++) {
    const [va1, r1] = table[n]!;
    const [va0, r0] = table[n - 1]!;
    if (va <= va1) return r0 + ((r1 - r0) * Math.log(va / va0)) / Math.log(va1 / va0);
  }
  return table[table.length - 1]![1];
}

/**
 * Resistance of copper at `temperatureC`, relative to 20 °C: (234.5 + T)/254.5 (IEC 60034-1 method for copper).
 */
export function copperRatio(temperatureC: number): number {
  return (234.5 + temperatureC) / 254.5;
}

/**
 * Nameplate to model. Rated current = VA/(volts x halves): a centre tap's rating is for the whole winding.
 * Per half, full load drops ratedV*regulation; half of that is the primary's, which for a centre tap carries
 * twice the winding current's worth of ampere-turns.
 */
export function transformerModel(plate: TransformerNameplate): TransformerModel {
  const regulation = plate.regulation ?? typicalRegulation(plate.ratedVA);
  const ratedA = plate.ratedVA / (plate.ratedV * plate.halves);
  const dropV = plate.ratedV * regulation;
  const ownHotOhm = (0.5 * dropV) / ratedA;
  const sharedHotOhm = (0.5 * dropV) / (ratedA * plate.halves);
  const ratio = copperRatio(plate.hotC);
  return {
    openCircuitV: plate.ratedV * (1 + regulation),
    ratedA,
    regulation,
    regulationKnown: plate.regulation !== null,
    ownHotOhm,
    sharedHotOhm,
    ownColdOhm: ownHotOhm / ratio,
    sharedColdOhm: sharedHotOhm / ratio,
  };
}

/** Secondary volts sold off the shelf, V. */
export const STANDARD_SECONDARY_V = [
  6, 7.5, 9, 10, 12, 15, 18, 20, 22, 24, 25, 28, 30, 33, 35, 36, 40, 42, 45, 48, 50, 55, 60, 70, 80, 100, 115, 150, 180,
  200, 230, 250, 300, 350,
];

/** Sizes sold off the shelf, VA. */
export const STANDARD_VA = [
  3, 6, 10, 16, 20, 25, 30, 40, 50, 60, 80, 100, 120, 160, 200, 225, 250, 300, 400, 500, 625, 750, 1000,
];

/** Typical hobby price of a transformer, EUR. A rule of thumb to order choices by, not an offer. */
export function typicalTransformerPrice(va: number, halves: number): number {
  return 4.5 + 1.35 * va ** 0.72 + (halves === 2 ? 1.2 : 0);
}
