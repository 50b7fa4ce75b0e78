import { recently } from '@/core/quantity/recently';
import type { DiodeLaw, JunctionLaw, SpaceChargeLaw } from '@/core/circuit/network';

interface Rated {
  id: string;
  name: string;
  /** Mean forward current per diode, A. */
  averageA: number;
  /** Repetitive peak reverse voltage, V. */
  reverseV: number;
  /** Non-repetitive surge, one half sine of 10 ms (or 8.3 ms), A. */
  surgeA: number;
}

/** A class of semiconductor: its law, its ratings, and how it is sold. */
export interface JunctionClass extends Rated {
  technology: 'silicon' | 'Schottky';
  law: JunctionLaw;
  /** One by itself in the air of its leads, one on a tab, or four in one block. */
  housing: 'axial' | 'tab' | 'block';
  /** Junction to case, each, and case or body to free air, of a block all four together, K/W. */
  jcKPerW: number;
  jaKPerW: number;
  /** Typical price of one diode, EUR. */
  priceEur: number;
}

/** A class of valve: two anodes about one cathode in a bulb. */
export interface ValveClass extends Rated {
  technology: 'valve';
  law: SpaceChargeLaw;
  housing: 'bulb';
  /** Repetitive peak current of one anode, A. */
  peakA: number;
  /** What heats the cathode of one bulb: V and A. */
  heater: { ratedV: number; currentA: number };
  /** Glass to free air, of everything that burns in the bulb, K/W. */
  jaKPerW: number;
  /** Typical price of one bulb, EUR. */
  priceEur: number;
}

/** A class of rectifier. Its law and ratings are those of one diode. */
export type DiodeClass = JunctionClass | ValveClass;

const law = (saturationCurrentA: number, emissionCoefficient: number, seriesResistanceOhm: number): JunctionLaw => ({
  saturationCurrentA,
  emissionCoefficient,
  seriesResistanceOhm,
  temperatureC: 25,
});

/** The most a junction, or the glass of a bulb, bears, °C. */
export const DIODE_MAX_C = { silicon: 150, Schottky: 125, valve: 250 } as const;

/** Typical values for each class; the data sheet of the part in hand wins. Ordered by current within a technology. */
export const JUNCTION_CLASSES: readonly JunctionClass[] = [
  {
    id: 'si-1a',
    name: 'Silicon 1 A, 1000 V (1N4007)',
    technology: 'silicon',
    law: law(4e-9, 1.8, 0.03),
    averageA: 1,
    reverseV: 1000,
    surgeA: 30,
    housing: 'axial',
    jcKPerW: 15,
    jaKPerW: 65,
    priceEur: 0.05,
  },
  {
    id: 'si-3a',
    name: 'Silicon 3 A, 400 V (1N5404)',
    technology: 'silicon',
    law: law(1e-8, 1.8, 0.012),
    averageA: 3,
    reverseV: 400,
    surgeA: 200,
    housing: 'axial',
    jcKPerW: 8,
    jaKPerW: 40,
    priceEur: 0.15,
  },
  {
    id: 'si-8a',
    name: 'Silicon bridge class 8 A, 600 V',
    technology: 'silicon',
    law: law(2e-8, 1.9, 0.006),
    averageA: 4,
    reverseV: 600,
    surgeA: 200,
    housing: 'block',
    jcKPerW: 4,
    jaKPerW: 20,
    priceEur: 0.4,
  },
  {
    id: 'si-25a',
    name: 'Silicon bridge class 25 A, 400 V',
    technology: 'silicon',
    law: law(2e-8, 1.9, 0.004),
    averageA: 12.5,
    reverseV: 400,
    surgeA: 300,
    housing: 'block',
    jcKPerW: 1.5,
    jaKPerW: 10,
    priceEur: 0.8,
  },
  {
    id: 'sk-1a',
    name: 'Schottky 1 A, 40 V (1N5819)',
    technology: 'Schottky',
    law: law(4e-7, 1.05, 0.05),
    averageA: 1,
    reverseV: 40,
    surgeA: 25,
    housing: 'axial',
    jcKPerW: 15,
    jaKPerW: 65,
    priceEur: 0.1,
  },
  {
    id: 'sk-3a',
    name: 'Schottky 3 A, 40 V (1N5822)',
    technology: 'Schottky',
    law: law(2e-6, 1.05, 0.02),
    averageA: 3,
    reverseV: 40,
    surgeA: 80,
    housing: 'axial',
    jcKPerW: 8,
    jaKPerW: 40,
    priceEur: 0.2,
  },
  {
    id: 'sk-5a-100',
    name: 'Schottky 5 A, 100 V',
    technology: 'Schottky',
    law: law(1e-7, 1.05, 0.04),
    averageA: 5,
    reverseV: 100,
    surgeA: 150,
    housing: 'axial',
    jcKPerW: 6,
    jaKPerW: 32,
    priceEur: 0.45,
  },
  {
    id: 'sk-10a-200',
    name: 'Schottky 10 A, 200 V',
    technology: 'Schottky',
    law: law(4e-8, 1.1, 0.02),
    averageA: 10,
    reverseV: 200,
    surgeA: 150,
    housing: 'tab',
    jcKPerW: 2,
    jaKPerW: 55,
    priceEur: 0.9,
  },
];

