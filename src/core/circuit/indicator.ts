import type { Design } from '@/core/design/design';
import { outputModel } from '@/core/design/outputs';
import { arrangementFacts, dcSourceOf } from '@/core/design/source';
import { E12, nearestInDecades } from '@/core/quantity/preferred';
import { mainsVolts, modelOf } from './feed';

/** Volts the indicator and its resistor stand across, nominal mains, no load: the output's, or the rail's peak. */
export function indicatorVolts(design: Design): number {
  const { indicator, demand } = design;
  if (indicator?.at === 'output') return outputModel({ ...design, demand })?.outputV ?? demand.outputV;
  if (dcSourceOf(design)) return mainsVolts(design, 'nominal');
  return (
    Math.SQRT2 * modelOf(design).openCircuitV * (1 - design.mains.flatTopPct / 100) * arrangementFacts(design).railPeaks
  );
}

/** The resistor of the indicator, next in the E12 series, ohm; null without one. */
export function indicatorOhm(design: Design): number | null {
  const { indicator } = design;
  if (!indicator) return null;
  return nearestInDecades(Math.max(10, (indicatorVolts(design) - indicator.forwardV) / indicator.currentA), E12);
}
