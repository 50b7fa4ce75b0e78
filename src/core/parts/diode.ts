import type { DiodeLaw } from '@/core/circuit/network';

/** A class of rectifier diode: its law, its ratings, and how it is sold. */
export interface DiodeClass {
  id: string;
  name: string;
  technology: 'silicon' | 'Schottky';
  law: DiodeLaw;
  /** Mean forward current per diode, A. */
  averageA: number;
  /** Repetitive peak reverse voltage, V. */
  reverseV: number;
  /** Non-repetitive surge, one half sine of 10 ms (or 8.3 ms), A. */
  surgeA: number;
  /** One by itself in the air of its leads, one on a tab, or four in one block. */
  housing: 'axial' | 'tab' | 'block';
  /** Junction to case, each, and case or body to free air, of a block all four together, K/W. */
  jcKPerW: number;
  jaKPerW: number;
  /** Typical price of one diode, EUR. */
  priceEur: number;
}

const law = (saturationCurrentA: number, emissionCoefficient: number, seriesResistanceOhm: number): DiodeLaw => ({
  saturationCurrentA,
  emissionCoefficient,
  seriesResistanceOhm,
  temperatureC: 25,
});

/** The most a junction bears, °C. */
export const DIODE_MAX_C = { silicon: 150, Schottky: 125, valve: 300 } as const;

/** Typical values for each class; the data sheet of the part in hand wins. Ordered by current within a technology. */
export const DIODE_CLASSES: readonly DiodeClass[] = [
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

/** Energy that decides how the saturation current grows with temperature, eV: silicon's gap, a usual Schottky barrier. */
const ENERGY_EV = { silicon: 1.12, Schottky: 0.69 } as const;
const BOLTZMANN_EV_PER_K = 8.617333e-5;

/**
 * The law of a diode at another junction temperature than its data's:
 * Is(T) = Is(T0)*(T/T0)^(3/n)*exp(E/(n*k)*(1/T0 - 1/T)), the textbook growth that makes a warm diode drop less.
 * @param junctionC °C, -50 to 250; left out: as its data has it
 */
export function lawAt({ law: data, technology }: DiodeClass, junctionC?: number): DiodeLaw {
  if (junctionC === undefined || junctionC === data.temperatureC) return data;
  const t0 = data.temperatureC + 273.15;
  const t = junctionC + 273.15;
  const n = data.emissionCoefficient;
  const growth = (t / t0) ** (3 / n) * Math.exp((ENERGY_EV[technology] / (n * BOLTZMANN_EV_PER_K)) * (1 / t0 - 1 / t));
  return { ...data, temperatureC: junctionC, saturationCurrentA: data.saturationCurrentA * growth };
}

/** The diode of a design: its class, with the ratings of the part at hand where they are known. */
export function diodeOf({ diode, rated }: { diode: string; rated: DiodeRatings | null }): DiodeClass {
  return { ...diodeClass(diode), ...(rated ?? {}) };
}

/** What a data sheet says a diode bears. */
export type DiodeRatings = Pick<DiodeClass, 'averageA' | 'reverseV' | 'surgeA'>;

/** @throws RangeError for an id that is not a class */
export function diodeClass(id: string): DiodeClass {
  const found = DIODE_CLASSES.find((d) => d.id === id);
  if (!found) throw new RangeError(`no diode class '${id}'`);
  return found;
}
