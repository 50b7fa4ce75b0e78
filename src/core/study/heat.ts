import type { Design } from '@/core/design/design';
import { thermalInterface } from '@/core/parts/heatsink';
import { regulatorSize } from '@/core/parts/regulator';

export interface RegulatorHeat {
  junctionC: number;
  /** Temperature of the sink's metal, or of the bare case. */
  sinkC: number;
  thetaTotalKPerW: number;
  chain: { label: string; kPerW: number }[];
}

/**
 * Steady temperatures of a regulator burning `watts`: Tj = Ta + P*(thetaJC + thetaCS + thetaSA), or Ta + P*thetaJA bare.
 * Valid for natural convection at the resistances given; null when there is no regulator.
 */
export function regulatorHeat(design: Design, watts: number): RegulatorHeat | null {
  if (design.regulator.kind === 'none') return null;
  const size = regulatorSize(design.regulator.size);
  const { ambientC, sinkKPerW } = design.heat;
  if (!size.takesSink || sinkKPerW === null) {
    return {
      junctionC: ambientC + watts * size.thetaJaKPerW,
      sinkC: ambientC + watts * (size.thetaJaKPerW - size.thetaJcKPerW),
      thetaTotalKPerW: size.thetaJaKPerW,
      chain: [{ label: 'junction to free air', kPerW: size.thetaJaKPerW }],
    };
  }
  const contact = thermalInterface(design.heat.interface);
  const thetaTotalKPerW = size.thetaJcKPerW + contact.kPerW + sinkKPerW;
  return {
    junctionC: ambientC + watts * thetaTotalKPerW,
    sinkC: ambientC + watts * sinkKPerW,
    thetaTotalKPerW,
    chain: [
      { label: 'junction to case', kPerW: size.thetaJcKPerW },
      { label: `case to sink (${contact.name.toLowerCase()})`, kPerW: contact.kPerW },
      { label: 'sink to air', kPerW: sinkKPerW },
    ],
  };
}
