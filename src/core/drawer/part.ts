import type { Unit } from '@/core/quantity/parse';

export const PART_KINDS = [
  'transformer',
  'diode',
  'bridge',
  'capacitor',
  'choke',
  'regulator',
  'transistor',
  'zener',
  'resistor',
  'sink',
  'fuse',
  'box',
] as const;
export type PartKind = (typeof PART_KINDS)[number];

/** One rating of a kind of part. */
export interface RatingField {
  key: string;
  label: string;
  unit: Unit;
  /** A part without it cannot be used for anything. */
  required?: boolean;
  min: number;
  max: number;
  /** Less of it is better: it is asked for by 'at most'. */
  lessIsBetter?: boolean;
}

/** Ratings that harm, by their key: what is looked for is the least of them. */
const HARMS: ReadonlySet<string> = new Set(['regulationPct', 'esrOhm', 'heightMm', 'dropoutV', 'kPerW']);

const rating = (key: string, label: string, unit: Unit, min: number, max: number, required = false): RatingField => ({
  key,
  label,
  unit,
  min,
  max,
  ...(required ? { required } : {}),
  ...(HARMS.has(key) ? { lessIsBetter: true } : {}),
});

/** What is written down about each kind, in SI; the first is what the kind is asked for by. Adding a kind is adding a line. */
export const KINDS: Readonly<Record<PartKind, { name: string; ratings: readonly RatingField[] }>> = {
  transformer: {
    name: 'Transformers',
    ratings: [
      rating('secondaryV', 'Secondary', 'V', 0.5, 2000, true),
      rating('windings', 'Secondaries', '', 1, 4),
      rating('sizeVA', 'Size', 'VA', 0.1, 10000, true),
      rating('regulationPct', 'Regulation', '%', 0.5, 150),
      rating('primaryV', 'Primary', 'V', 12, 480),
    ],
  },
  diode: {
    name: 'Diodes',
    ratings: [
      rating('averageA', 'Mean current', 'A', 0.01, 1000, true),
      rating('reverseV', 'Reverse volts', 'V', 5, 10000, true),
      rating('surgeA', 'Surge', 'A', 0.1, 10000),
      rating('schottky', 'Schottky (1)', '', 0, 1),
    ],
  },
  bridge: {
    name: 'Bridges',
    ratings: [
      rating('outputA', 'Direct current', 'A', 0.01, 1000, true),
      rating('reverseV', 'Reverse volts', 'V', 5, 10000, true),
      rating('surgeA', 'Surge', 'A', 0.1, 10000),
    ],
  },
  capacitor: {
    name: 'Capacitors',
    ratings: [
      rating('capacitanceF', 'Capacitance', 'F', 1e-12, 2, true),
      rating('ratedV', 'Rated volts', 'V', 1, 5000, true),
      rating('esrOhm', 'ESR', 'ohm', 0, 1000),
      rating('rippleA', 'Ripple current', 'A', 1e-3, 500),
      rating('gradeC', 'Grade', '°C', 60, 150),
      rating('heightMm', 'Height', 'mm', 1, 500),
    ],
  },
  choke: {
    name: 'Chokes',
    ratings: [
      rating('inductanceH', 'Inductance', 'H', 1e-7, 500, true),
      rating('ratedA', 'Rated current', 'A', 1e-4, 200, true),
      { ...rating('resistanceOhm', 'Copper', 'ohm', 0, 1e5), lessIsBetter: true },
    ],
  },
  regulator: {
    name: 'Regulators',
    ratings: [
      rating('outputV', 'Output', 'V', -100, 100, true),
      rating('ratedA', 'Rated current', 'A', 0.01, 50, true),
      rating('inputMaxV', 'Highest input', 'V', 1, 200),
      rating('dropoutV', 'Dropout', 'V', 0, 10),
      rating('adjustable', 'Adjustable (1)', '', 0, 1),
    ],
  },
  transistor: {
    name: 'Transistors',
    ratings: [
      rating('collectorA', 'Collector current', 'A', 0.01, 500, true),
      rating('ceoV', 'Collector volts', 'V', 1, 3000, true),
      rating('lossW', 'Loss', 'W', 0.05, 1000),
      rating('gain', 'Gain', '', 1, 50000),
    ],
  },
  zener: {
    name: 'Zeners',
    ratings: [rating('zenerV', 'Zener volts', 'V', 1, 400, true), rating('lossW', 'Loss', 'W', 0.05, 100, true)],
  },
  resistor: {
    name: 'Resistors',
    ratings: [
      rating('resistanceOhm', 'Resistance', 'ohm', 1e-4, 1e9, true),
      rating('lossW', 'Loss', 'W', 0.01, 1000, true),
      rating('tolerancePct', 'Tolerance', '%', 0.01, 50),
    ],
  },
  sink: {
    name: 'Heatsinks',
    ratings: [rating('kPerW', 'To air', 'K/W', 0.02, 200, true), rating('heightMm', 'Height', 'mm', 1, 1000)],
  },
  fuse: {
    name: 'Fuses',
    ratings: [
      rating('ratedA', 'Rated current', 'A', 0.01, 100, true),
      rating('ratedV', 'Rated volts', 'V', 10, 1000),
      rating('timeLag', 'Time-lag (1)', '', 0, 1),
    ],
  },
  box: {
    name: 'Boxes',
    ratings: [
      rating('widthMm', 'Width', 'mm', 10, 2000, true),
      rating('depthMm', 'Depth', 'mm', 10, 2000, true),
      rating('heightMm', 'Height', 'mm', 10, 2000, true),
      rating('metal', 'Metal (1)', '', 0, 1),
    ],
  },
};

export const KNOWN_BY = ['data sheet', 'typical', 'measured'] as const;
export const CONDITION_WORDS = ['new', 'salvaged'] as const;

/** A part as it is typed in or read from a file. */
export interface PartDraft {
  kind: PartKind;
  name: string;
  /** Ratings by their key, SI; null or absent is not known. */
  ratings: Record<string, number | null>;
  /** How the ratings are known. */
  known: (typeof KNOWN_BY)[number];
  condition: (typeof CONDITION_WORDS)[number];
  count: number;
  priceEur: number | null;
  place: string;
  note: string;
}

/** A part in the drawer. */
export interface Part extends PartDraft {
  id: string;
}

export const PART_NAME_MAX = 120;
