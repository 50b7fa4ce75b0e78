import { emfPeakV } from '@/core/circuit/network';
import type { FigureInput } from './figure';
import type { OperatingPoint } from './point';

/** Open-circuit volts of what feeds the diodes, as the input of a working: RMS of a winding, plain of a DC source. */
export function openVoltsOf({ winding, network }: OperatingPoint, name: string): FigureInput {
  const direct = network.sections[0]!.rectifier.kind === 'direct';
  return {
    label: `open-circuit ${name}`,
    value: direct ? emfPeakV(network) : winding.voltageRms,
    unit: 'V',
    origin: 'formula',
  };
}
