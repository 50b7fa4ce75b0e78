import type { Design } from '@/core/design/design';
import { typicalCapacitorPrice } from '@/core/parts/capacitor';
import { diodeClass } from '@/core/parts/diode';
import { typicalSinkPrice } from '@/core/parts/heatsink';
import { regulatorSize } from '@/core/parts/regulator';
import { typicalTransformerPrice } from '@/core/parts/transformer';

/** Typical hobby price of the parts of a design, EUR: a rule of thumb for comparing choices, not an offer. */
export function typicalCost(design: Design): number {
  const diodes = { 'half-wave': 1, 'centre-tap': 2, bridge: 4 }[design.rectifier.kind];
  const { reservoir, regulator, heat } = design;
  return (
    typicalTransformerPrice(design.transformer.ratedVA, design.rectifier.kind === 'centre-tap' ? 2 : 1) +
    diodes * diodeClass(design.rectifier.diode).priceEur +
    typicalCapacitorPrice(reservoir.capacitanceF, reservoir.ratedV) +
    (regulator.kind === 'fixed' ? regulatorSize(regulator.size).priceEur : 0) +
    (regulator.kind === 'fixed' && heat.sinkKPerW !== null && regulatorSize(regulator.size).takesSink
      ? typicalSinkPrice(heat.sinkKPerW)
      : 0)
  );
}
