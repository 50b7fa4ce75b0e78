/** What of a build may be other than its design says, as factors of the design's own values. */
export const FACTORS = ['open', 'copper', 'capacitance', 'diode', 'sink'] as const;
export type FactorId = (typeof FACTORS)[number];
export type Factors = Readonly<Partial<Record<FactorId, number>>>;
