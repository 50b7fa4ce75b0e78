import type { Unit } from '@/core/quantity/parse';
import { formatQuantity } from '@/core/quantity/format';

/** What a field may hold. `min`/`max` are the ends of what any real supply of this kind could have. */
export interface FieldLimit {
  label: string;
  unit: Unit;
  min: number;
  max: number;
  /** May be left empty; what is then taken. */
  optional?: string;
}

/** The upper of two points of a forward curve lies at three times the current of the lower, or higher: 0.3 A is enough for 0.1 A. */
export const farEnoughApart = (lowA: number, highA: number): boolean => highA >= 3 * (1 - 1e-9) * lowA;

export const FIELD_LIMITS = {
  'demand.outputV': { label: 'Output', unit: 'V', min: 0.5, max: 1000 },
  'demand.outputA': { label: 'Load current', unit: 'A', min: 1e-4, max: 50 },
  'demand.tolerancePct': { label: 'Allowed deviation', unit: '%', min: 0.1, max: 60 },
  'demand.rippleVpp': { label: 'Allowed ripple', unit: 'V', min: 1e-6, max: 100 },
  'demand.negativeA': { label: 'Load, negative rail', unit: 'A', min: 0, max: 50, optional: 'the same' },
  'demand.typicalA': { label: 'Lasting current', unit: 'A', min: 0, max: 50, optional: 'the same' },
  'demand.leastA': { label: 'Least current', unit: 'A', min: 0, max: 50 },
  'demand.windowV': { label: 'End of the window', unit: 'V', min: 0, max: 2000 },
  'demand.rangeV': { label: 'End of the range', unit: 'V', min: 0, max: 1000 },
  'load.togetherPct': { label: 'Peaks together', unit: '%', min: 0, max: 100 },
  'load.reservePct': { label: 'Reserve', unit: '%', min: 0, max: 300 },
  'load.standingA': { label: 'Standing', unit: 'A', min: 0, max: 50 },
  'load.typicalA': { label: 'Typical', unit: 'A', min: 0, max: 50 },
  'load.peakA': { label: 'Peak', unit: 'A', min: 0, max: 50 },
  'load.startA': { label: 'At switch-on', unit: 'A', min: 0, max: 500, optional: 'usual of its kind' },
  'load.dutyPct': { label: 'Duty', unit: '%', min: 0, max: 100 },
  'mains.voltageRms': { label: 'Mains', unit: 'V', min: 12, max: 480 },
  'mains.frequencyHz': { label: 'Frequency', unit: 'Hz', min: 10, max: 1000 },
  'mains.lowPct': { label: 'Low line', unit: '%', min: 0, max: 40 },
  'mains.highPct': { label: 'High line', unit: '%', min: 0, max: 40 },
  'mains.flatTopPct': { label: 'Flat top', unit: '%', min: 0, max: 30 },
  'source.freshV': { label: 'Fresh', unit: 'V', min: 0.5, max: 500 },
  'source.emptyV': { label: 'Given up at', unit: 'V', min: 0.3, max: 500 },
  'source.resistanceOhm': { label: 'Its resistance', unit: 'ohm', min: 0, max: 1000 },
  'source.capacityAh': { label: 'Holds', unit: 'Ah', min: 0.001, max: 10000 },
  'source.ratedV': { label: 'Plate volts', unit: 'V', min: 1, max: 500 },
  'source.ratedA': { label: 'Plate current', unit: 'A', min: 0.001, max: 100 },
  'source.idlePct': { label: 'Above it when idle', unit: '%', min: 0, max: 100 },
  'source.spreadPct': { label: 'Spread, ±', unit: '%', min: 0, max: 40 },
  'source.rippleVpp': { label: 'Ripple at its rating', unit: 'V', min: 0, max: 50 },
  'source.limitA': { label: 'Cuts off at', unit: 'A', min: 0.001, max: 100, optional: 'goes soft' },
  'transformer.ratedV': { label: 'Winding', unit: 'V', min: 1, max: 1000 },
  'transformer.ratedVA': { label: 'Size', unit: 'VA', min: 0.5, max: 5000 },
  'transformer.regulationPct': { label: 'Regulation', unit: '%', min: 0.5, max: 150, optional: 'typical for the size' },
  'transformer.hotC': { label: 'Warm copper', unit: '°C', min: 20, max: 155 },
  'transformer.leakageH': { label: 'Leakage inductance', unit: 'H', min: 0, max: 1 },
  'transformer.openV': { label: 'Volts, open', unit: 'V', min: 0.5, max: 2000 },
  'transformer.loadedV': { label: 'Volts, loaded', unit: 'V', min: 0.1, max: 2000 },
  'transformer.loadA': { label: 'Load in the test', unit: 'A', min: 1e-4, max: 100 },
  'transformer.primaryOhm': { label: 'Primary, cold', unit: 'ohm', min: 1e-3, max: 1e5 },
  'transformer.fittedOhm': { label: 'Its ohms', unit: 'ohm', min: 0, max: 1e5 },
  'transformer.fittedPct': { label: 'Sure to', unit: '%', min: 0.001, max: 100 },
  'transformer.secondaryOhm': { label: 'Secondary, cold', unit: 'ohm', min: 1e-4, max: 1e5 },
  'winding.areaMm2': { label: 'Core section', unit: 'mm²', min: 10, max: 20000 },
  'winding.windowMm2': { label: 'Window', unit: 'mm²', min: 10, max: 50000 },
  'winding.meanTurnMm': { label: 'Mean turn', unit: 'mm', min: 10, max: 1000 },
  'winding.fluxT': { label: 'Flux density', unit: 'T', min: 0.2, max: 2 },
  'winding.turnsPerVolt': { label: 'Turns a volt', unit: '', min: 0.05, max: 200, optional: 'computed' },
  'winding.turns': { label: 'Turns', unit: '', min: 1, max: 100000 },
  'winding.wireMm': { label: 'Bare wire', unit: 'mm', min: 0.03, max: 10 },
  'rectifier.averageA': { label: 'Mean current', unit: 'A', min: 0.01, max: 1000 },
  'rectifier.reverseV': { label: 'Reverse volts', unit: 'V', min: 5, max: 10000 },
  'rectifier.surgeA': { label: 'Surge', unit: 'A', min: 0.1, max: 10000 },
  'rectifier.lowA': { label: 'At little current', unit: 'A', min: 1e-6, max: 100 },
  'rectifier.lowV': { label: 'it drops', unit: 'V', min: 0.01, max: 200 },
  'rectifier.highA': { label: 'At much current', unit: 'A', min: 1e-5, max: 1000 },
  'rectifier.highV': { label: 'it drops', unit: 'V', min: 0.02, max: 500 },
  'rectifier.jcKPerW': { label: 'Junction to case', unit: 'K/W', min: 0.05, max: 300, optional: 'of its class' },
  'rectifier.jaKPerW': { label: 'Junction to air', unit: 'K/W', min: 1, max: 500, optional: 'of its class' },
  'reservoir.cans': { label: 'Cans in parallel', unit: '', min: 1, max: 200 },
  'reservoir.capacitanceF': { label: 'Capacitance', unit: 'F', min: 0, max: 1 },
  'reservoir.ratedV': { label: 'Rated voltage', unit: 'V', min: 1, max: 1000 },
  'reservoir.esrOhm': { label: 'ESR', unit: 'ohm', min: 0, max: 1000, optional: 'typical for the can' },
  'reservoir.rippleA': { label: 'Ripple rating', unit: 'A', min: 1e-3, max: 200, optional: 'typical for the can' },
  'reservoir.tolerancePct': { label: 'Tolerance', unit: '%', min: 0, max: 60 },
  'reservoir.agedPct': { label: 'Loss by age', unit: '%', min: 0, max: 80 },
  'reservoir.balanceOhm': { label: 'Across each can', unit: 'ohm', min: 100, max: 1e7, optional: 'by leakage' },
  'filter.choke.inductanceH': { label: 'Inductance', unit: 'H', min: 1e-6, max: 200 },
  'filter.choke.resistanceOhm': { label: 'Copper', unit: 'ohm', min: 0, max: 1e5 },
  'filter.choke.ratedA': { label: 'Rated current', unit: 'A', min: 1e-4, max: 100 },
  'filter.resistor.resistanceOhm': { label: 'Resistor', unit: 'ohm', min: 1e-3, max: 1e6 },
  'filter.capacitor.capacitanceF': { label: 'Capacitor', unit: 'F', min: 1e-9, max: 1 },
  'filter.capacitor.ratedV': { label: 'Rated voltage', unit: 'V', min: 1, max: 2000 },
  'filter.bleederOhm': { label: 'Bleeder', unit: 'ohm', min: 1, max: 1e7, optional: 'none' },
  'heater.ratedV': { label: 'Heater winding', unit: 'V', min: 0.5, max: 100 },
  'heater.currentA': { label: 'Heater current', unit: 'A', min: 1e-3, max: 100 },
  'heat.ambientC': { label: 'Air at the sink', unit: '°C', min: -40, max: 110 },
  'heat.sinkKPerW': { label: 'Heatsink', unit: 'K/W', min: 0.05, max: 100, optional: 'no sink' },
  'heat.rectifierSinkKPerW': { label: 'Rectifier’s own sink', unit: 'K/W', min: 0.05, max: 100, optional: 'none' },
  'heat.fanA': { label: 'Fan draws', unit: 'A', min: 0, max: 5, optional: 'fed elsewhere' },
  'heat.boxCm2': { label: 'Outside of the box', unit: 'cm²', min: 50, max: 50000 },
  'heat.fanOnC': { label: 'Fan starts at', unit: '°C', min: 25, max: 120 },
  'output.sinkKPerW': { label: 'Its heatsink', unit: 'K/W', min: 0.05, max: 100, optional: 'no sink' },
  'regulator.outputV': { label: 'Output', unit: 'V', min: 0.5, max: 100 },
  'regulator.r1Ohm': { label: 'R1, output to ADJ', unit: 'ohm', min: 10, max: 10000 },
  'regulator.r2Ohm': { label: 'R2, ADJ to ground', unit: 'ohm', min: 0, max: 1e6 },
  'regulator.potOhm': { label: 'Pot', unit: 'ohm', min: 10, max: 1e6, optional: 'none' },
  'regulator.aboveV': { label: 'Held above the output', unit: 'V', min: 1, max: 40 },
  'regulator.boardCm2': { label: 'Board copper', unit: 'cm²', min: 0.1, max: 200 },
  'regulator.zenerV': { label: 'Zener', unit: 'V', min: 2.4, max: 200 },
  'regulator.zenerW': { label: 'Zener bears', unit: 'W', min: 0.1, max: 100 },
  'regulator.seriesOhm': { label: 'Series resistor', unit: 'ohm', min: 1, max: 1e6 },
  'regulator.driveOhm': { label: 'Drive resistor', unit: 'ohm', min: 1, max: 1e6 },
  'regulator.limitOhm': { label: 'Sense resistor', unit: 'ohm', min: 0.01, max: 1000, optional: 'no limit' },
  'regulator.upperOhm': { label: 'Divider, upper', unit: 'ohm', min: 0, max: 1e6 },
  'regulator.lowerOhm': { label: 'Divider, lower', unit: 'ohm', min: 10, max: 1e6 },
  'regulator.maxV': { label: 'Top of the volts knob', unit: 'V', min: 1, max: 100 },
  'regulator.limitA': { label: 'Top of the amps knob', unit: 'A', min: 0.01, max: 30 },
  'regulator.referenceV': { label: 'Reference', unit: 'V', min: 1, max: 30 },
  'regulator.shuntOhm': { label: 'Shunt', unit: 'ohm', min: 0.001, max: 100 },
  'regulator.gain': { label: 'Its current gain', unit: '', min: 5, max: 50000, optional: 'of its class' },
  'regulator.referencePct': { label: 'Reference, ±', unit: '%', min: 0, max: 20 },
  'regulator.inputMaxV': { label: 'Input, at most', unit: 'V', min: 1, max: 1000, optional: 'of its class' },
  'regulator.dropoutV': { label: 'Dropout at its rating', unit: 'V', min: 0.02, max: 10, optional: 'of its class' },
  'regulator.ratedA': { label: 'Rated current', unit: 'A', min: 0.001, max: 50, optional: 'of its class' },
  'regulator.jcKPerW': { label: 'Junction to case', unit: 'K/W', min: 0.05, max: 300, optional: 'of its class' },
  'regulator.jaKPerW': { label: 'Junction to air', unit: 'K/W', min: 1, max: 500, optional: 'of its class' },
  'regulator.powerW': { label: 'Its watts, case at 25 °C', unit: 'W', min: 0.1, max: 1000, optional: 'of its class' },
  'regulator.breakdownV': {
    label: 'Second breakdown from',
    unit: 'V',
    min: 5,
    max: 1000,
    optional: 'of its class',
  },
  'box.insideMm': { label: 'Inside', unit: 'mm', min: 20, max: 2000 },
  'box.sizeMm': { label: 'Size', unit: 'mm', min: 1, max: 1000 },
  'box.placeMm': { label: 'Place', unit: 'mm', min: -1000, max: 3000 },
  'board.placeMm': { label: 'Place on the board', unit: 'mm', min: 0, max: 400 },
  'board.hole': { label: 'Hole', unit: '', min: 0, max: 200 },
  'board.down': { label: 'Strips to the last leg', unit: '', min: -20, max: 20 },
  'indicator.currentA': { label: 'Lamp current', unit: 'A', min: 1e-4, max: 0.1 },
  'indicator.forwardV': { label: 'Lamp drops', unit: 'V', min: 1, max: 5 },
  'regulator.passes': { label: 'Pass transistors', unit: '', min: 1, max: 12 },
  'regulator.emitterOhm': { label: 'Emitter resistors', unit: 'ohm', min: 0, max: 10 },
  'regulator.opampMaxV': { label: 'Op-amps bear', unit: 'V', min: 5, max: 200 },
  'regulator.shuntPct': { label: 'Shunt, ±', unit: '%', min: 0, max: 20 },
  'regulator.resistorPct': { label: 'Resistors, ±', unit: '%', min: 0, max: 20 },
  'mainsSide.primaryFuseA': { label: 'Primary fuse', unit: 'A', min: 0.01, max: 32, optional: 'not chosen' },
  'mainsSide.secondaryFuseA': { label: 'Secondary fuse', unit: 'A', min: 0.01, max: 100, optional: 'none' },
  'bench.sourceV': { label: 'Mains or source then', unit: 'V', min: 0.3, max: 500 },
  'bench.loadA': { label: 'Load current', unit: 'A', min: 0, max: 50 },
  'bench.volts': { label: 'Volts', unit: 'V', min: 0, max: 5000, optional: 'none' },
  'bench.set': { label: 'Set or read', unit: '', min: 0, max: 5000 },
  'bench.sinkC': { label: 'Metal', unit: '°C', min: -40, max: 300, optional: 'none' },
  'bench.loadedS': { label: 'Loaded for', unit: 's', min: 0, max: 1e6, optional: 'none' },
  'bench.meterPct': { label: 'Meter error', unit: '%', min: 0, max: 10 },
  'bench.meterDigitsV': { label: 'Meter digits', unit: 'V', min: 0, max: 1 },
  'bench.inputOhm': { label: 'Meter, input', unit: 'ohm', min: 1e3, max: 1e12 },
  'bench.burdenV': { label: 'Burden', unit: 'V', min: 0, max: 2 },
  'bench.scopeFloorV': { label: 'Scope, floor', unit: 'V', min: 0, max: 1 },
  'bench.thermometerK': { label: 'Thermometer', unit: 'K', min: 0, max: 20 },
} as const satisfies Record<string, FieldLimit>;

export type FieldLimits = typeof FIELD_LIMITS;
export type FieldPath = keyof FieldLimits;

export function fieldLimit(path: FieldPath): FieldLimit {
  return FIELD_LIMITS[path];
}

/** The sentence for a value outside its field's range, or null when it is inside. */
export function rangeFault(path: FieldPath, value: number): string | null {
  const limit = fieldLimit(path);
  if (!Number.isFinite(value)) return `${limit.label} has to be a number.`;
  // 100 µA is the least, however the computer writes it.
  if (value < limit.min - 1e-9 * Math.abs(limit.min)) {
    return value < 0
      ? `${limit.label} cannot be negative: ${formatQuantity(limit.min, limit.unit)} is the least.`
      : `${limit.label} has to be at least ${formatQuantity(limit.min, limit.unit)}.`;
  }
  if (value > limit.max + 1e-9 * Math.abs(limit.max)) {
    return `${formatQuantity(value, limit.unit)} is beyond any real supply here: ${limit.label.toLowerCase()} goes up to ${formatQuantity(limit.max, limit.unit)}.`;
  }
  return null;
}
