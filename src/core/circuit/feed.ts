import { openVolts } from '@/core/parts/dc-source';
import type { TransformerModel, TransformerNameplate } from '@/core/parts/transformer';
import { modelFromSource } from '@/core/parts/transformer-source';
import type { Design } from '@/core/design/design';
import { ARRANGEMENTS } from '@/core/parts/arrangements';
import { dcSourceOf } from '@/core/design/source';
import type { Condition } from './condition';

/** What feeds a design at one end of its range or between: mains, V RMS, or the open-circuit volts of its DC source. */
export function mainsVolts(design: Design, level: Condition['mains']): number {
  const dc = dcSourceOf(design);
  if (dc) return openVolts(dc, level);
  const { voltageRms, lowPct, highPct } = design.mains;
  return voltageRms * (level === 'low' ? 1 - lowPct / 100 : level === 'high' ? 1 + highPct / 100 : 1);
}

/** What a nameplate says of the transformer of a design. */
export function plateOf({ transformer, rectifier }: Design): TransformerNameplate {
  const used = ARRANGEMENTS[rectifier.kind].ratios.length === 2 ? 2 : 1;
  return {
    ratedV: transformer.ratedV,
    ratedVA: transformer.ratedVA,
    regulation: transformer.regulationPct === null ? null : transformer.regulationPct / 100,
    halves: Math.max(used, transformer.windingsOnPlate ?? used) === 2 ? 2 : 1,
    hotC: transformer.hotC,
  };
}

/** The transformer of a design, whichever way it is known. */
export function modelOf(design: Design): TransformerModel {
  const { voltageRms, frequencyHz } = design.mains;
  return modelFromSource(plateOf(design), design.transformer.source, voltageRms, frequencyHz);
}
