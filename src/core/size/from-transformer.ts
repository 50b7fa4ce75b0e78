import { blankDesign } from '@/core/design/defaults';
import { applyPatch, type Design, type Mains } from '@/core/design/design';
import { modelOf } from '@/core/circuit/feed';
import { JUNCTION_CLASSES } from '@/core/parts/diode';
import { formatNominal } from '@/core/quantity/format';
import { CAPACITOR_VOLTS, E6, nearestInDecades } from '@/core/quantity/preferred';

/** RMS current of a bridge's winding as a multiple of the direct current: the middle of 1.6 to 2.0. */
const WINDING_TIMES = 1.8;

/**
 * A first design around a transformer in hand: a bridge, no regulator, the load its winding bears by the rule of thumb,
 * a reservoir for a tenth of ripple. Everything in it is a starting point to be judged and changed.
 * @param ratedV RMS volts of one winding; @param ratedVA of the whole transformer
 */
export function designFromTransformer(ratedV: number, ratedVA: number, mains: Mains): Design {
  const outputA = Number((ratedVA / ratedV / WINDING_TIMES).toPrecision(2));
  const outputV = Math.max(0.5, Number((Math.SQRT2 * ratedV - 2).toPrecision(2)));
  const ask = {
    outputV,
    outputA,
    tolerancePct: 30,
    rippleVpp: Number((0.15 * outputV).toPrecision(2)),
    kind: 'current' as const,
  };
  const base = applyPatch(
    blankDesign(`${formatNominal(ratedV, 'V')} ${formatNominal(ratedVA, 'VA')} transformer`, ask, mains),
    {
      transformer: { ratedV, ratedVA },
    },
  );
  const peak = Math.SQRT2 * modelOf(base).openCircuitV * (1 + mains.highPct / 100);
  return applyPatch(base, {
    reservoir: {
      capacitanceF: nearestInDecades(outputA / (2 * mains.frequencyHz * 0.1 * outputV), E6),
      ratedV: CAPACITOR_VOLTS.find((v) => v >= peak / 0.85) ?? CAPACITOR_VOLTS[CAPACITOR_VOLTS.length - 1]!,
    },
    rectifier: {
      diode: (JUNCTION_CLASSES.find((d) => d.averageA >= outputA && d.reverseV >= 2 * peak) ?? JUNCTION_CLASSES[3]!).id,
    },
  });
}
