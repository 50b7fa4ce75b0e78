import type { StationId } from '@/core/picture/station';

/** Every place between mains and load, in the order of the street. */
export const STATIONS: readonly StationId[] = [
  'mains',
  'winding',
  'rectifier',
  'before',
  'reservoir',
  'after',
  'regulator',
  'load',
];
