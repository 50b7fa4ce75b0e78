import { emfPeakV, type Network } from '@/core/circuit/network';
import type { Design } from '@/core/design/design';
import type { Levels } from '@/core/picture/levels';
import type { Solution } from '@/core/solve/solution';
import { reservoirV, terminalPeak } from '@/core/study/drawn-point';
import { reservoirOf } from '@/core/study/operating-point';

/** The terrace of one supply in one state: its levels, and one cycle at its reservoir and its output. */
export interface TerraceLine {
  levels: Levels;
  /** Samples over one cycle, V. */
  reservoirV: number[];
  outputV: number[];
}

/**
 * The terrace of a solved circuit, at its first rail.
 * @param network what was solved, with waveforms
 * @param out what stands behind the rail makes of its volts at an instant
 */
export function terraceLine(
  design: Design,
  network: Network,
  solution: Solution,
  out: (railV: number) => number,
): TerraceLine {
  const { minV, maxV } = reservoirOf(design, solution, 0);
  const outputV = solution.waveforms!.railV[0]!.map(out);
  return {
    levels: {
      openPeakV: emfPeakV(network),
      terminalPeakV: terminalPeak(design, network, solution, solution.waveforms!),
      inputMaxV: solution.rails[0]!.inputMaxV,
      reservoirMaxV: maxV,
      reservoirMinV: minV,
      outputMinV: Math.min(...outputV),
      outputMaxV: Math.max(...outputV),
    },
    reservoirV: reservoirV(design, solution.waveforms!, 0),
    outputV,
  };
}
