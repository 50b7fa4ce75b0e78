import { JUNCTION_CLASSES, type JunctionClass } from '@/core/parts/diode';
import type { RectifierKind } from '@/core/parts/arrangements';
import type { DiodeLaw, FilterElement, Load, Network } from '@/core/circuit/network';

/** Small circuits for the solver's tests: what is not said is plain silicon, half an ohm of copper and 50 Hz. */
export const SILICON = {
  saturationCurrentA: 4e-9,
  emissionCoefficient: 1.8,
  seriesResistanceOhm: 0.03,
  temperatureC: 25,
};
/** A diode whose drop is a hundredth of a volt: ideal for a winding of a thousand. */
export const IDEAL = { saturationCurrentA: 1e-6, emissionCoefficient: 0.02, seriesResistanceOhm: 0, temperatureC: 25 };

export interface Parts {
  volts?: number;
  ohm?: number;
  henry?: number;
  sharedOhm?: number;
  diode?: DiodeLaw;
  faults?: { diode: number; state: 'open' | 'short' }[];
  rails: { filter: FilterElement[]; load: Load[] }[];
}

export function circuit(kind: RectifierKind, parts: Parts): Network {
  const { volts = 15, ohm = 0.5, henry = 0, sharedOhm = 0, diode = SILICON, faults, rails } = parts;
  return {
    frequencyHz: 50,
    mains: { sharedResistanceOhm: sharedOhm, flatTop: 0 },
    sections: [
      {
        winding: { voltageRms: volts, resistanceOhm: ohm, inductanceH: henry },
        rectifier: { kind, diode, ...(faults ? { faults } : {}) },
        rails,
      },
    ],
  };
}

export const farad = (capacitanceF: number, esrOhm = 0.03): FilterElement => ({
  kind: 'capacitor',
  capacitanceF,
  esrOhm,
});
export const henry = (inductanceH: number, resistanceOhm = 0): FilterElement => ({
  kind: 'inductor',
  inductanceH,
  resistanceOhm,
});
export const amps = (currentA: number): Load[] => [{ kind: 'current', currentA }];
export const ohms = (resistanceOhm: number): Load[] => [{ kind: 'resistance', resistanceOhm }];

/** A class of semiconductor by its id. */
export function junctionOf(id: string): JunctionClass {
  const found = JUNCTION_CLASSES.find((d) => d.id === id);
  if (!found) throw new Error(`no class ${id}`);
  return found;
}
