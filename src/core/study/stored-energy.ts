import { placedParts, reservoirPlace } from '@/core/circuit/filter-of';
import { bankF } from '@/core/design/bank';
import type { Design } from '@/core/design/design';
import { arrangementFacts } from '@/core/design/source';
import { wordsOf } from '@/core/circuit/condition';
import type { Figure } from './figure';
import type { OperatingPoint } from './point';

/** Capacitors alike in place and volts, and what one set of them holds. */
export interface Held {
  label: string;
  /** Capacitance of one, F, how many there are, and the highest volts across each. */
  farad: number;
  count: number;
  volts: number;
}

/**
 * What every capacitor of a design holds at a point: reservoir and filter of each rail, stacked cans and pumps.
 * @param point mostly the one without load at the highest input
 */
export function storedEnergy(design: Design, point: OperatingPoint): { joule: number; held: Held[] } {
  const { solution, rails } = point;
  const { stacked, ownCans } = arrangementFacts(design);
  const each = bankF(design.reservoir);
  const held: Held[] = [];
  const add = (label: string, farad: number, volts: number) => {
    if (farad <= 0) return;
    const same = held.find((h) => h.label === label && h.farad === farad && Math.abs(h.volts - volts) < 0.01 * volts);
    if (same) same.count++;
    else held.push({ label, farad, count: 1, volts });
  };
  const place = reservoirPlace(design);
  rails.forEach((rail, r) => {
    const elements = solution.elements[r]!;
    // Stacked cans are listed apart, pumps with them.
    if (place >= 0 && stacked === 1) add('reservoir', each, elements[place]!.maxV);
    for (const { part, at } of placedParts(design)) {
      if (part.kind === 'capacitor') add('filter', part.capacitanceF, elements[at]?.maxV ?? rail.rail.maxV);
    }
  });
  if (ownCans) for (const can of solution.cans ?? []) add(stacked > 1 ? 'stacked' : 'pump', each, can.maxV);
  const joule = held.reduce((sum, h) => sum + h.count * 0.5 * h.farad * h.volts ** 2, 0);
  return { joule, held };
}

/** The same as a figure with its working. @param idle the point without load at the highest input */
export function storedFigure(design: Design, idle: OperatingPoint): Figure {
  const { joule, held } = storedEnergy(design, idle);
  return {
    id: 'stored',
    label: 'Stored in all capacitors',
    value: joule,
    unit: 'J',
    origin: 'formula',
    condition: wordsOf(design, 'idle'),
    expression: '½·C·V², every capacitor',
    inputs: held.flatMap((h): Figure['inputs'] => [
      { label: h.count > 1 ? `${h.label}, ${h.count} alike` : h.label, value: h.farad, unit: 'F', origin: 'chosen' },
      { label: 'at', value: h.volts, unit: 'V', origin: 'simulated' },
    ]),
    source: 'Simulated idle voltages.',
    assumes: [],
  };
}
