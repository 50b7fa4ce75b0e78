import type { StageOfLife } from './kinds';

/** How far a supply is, as it is said of it. */
export const STAGE_WORDS: Readonly<Record<StageOfLife, string>> = {
  sketch: 'Sketch',
  chosen: 'Parts chosen',
  ordered: 'Parts ordered',
  built: 'Built',
  measured: 'Measured',
  retired: 'Retired',
};
