import { CONDITIONS } from '@/core/circuit/condition';
import { networkOf } from '@/core/circuit/network-of';
import { blankDesign } from '@/core/design/defaults';
import { applyPatch, type Design, type Mains } from '@/core/design/design';
import { formatNominal } from '@/core/quantity/format';
import { CAPACITOR_VOLTS, E6, nearestInDecades } from '@/core/quantity/preferred';
import { SolveError } from '@/core/solve/solve-error';
import { solveSteady } from '@/core/solve/steady';
import { readingsFault, type BoxReadings } from './box-readings';

/** Drop of one silicon diode that carries next to nothing, V. */
const IDLE_DROP_V = 0.45;

/** How much less the ripple is than I*t/C says: the reservoir is recharged for part of the time. */
const RECHARGED = 0.8;

/** What builders leave of ripple where nobody read it, as a share of the volts. */
const USUAL_RIPPLE = 0.06;

/** Until the drop in the copper is known to a hundred-thousandth of the open volts. */
const HALVINGS = 17;

/**
 * A first design that behaves as a box was read, taken as a bridge with silicon diodes and one reservoir: open volts from
 * the idle reading, capacitance from the ripple, copper by simulating until the loaded reading comes out.
 * @throws SolveError when no copper gives these readings, RangeError for readings with a fault
 */
export function designFromReadings(r: BoxReadings, mains: Mains): Design {
  const fault = readingsFault(r);
  if (fault) throw new RangeError(fault);
  const openV = (r.idleV + 2 * IDLE_DROP_V) / (Math.SQRT2 * (1 - r.flatTopPct / 100));
  const rippleVpp = r.rippleVpp ?? USUAL_RIPPLE * r.loadedV;
  const capacitanceF = (RECHARGED * r.loadA) / (2 * mains.frequencyHz * rippleVpp);
  const idlePeak = r.idleV * (1 + mains.highPct / 100) * (mains.voltageRms / r.mainsV);
  const base = applyPatch(
    blankDesign(
      `Box of ${formatNominal(Number(r.loadedV.toPrecision(3)), 'V')}, ${formatNominal(r.loadA, 'A')}`,
      {
        outputV: Number(r.loadedV.toPrecision(3)),
        outputA: r.loadA,
        tolerancePct: 30,
        rippleVpp: Number((1.5 * rippleVpp).toPrecision(2)),
        kind: 'current',
      },
      { ...mains, flatTopPct: r.flatTopPct },
    ),
    {
      transformer: {
        ratedV: Number((openV * 0.92).toPrecision(3)),
        ratedVA: Number((1.8 * r.loadA * openV).toPrecision(2)),
        hotC: 40,
      },
      reservoir: {
        capacitanceF: nearestInDecades(capacitanceF, E6),
        ratedV: CAPACITOR_VOLTS.find((v) => v >= idlePeak / 0.85) ?? CAPACITOR_VOLTS[CAPACITOR_VOLTS.length - 1]!,
      },
      rectifier: { diode: r.loadA > 3 ? 'si-25a' : r.loadA > 0.8 ? 'si-3a' : 'si-1a' },
    },
  );
  const testA = 1.8 * r.loadA;
  const withDrop = (dropV: number): Design =>
    applyPatch(base, {
      transformer: { source: { kind: 'test', openV, loadedV: openV - dropV, loadA: testA, mainsV: r.mainsV } },
    });
  const meanV = (dropV: number) =>
    solveSteady(networkOf(withDrop(dropV), CONDITIONS.nominal, { mainsV: r.mainsV })).rails[0]!.meanV;
  let low = 1e-4 * openV;
  let high = 0.9 * openV;
  if (meanV(low) < r.loadedV) {
    throw new SolveError(
      'even without any copper the rail would stand lower: is there a filter or a regulator in the box',
    );
  }
  for (let round = 0; round < HALVINGS; round++) {
    const middle = (low + high) / 2;
    if (meanV(middle) > r.loadedV) low = middle;
    else high = middle;
  }
  return withDrop(Number(((low + high) / 2).toPrecision(4)));
}
