import type { LoadRow } from './design';

/** A row of a load line with what is known of it, and nothing where nothing was read. */
export const blankRow = (known: Pick<LoadRow, 'at' | 'mainsV' | 'loadA'> & Partial<LoadRow>): LoadRow => ({
  fedFrom: 'mains',
  reservoirV: null,
  rippleV: null,
  outputV: null,
  sinkC: null,
  loadedS: null,
  note: '',
  ...known,
});
