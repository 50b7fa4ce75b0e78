import * as yup from 'yup';
import { boardSchema } from './board-schema';
import { boxSchema } from './box-schema';
import { FED_FROM, PART_ROLES, SET_KINDS } from './kinds';
import {
  CAME_MAX,
  KIT_MAX,
  PHOTOS_MAX,
  PLACED_MAX,
  TICK_MAX,
  LOAD_ROWS_MAX,
  LOG_MAX,
  LOG_TEXT_MAX,
  READINGS_MAX,
  CALIBRATION_MAX,
  SOAK_MAX,
} from './how-many';
import { field, flag, group, list, oneOf, oneOfNumbers, text } from './schema-pieces';

/** Parts taken from the drawer, with what they were when they were taken. */
export const pickedSchema = list(
  group({
    role: oneOf(PART_ROLES),
    partId: yup.string().strict(true).required('${path} is missing').max(60),
    name: yup.string().strict(true).required('${path} is missing').max(120),
    priceEur: yup.number().strict(true).nullable().defined('${path} is missing').min(0, '${path} cannot be negative'),
    /** Its height, mm; null where nobody wrote it down. */
    heightMm: yup
      .number()
      .strict(true)
      .nullable()
      .defined('${path} is missing')
      .min(1, '${path} is no height')
      .max(1000, '${path} is no height'),
    /** What taking it set in the design; while that still stands, the part is in it. */
    values: yup.object().required('${path} is missing'),
  }),
  20,
  '20 parts',
);

/** Parts that are as they are: no fix, cure or search replaces them. */
export const fixedSchema = yup.array().strict(true).required('${path} is missing').max(20).of(oneOf(PART_ROLES));

/** One value read at one test point, with the mains volts of that moment. SI. */
const time = () =>
  yup
    .string()
    .strict(true)
    .required('${path} is missing')
    .matches(/^\d{4}-\d\d-\d\dT[\d:.]+Z$/, '${path} is not a time like 2026-01-31T21:00:00Z');

const reading = group({
  point: yup.string().strict(true).required('${path} is missing').max(60, '${path} is too long'),
  value: yup
    .number()
    .strict(true)
    .required('${path} is missing')
    .min(-1e6, '${path} is no reading of a meter')
    .max(1e6, '${path} is no reading of a meter'),
  mainsV: field('bench.sourceV'),
  fedFrom: oneOf(FED_FROM),
  at: time(),
});

/** One row of a measured load line: what hung on the main output, and what was read then. SI. */
const loadRow = group({
  at: time(),
  mainsV: field('bench.sourceV'),
  fedFrom: oneOf(FED_FROM),
  loadA: field('bench.loadA'),
  /** Across the reservoir, mean; null where not read, like the others. */
  reservoirV: field('bench.volts'),
  rippleV: field('bench.volts'),
  outputV: field('bench.volts'),
  sinkC: field('bench.sinkC'),
  /** How long it had been loaded so, s. */
  loadedS: field('bench.loadedS'),
  note: text(200),
});

/** One temperature of the metal, so long after the full load was put on. */
const soakRow = group({
  afterS: field('bench.loadedS').required('${path} is missing'),
  tempC: field('bench.sinkC').required('${path} is missing'),
});

/** One pair: what was set, or shown by the first meter, and what the person's own then read. V or A. */
const pair = group({
  what: oneOf(SET_KINDS),
  set: field('bench.set'),
  read: field('bench.set'),
});

/** Whether a text is a day there was or will be, as 2026-01-31. */
function isDay(text: string): boolean {
  const time = Date.parse(`${text}T00:00:00Z`);
  return Number.isFinite(time) && new Date(time).toISOString().slice(0, 10) === text;
}

/** What was done to the box on a day, and why. */
export const logSchema = list(
  group({
    day: yup
      .string()
      .strict(true)
      .required('${path} is missing')
      .test('day', '${path} is not a day like 2026-01-31', isDay),
    what: yup.string().strict(true).required('${path} is missing').max(LOG_TEXT_MAX, '${path} is too long'),
    why: text(LOG_TEXT_MAX),
    /** Pictures of that day, by the name they are kept under. */
    photos: list(
      yup
        .string()
        .strict(true)
        .required('${path} is missing')
        .matches(/^[0-9a-f]{32}$/, '${path} is not the name of a picture'),
      PHOTOS_MAX,
      `${PHOTOS_MAX} pictures`,
    ),
  }),
  LOG_MAX,
  `${LOG_MAX} entries`,
);

/** The person's own instruments, and what was read with them. */
export const benchSchema = group({
  meterPct: field('bench.meterPct'),
  meterDigitsV: field('bench.meterDigitsV'),
  /** Whether the meter's AC range reads true RMS, or 1.11 times the mean of the rectified wave. */
  acTrueRms: flag,
  inputOhm: field('bench.inputOhm'),
  /** What its amps range takes at the current read, V. */
  burdenV: field('bench.burdenV'),
  /** Peak to peak on the scope with the probe's tip on its own ground, V. */
  scopeFloorV: field('bench.scopeFloorV'),
  probe: oneOfNumbers([1, 10], '1 or 10'),
  /** What the thermometer may be off, K. */
  thermometerK: field('bench.thermometerK'),
  loadLine: list(loadRow, LOAD_ROWS_MAX, `${LOAD_ROWS_MAX} rows`),
  /** The metal's temperature from cold, at full load. */
  soak: list(soakRow, SOAK_MAX, `${SOAK_MAX} temperatures`),
  /** Scales and limits against the meter, and meters against each other. */
  calibration: list(pair, CALIBRATION_MAX, `${CALIBRATION_MAX} pairs`),
  readings: list(reading, READINGS_MAX, `${READINGS_MAX} readings`),
});

/** A name the program gave: of a part, a wire, a line of the bill. */
const given = () => yup.string().strict(true).required('${path} is missing').max(TICK_MAX, '${path} is too long');

/** How far the building is. */
export const buildSchema = group({
  /** Parts that are in their place, by what they are known by and their value. */
  placed: list(given(), PLACED_MAX, `${PLACED_MAX} parts`),
  /** Wires that are made, by their two ends. */
  wired: list(given(), PLACED_MAX, `${PLACED_MAX} wires`),
  /** What came, counted, by the line of the bill. */
  kit: list(
    group({
      line: given(),
      came: yup
        .number()
        .strict(true)
        .required('${path} is missing')
        .integer('${path} is a count')
        .min(0, '${path} cannot be below nothing')
        .max(CAME_MAX, `\${path} is more than ${CAME_MAX}`),
    }),
    KIT_MAX,
    `${KIT_MAX} lines`,
  ),
  box: boxSchema,
  board: boardSchema,
});
