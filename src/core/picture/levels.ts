import { emfPeakV } from '@/core/circuit/network';
import type { DrawnPoint } from '@/core/study/point';

/** Levels the terrace steps through, V: where the winding, the diodes and the reservoir stand in one band. */
export interface Levels {
  openPeakV: number;
  /** Winding terminals while the charging pulse is at its highest. */
  terminalPeakV: number;
  /** Crest of the rectifier's output, ahead of any filter. */
  inputMaxV: number;
  reservoirMaxV: number;
  reservoirMinV: number;
  outputMinV: number;
  outputMaxV: number;
}

export function levelsOf(point: DrawnPoint): Levels {
  return {
    openPeakV: emfPeakV(point.network),
    terminalPeakV: point.terminalPeakV,
    inputMaxV: point.rail.inputMaxV,
    reservoirMaxV: point.reservoir.maxV,
    reservoirMinV: point.reservoir.minV,
    outputMinV: point.outputMinV,
    outputMaxV: point.outputMaxV,
  };
}
