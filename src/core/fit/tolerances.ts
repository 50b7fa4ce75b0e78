import type { Network } from '@/core/circuit/network';
import type { Unknown } from './belief';
import { numberAt } from './case-model';

/** Spreads of ln(value) of parts as they are bought, by what a path ends with; rules of thumb of the trade. */
const SPREADS: Readonly<Record<string, number>> = {
  voltageRms: 0.03,
  resistanceOhm: 0.2,
  sharedResistanceOhm: 0.2,
  inductanceH: 0.3,
  capacitanceF: 0.12,
  esrOhm: 0.7,
};

/** What a diode's drop may be off, V. */
const DROP_V = 0.05;
const BOLTZMANN_PER_CHARGE = 1.380649e-23 / 1.602176634e-19;

/** The tolerances every circuit has, fault or none: only of what it has any of. */
export function tolerances(circuit: Network): Unknown[] {
  const { rectifier, rails } = circuit.sections[0]!;
  const paths = [
    'source.voltageRms',
    'source.resistanceOhm',
    'source.sharedResistanceOhm',
    'source.inductanceH',
    ...rails.flatMap((rail, r) =>
      rail.filter.flatMap((e, k) => {
        const at = `rails.${r}.filter.${k}`;
        if (e.kind === 'capacitor') return [`${at}.capacitanceF`, `${at}.esrOhm`];
        return e.kind === 'inductor' ? [`${at}.inductanceH`, `${at}.resistanceOhm`] : [];
      }),
    ),
  ];
  const unknowns = paths.flatMap((id): Unknown[] => {
    const centre = numberAt(circuit, id)!;
    return centre > 0 ? [{ id, centre, spread: SPREADS[id.slice(id.lastIndexOf('.') + 1)]! }] : [];
  });
  const { diode } = rectifier;
  if ('saturationCurrentA' in diode) {
    const slopeV = diode.emissionCoefficient * BOLTZMANN_PER_CHARGE * (diode.temperatureC + 273.15);
    unknowns.push({
      id: 'rectifier.diode.saturationCurrentA',
      centre: diode.saturationCurrentA,
      spread: DROP_V / slopeV,
    });
  }
  return unknowns;
}
