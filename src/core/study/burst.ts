import { typicalCapacitorPrice, typicalEsr } from '@/core/parts/capacitor';
import { CAPACITOR_VOLTS, E6, nextInList, stepInDecades } from '@/core/quantity/preferred';

/** A burst of load, or a gap in what feeds, that the reservoir alone has to carry. */
export interface BurstAsk {
  /** What is drawn meanwhile, A; or W where it is a constant power. */
  amps: number | null;
  watts: number | null;
  seconds: number;
  /** Volts it begins at, and how far they may sag. */
  fromV: number;
  sagV: number;
  /** What the cans have lost by tolerance and by age, per cent. */
  tolerancePct: number;
  agedPct: number;
  /** Highest volts across the cans without load, V. */
  idleV: number;
}

/** A can on hand, or a standard value. */
export interface Can {
  name: string;
  capacitanceF: number;
  ratedV: number;
  /** Null for what is typical of its size. */
  esrOhm: number | null;
  priceEur: number | null;
  /** How many there are; null for a shop's. */
  count: number | null;
}

export interface BurstBank {
  can: Can;
  cans: number;
  /** How far it sags with so many, aged, V: by charge, and by resistance at once. */
  sagV: number;
  byResistanceV: number;
  priceEur: number;
}

/** ESR grows as an electrolytic dries out; this factor is the usual end-of-life limit (IEC 60384-4). */
const AGED_ESR = 2;
const MOST_CANS = 200;

/** How far a bank sags, V; infinite where it cannot deliver. */
function sagOf(ask: BurstAsk, can: Can, cans: number): { sagV: number; byResistanceV: number } {
  const farad = cans * can.capacitanceF * (1 - ask.tolerancePct / 100) * (1 - ask.agedPct / 100);
  const ohm = (AGED_ESR * (can.esrOhm ?? typicalEsr(can.capacitanceF, can.ratedV))) / cans;
  if (ask.watts === null) {
    const byResistanceV = ask.amps! * ohm;
    return { sagV: (ask.amps! * ask.seconds) / farad + byResistanceV, byResistanceV };
  }
  // A constant power takes its energy from ½·C·V², and at the lowest volts most amperes.
  const left = ask.fromV ** 2 - (2 * ask.watts * ask.seconds) / farad;
  if (left <= 0) return { sagV: Infinity, byResistanceV: 0 };
  const endV = Math.sqrt(left);
  const byResistanceV = (ask.watts / endV) * ohm;
  return { sagV: ask.fromV - endV + byResistanceV, byResistanceV };
}

/** The least of each can that carries a burst, the cheapest bank first; none of a can that not even 200 of would do. */
export function banksFor(ask: BurstAsk, cans: readonly Can[]): BurstBank[] {
  return cans
    .filter((can) => can.ratedV >= ask.idleV)
    .flatMap((can): BurstBank[] => {
      const most = Math.min(can.count ?? MOST_CANS, MOST_CANS);
      for (let n = 1; n <= most; n++) {
        const { sagV, byResistanceV } = sagOf(ask, can, n);
        if (sagV > ask.sagV) continue;
        const each = can.count === null ? (can.priceEur ?? typicalCapacitorPrice(can.capacitanceF, can.ratedV)) : 0;
        return [{ can, cans: n, sagV, byResistanceV, priceEur: n * each }];
      }
      return [];
    })
    .sort((a, b) => a.priceEur - b.priceEur || a.cans - b.cans);
}

/** Cans as shops have them, of the least rated volts that stand what they idle at. */
export function shopCans(idleV: number): Can[] {
  const ratedV = nextInList(idleV / 0.95, CAPACITOR_VOLTS);
  const list: Can[] = [];
  for (let f = 220e-6; f <= 0.0221; f = stepInDecades(f, E6, 1))
    list.push({ name: '', capacitanceF: f, ratedV, esrOhm: null, priceEur: null, count: null });
  return list;
}