/**
 * Two classes by their perveance: K = i/v^1.5 from the drop at 225 mA an anode that data sheets of their kind give, 44 V
 * and 17 V. Chosen by hand only: no search and no cure puts a valve where none was.
 */
export const VALVE_CLASSES: readonly ValveClass[] = [
  {
    id: 'valve-soft',
    name: 'Soft valve (5U4 class)',
    technology: 'valve',
    law: { perveance: 7.7e-4 },
    averageA: 0.135,
    reverseV: 1550,
    surgeA: 4.6,
    peakA: 1,
    housing: 'bulb',
    heater: { ratedV: 5, currentA: 3 },
    jaKPerW: 6,
    priceEur: 18,
  },
  {
    id: 'valve-stiff',
    name: 'Stiff valve (GZ34 class)',
    technology: 'valve',
    law: { perveance: 3.2e-3 },
    averageA: 0.125,
    reverseV: 1500,
    surgeA: 3.7,
    peakA: 0.75,
    housing: 'bulb',
    heater: { ratedV: 5, currentA: 1.9 },
    jaKPerW: 9,
    priceEur: 25,
  },
];

/** Every class, as a person may choose. */
export const DIODE_CLASSES: readonly DiodeClass[] = [...JUNCTION_CLASSES, ...VALVE_CLASSES];

/** Energy that decides how the saturation current grows with temperature, eV: silicon's gap, a usual Schottky barrier. */
const ENERGY_EV = { silicon: 1.12, Schottky: 0.69 } as const;
const BOLTZMANN_EV_PER_K = 8.617333e-5;

/**
 * The law of a diode at another junction temperature than its data's:
 * Is(T) = Is(T0)*(T/T0)^(3/n)*exp(E/(n*k)*(1/T0 - 1/T)), the textbook growth that makes a warm diode drop less.
 * @param junctionC °C, -50 to 250; left out: as its data has it
 */
export function lawAt(diode: JunctionClass, junctionC?: number): JunctionLaw;
export function lawAt(diode: DiodeClass, junctionC?: number): DiodeLaw;
export function lawAt(diode: DiodeClass, junctionC?: number): DiodeLaw {
  // A space charge knows the heater's temperature alone.
  if (diode.technology === 'valve') return diode.law;
  const { law: data, technology } = diode;
  if (junctionC === undefined || junctionC === data.temperatureC) return data;
  const t0 = data.temperatureC + 273.15;
  const t = junctionC + 273.15;
  const n = data.emissionCoefficient;
  const growth = (t / t0) ** (3 / n) * Math.exp((ENERGY_EV[technology] / (n * BOLTZMANN_EV_PER_K)) * (1 / t0 - 1 / t));
  return { ...data, temperatureC: junctionC, saturationCurrentA: data.saturationCurrentA * growth };
}

