/** Time constants of what warms, s, and how far along it is. */

/** A box of air and tin. */
export const BOX_S = 2400;

/** A winding, by the size of its transformer. */
export const windingS = (ratedVA: number) => 3000 * (ratedVA / 100) ** 0.25;

/** A sink's own: its resistance times the heat in an aluminium plate of that resistance, 2 mm thick. */
export const sinkS = (kPerW: number) => kPerW * 0.486 * (50 / kPerW) ** 2;

/** Share of its way it has come after some minutes; null for the end. */
export const arrived = (minutes: number | null, tauS: number) =>
  minutes === null ? 1 : 1 - Math.exp((-60 * minutes) / tauS);
