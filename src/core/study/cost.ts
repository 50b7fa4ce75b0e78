import { arrangementOf, dcSourceOf, hasDiodes } from '@/core/design/source';
import { canCount } from '@/core/design/bank';
import { diodeCount } from '@/core/parts/arrangement';
import type { Design, FilterStep, FurtherOutput } from '@/core/design/design';
import { windingCount } from '@/core/design/words';
import { typicalCapacitorPrice } from '@/core/parts/capacitor';
import { typicalSourcePrice } from '@/core/parts/dc-source';
import { diodeClass } from '@/core/parts/diode';
import { typicalSinkPrice } from '@/core/parts/heatsink';
import { regulatorModel } from '@/core/parts/regulators';
import { aheadModel } from '@/core/parts/regulators/ahead';
import { typicalTransformerPrice } from '@/core/parts/transformer';

/** Typical hobby price of the parts of a design, EUR: a rule of thumb for comparing choices, not an offer. */
export function typicalCost(design: Design): number {
  const arrangement = arrangementOf(design);
  const { reservoir, regulator, heat, filter } = design;
  const model = regulatorModel(regulator);
  const cans = arrangement.stacked ? 2 : 1;
  const steps = [...filter.before, ...filter.after].reduce((sum, s) => sum + typicalStepPrice(s), 0);
  return (
    feedCost(design) +
    (hasDiodes(design) ? diodeCount(arrangement) * diodeClass(design.rectifier.diode).priceEur : 0) +
    arrangement.rails *
      (cans * canCount(reservoir) * typicalCapacitorPrice(reservoir.capacitanceF, reservoir.ratedV) +
        steps +
        (model ? model.priceEur + (aheadModel(design.preRegulator)?.priceEur ?? 0) : 0)) +
    (heat.sinkKPerW !== null && model?.pass.takesSink ? typicalSinkPrice(heat.sinkKPerW) : 0) +
    (heat.fan === 'none' ? 0 : 4) +
    design.outputs.reduce((sum, o) => sum + outputCost(o), 0)
  );
}

/** Transformer and heater winding, or the DC source in their place, EUR typical. */
export function feedCost(design: Design): number {
  const dc = dcSourceOf(design);
  if (dc) return typicalSourcePrice(dc);
  const { transformer, heater } = design;
  return (
    typicalTransformerPrice(transformer.ratedVA, windingCount(design)) +
    (heater ? 2 + 0.15 * heater.ratedV * heater.currentA : 0)
  );
}

function outputCost({ regulator, sinkKPerW }: FurtherOutput): number {
  const model = regulatorModel(regulator);
  return model.priceEur + (sinkKPerW !== null && model.pass.takesSink ? typicalSinkPrice(sinkKPerW) : 0);
}

/** A choke costs by the energy its core has to store, a resistor next to nothing. */
export function typicalStepPrice(step: FilterStep): number {
  if (step.kind === 'capacitor') return typicalCapacitorPrice(step.capacitanceF, step.ratedV);
  if (step.kind === 'resistor') return 0.3;
  return 3 + 22 * (0.5 * step.inductanceH * step.ratedA ** 2) ** 0.6;
}