/** The diode of a design: its class, with what is known of the part at hand in its place. */
export const diodeOf = recently(4, ({ diode, rated, sheet }: DiodeInHand): DiodeClass => {
  const made = diodeClass(diode);
  if (!rated && !sheet) return made;
  const law = sheet?.points ? lawThrough(made, sheet.points) : made.law;
  const found = { ...made, ...(rated ?? {}), law } as DiodeClass;
  found.jaKPerW = sheet?.jaKPerW ?? made.jaKPerW;
  if (found.technology !== 'valve') found.jcKPerW = sheet?.jcKPerW ?? found.jcKPerW;
  return found;
});

/** A diode as a design names it. */
export interface DiodeInHand {
  diode: string;
  rated: DiodeRatings | null;
  sheet: DiodeSheet | null;
}

/** Two points of a forward curve at 25 °C: volts at little and at much current. */
export interface ForwardPoints {
  lowA: number;
  lowV: number;
  highA: number;
  highV: number;
}

/** What a data sheet says beside the ratings; nothing where the class speaks. */
export interface DiodeSheet {
  points: ForwardPoints | null;
  jcKPerW: number | null;
  jaKPerW: number | null;
}

/** Least and most n of a junction: a curve outside of it was misread, and takes the nearest with what is left in Rs. */
const EMISSION = { least: 1, most: 2.2 } as const;

/**
 * The law through two points. A junction keeps its class's series resistance where n then comes out as real ones have it;
 * else n is held and the resistance takes the rest. A valve takes the perveance that misses both points alike.
 */
function lawThrough(made: DiodeClass, { lowA, lowV, highA, highV }: ForwardPoints): DiodeLaw {
  if (made.technology === 'valve') return { perveance: Math.sqrt((lowA / lowV ** 1.5) * (highA / highV ** 1.5)) };
  const vt = BOLTZMANN_EV_PER_K * (made.law.temperatureC + 273.15);
  const decades = Math.log(highA / lowA);
  const slope = (ohm: number) => (highV - lowV - ohm * (highA - lowA)) / (vt * decades);
  const wanted = slope(made.law.seriesResistanceOhm);
  const emissionCoefficient = Math.min(EMISSION.most, Math.max(EMISSION.least, wanted));
  const seriesResistanceOhm =
    wanted === emissionCoefficient
      ? made.law.seriesResistanceOhm
      : Math.max(0, (highV - lowV - emissionCoefficient * vt * decades) / (highA - lowA));
  const saturationCurrentA = lowA / Math.expm1((lowV - seriesResistanceOhm * lowA) / (emissionCoefficient * vt));
  return { ...made.law, emissionCoefficient, seriesResistanceOhm, saturationCurrentA };
}

/** What a data sheet says a diode bears. */
export type DiodeRatings = Pick<DiodeClass, 'averageA' | 'reverseV' | 'surgeA'>;

/** @throws RangeError for an id that is not a class */
export function diodeClass(id: string): DiodeClass {
  const found = DIODE_CLASSES.find((d) => d.id === id);
  if (!found) throw new RangeError(`no diode class '${id}'`);
  return found;
}

/**
 * The law of a diode whose saturation current is a factor off: three is what builds spread by, about 50 mV. The perveance
 * of valves spreads by a sixth as often, about a tenth of their drop.
 */
export function spreadLaw(data: DiodeLaw, factor: number): DiodeLaw {
  return 'perveance' in data
    ? { perveance: data.perveance * factor ** VALVE_SPREAD }
    : { ...data, saturationCurrentA: data.saturationCurrentA * factor };
}

/** ln(1.16)/ln(3). */
const VALVE_SPREAD = 0.135;

/** How the spread of `spreadLaw` reads on a meter. */
export function spreadWords({ technology }: DiodeClass): string {
  return technology === 'valve' ? 'valve drop, ±10 %' : 'diode drop, ±50 mV';
}

/** Volts across a diode that carries a current, V. @param amps above 0 */
export function forwardV(law: DiodeLaw, amps: number): number {
  if ('perveance' in law) return (amps / law.perveance) ** (2 / 3);
  const vt = BOLTZMANN_EV_PER_K * (law.temperatureC + 273.15);
  return law.emissionCoefficient * vt * Math.log1p(amps / law.saturationCurrentA) + law.seriesResistanceOhm * amps;
}
