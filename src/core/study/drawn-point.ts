import { reservoirPlace } from '@/core/circuit/filter-of';
import { emfPeakV, type Network } from '@/core/circuit/network';
import type { Design } from '@/core/design/design';
import { arrangementFacts, arrangementOf } from '@/core/design/source';
import { greatest, mapped } from '@/core/quantity/lists';
import type { Solution, Waveforms } from '@/core/solve/solution';
import { cycleSamples } from '@/core/solve/steady';
import { WAVE_SAMPLES, type DrawnPoint, type OperatingPoint } from './point';

/**
 * A solved point with all that is drawn of it. Its circuit is run once more, from where it was found to repeat itself: of the
 * hundreds of points a search solves nothing is drawn.
 */
export function drawnPoint(design: Design, point: OperatingPoint): DrawnPoint {
  const { network, solution } = point;
  const waves = cycleSamples(network, solution.state, WAVE_SAMPLES);
  const rails = mapped(point.rails, (p, r) => ({
    ...p,
    wave: {
      ...p.wave,
      inputV: waves.inputV[r]!,
      reservoirV: reservoirV(design, waves, r),
      rectifierA: intoRail(design, waves.diodeA, r),
    },
  }));
  return { ...point, rails, wave: rails[0]!.wave, terminalPeakV: terminalPeak(design, network, solution, waves) };
}

/** Samples of the reservoir's own node, as `reservoirOf` takes it, V. @param waves of a solution with all of them */
export function reservoirV(design: Design, waves: Waveforms, rail: number): number[] {
  const place = reservoirPlace(design);
  if (arrangementFacts(design).stacked > 1) return waves.inputV[rail]!;
  return (place >= 0 ? waves.elementV[rail]![place] : undefined) ?? waves.railV[rail]!;
}

/**
 * Highest volts at the winding's terminals, V: there the pulse has cost the winding's own copper and what all windings
 * together take in the primary's.
 */
export function terminalPeak(design: Design, network: Network, solution: Solution, waves: Waveforms): number {
  const { winding } = network.sections[0]!;
  const { ratios } = arrangementOf(design);
  const windingA = waves.windingA[0]!;
  let mostA = 0;
  for (const amps of windingA) mostA = Math.max(mostA, Math.abs(amps));
  let peakV = 0;
  for (let n = 0; n < windingA.length; n++) {
    const own = windingA[n]!;
    if (Math.abs(own) <= 0.02 * mostA) continue;
    let primary = 0;
    for (let w = 0; w < ratios.length; w++) primary += ratios[w]! * waves.windingA[w]![n]!;
    const v = ratios[0]! * (waves.sourceV[n]! - network.mains.sharedResistanceOhm * primary);
    peakV = Math.max(peakV, Math.abs(v - winding.resistanceOhm * own));
  }
  const chargedV = greatest(solution.rails, (r) => r.inputMaxV) / arrangementFacts(design).railPeaks;
  // Leakage inductance only delays the pulse: the terminals never stand below what they have charged.
  return Math.min(Math.max(peakV, chargedV), emfPeakV(network));
}

/** Current out of the rectifier into one rail, A: of a multiplier, the pulses into all its capacitors. */
function intoRail(design: Design, diodeA: readonly number[][], rail: number): number[] {
  const { loops, cells } = arrangementOf(design);
  const sum = new Array<number>(diodeA[0]!.length).fill(0);
  for (const loop of loops) {
    const first = cells[loop.cells[0]!.cell]!;
    if (first.at === 'rail' && first.rail !== rail) continue;
    const current = diodeA[loop.diodes[0]!]!;
    for (let n = 0; n < sum.length; n++) sum[n]! += current[n]!;
  }
  return sum;
}
