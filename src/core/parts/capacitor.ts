/**
 * Aluminium electrolytic capacitors, general purpose grade. Typical values by capacitance and rated volts.
 */

/**
 * Equivalent series resistance at 100/120 Hz and 20 °C, ohm, from the loss tangent of its voltage class
 * plus 0.02 per 1000 µF above 1000 µF (the way data sheets of this grade specify it).
 */
export function typicalEsr(capacitanceF: number, ratedV: number): number {
  if (!(capacitanceF > 0)) return 0;
  return lossTangent(capacitanceF, ratedV) / (2 * Math.PI * 120 * capacitanceF);
}

export function lossTangent(capacitanceF: number, ratedV: number): number {
  const base =
    ratedV <= 10
      ? 0.2
      : ratedV <= 16
        ? 0.16
        : ratedV <= 25
          ? 0.14
          : ratedV <= 35
            ? 0.12
            : ratedV <= 63
              ? 0.1
              : ratedV <= 100
                ? 0.08
                : 0.15;
  return base + Math.min(0.2, 0.02 * Math.max(0, (capacitanceF - 1e-3) / 1e-3));
}

/** Permissible ripple current at 100/120 Hz, A: grows with the root of can size, here C times V. About +-25 %. */
export function typicalRippleRating(capacitanceF: number, ratedV: number): number {
  const perRoot = ratedV > 160 ? 3.4 : 6.1;
  return perRoot * Math.sqrt(Math.max(0, capacitanceF) * ratedV);
}

/** Leakage after some hours at rated voltage, A: about a fifth of the 0.01*C*V limit that data sheets give (IEC 60384-4). */
export function typicalLeakage(capacitanceF: number, ratedV: number): number {
  return Math.max(10e-6, 0.002 * capacitanceF * ratedV);
}

/** Typical hobby price, EUR. A rule of thumb to order choices by. */
export function typicalCapacitorPrice(capacitanceF: number, ratedV: number): number {
  return capacitanceF > 0 ? 0.15 + 4.5 * (capacitanceF * ratedV) ** 0.75 : 0;
}
