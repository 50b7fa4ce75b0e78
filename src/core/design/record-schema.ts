import * as yup from 'yup';
import { PART_ROLES } from './kinds';
import { READINGS_MAX } from './limits';
import { field, group, list, oneOf } from './schema-pieces';

/** Parts taken from the drawer, with what they were when they were taken. */
export const pickedSchema = list(
  group({
    role: oneOf(PART_ROLES),
    partId: yup.string().strict(true).required('${path} is missing').max(60),
    name: yup.string().strict(true).required('${path} is missing').max(120),
    priceEur: yup.number().strict(true).nullable().defined('${path} is missing').min(0, '${path} cannot be negative'),
    /** What taking it set in the design; while that still stands, the part is in it. */
    values: yup.object().required('${path} is missing'),
  }),
  20,
  '20 parts',
);

/** Parts that are as they are: no fix, cure or search replaces them. */
export const fixedSchema = yup.array().strict(true).required('${path} is missing').max(20).of(oneOf(PART_ROLES));

/** One value read at one test point, with the mains volts of that moment. SI. */
const reading = group({
  point: yup.string().strict(true).required('${path} is missing').max(60, '${path} is too long'),
  value: yup
    .number()
    .strict(true)
    .required('${path} is missing')
    .min(-1e6, '${path} is no reading of a meter')
    .max(1e6, '${path} is no reading of a meter'),
  mainsV: field('bench.sourceV'),
  at: yup
    .string()
    .strict(true)
    .required('${path} is missing')
    .matches(/^\d{4}-\d\d-\d\dT[\d:.]+Z$/, '${path} is not a time like 2026-01-31T21:00:00Z'),
});

export const benchSchema = group({
  meterPct: field('bench.meterPct'),
  meterDigitsV: field('bench.meterDigitsV'),
  readings: list(reading, READINGS_MAX, `${READINGS_MAX} readings`),
});
