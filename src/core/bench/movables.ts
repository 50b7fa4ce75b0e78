import { modelOf } from '@/core/circuit/feed';
import type { Design } from '@/core/design/design';
import { dcSourceOf } from '@/core/design/source';
import { diodeOf } from '@/core/parts/diode';
import { copperRatio } from '@/core/parts/transformer';
import { READ_AT_C } from '@/core/parts/transformer-source';
import { sourceSpread } from '@/core/parts/transformer-trust';
import type { Unit } from '@/core/quantity/parse';
import type { FactorId } from './factors';

/** What may move in a fit of a design, with what is believed of it. */
export interface Movable {
  id: FactorId;
  label: string;
  unit: Unit;
  /** The design's own value. */
  value: number;
  /** Standard deviation of ln(value) before anything is read. */
  spread: number;
}

const BOLTZMANN_PER_CHARGE = 1.380649e-23 / 1.602176634e-19;
/** What a diode's drop may be off, V. */
export const DROP_V = 0.05;
const THERMAL = 0.3;
/** Printed tolerances are ends: half of one is about a standard deviation. */
export const OF_PRINTED = 0.5;

/** What of a design readings can move, whether or not some were taken. */
export function movables(design: Design): Movable[] {
  const { transformer, reservoir, heat } = design;
  const model = modelOf(design);
  const dc = dcSourceOf(design);
  const { voltsPct, ohmPct } = sourceSpread(transformer.source);
  return [
    ...(dc
      ? []
      : ([
          {
            id: 'open',
            label: 'Winding, open',
            unit: 'V',
            value: model.openCircuitV,
            // Of a plate 3 % is a standard deviation; of a fit its own is half of what is printed.
            spread: transformer.source.kind === 'fitted' ? (OF_PRINTED * voltsPct) / 100 : 0.03,
          },
          {
            id: 'copper',
            label: 'Copper of one winding, primary’s share included, 25 °C',
            unit: 'ohm',
            value: (model.ownColdOhm + model.sharedColdOhm) * copperRatio(READ_AT_C),
            spread: transformer.source.kind === 'fitted' ? (OF_PRINTED * ohmPct) / 100 : ohmPct / 100,
          },
        ] as const)),
    ...(reservoir.capacitanceF > 0
      ? [
          {
            id: 'capacitance',
            label: 'Reservoir',
            unit: 'F',
            value: reservoir.capacitanceF,
            spread: Math.max(0.01, (OF_PRINTED * reservoir.tolerancePct) / 100),
          } as const,
        ]
      : []),
    ...(heat.sinkKPerW === null
      ? []
      : [{ id: 'sink', label: 'Heatsink', unit: 'K/W', value: heat.sinkKPerW, spread: THERMAL } as const]),
    ...('saturationCurrentA' in diodeOf(design.rectifier).law
      ? [
          {
            id: 'diode',
            label: 'Rectifier, drop of one diode against its class',
            unit: 'V',
            value: 0,
            spread: DROP_V / diodeSlopeV(design),
          } as const,
        ]
      : []),
  ];
}

/** What a factor of e in saturation current does to a diode's drop, V. */
export function diodeSlopeV(design: Design): number {
  const { law } = diodeOf(design.rectifier);
  if (!('saturationCurrentA' in law)) return Infinity;
  return law.emissionCoefficient * BOLTZMANN_PER_CHARGE * (law.temperatureC + 273.15);
}
