import type { Circuit } from '@/core/circuit/assemble';
import { dropV } from '@/core/circuit/port';
import { stops, type Mains } from '../emf';
import { LEAK_SHARE } from '../level';
import { floatLeak } from '../port-state';
import type { Reading } from '../reading';
import { CEASED, LARGE } from '../turn-off';
import { ABOUT_TO_CONDUCT } from '../turn-on';
import { DOUBLES, INTS, NUMBERS, OFFSETS, SIZES, type Double, type Named, type Size } from './fields';
import { takeSlot, type Slot } from './memory';
import { plainReader, type Fields } from './plain-reading';
import { MOST_STOPS, plainShape } from './plain-shape';

/** What a run is asked for: as RunOptions (step.ts). */
interface Asked {
  mains: Mains;
  record: boolean;
  carry: boolean;
}

/** One circuit's shape in the hands of the machine's own code. */
export interface PlainRun {
  /** Takes over the values of a circuit of the same shape. @param gridS lengths of steps @param firstS into a pulse, s */
  load(circuit: Circuit, gridS: Float64Array, firstS: number): void;
  setTolerance(swing: Float64Array, relative: number, squaredA2s: number, tolerated: number): void;
  /**
   * A run as the integrator's.
   * @param records of which `count` are there already
   * @returns steps, or -1 where it does not know how to go on: then nothing of it is to be used
   */
  run(
    start: Float64Array,
    from: number,
    to: number,
    asked: Asked,
    records: { data: Float64Array; count: number },
  ): number;
  /** Reads the records of its runs; null for records that lie elsewhere, or are too many. */
  reading(records: { data: Float64Array; count: number }): Reading | null;
  readonly x: Float64Array;
  readonly transition: Float64Array;
  readonly low: Float64Array;
  readonly high: Float64Array;
  /** The integral of all currents squared over the last run, A²s, and its work. */
  flowed(): number;
  work(): number;
  release(): void;
}

/** Where each single number stands, and each size. */
const AT = Object.fromEntries(NUMBERS.map((name, n) => [name, n])) as Record<Named, number>;
const SIZE_AT = Object.fromEntries(SIZES.map((name, n) => [name, n])) as Record<Size, number>;

/**
 * Whether a circuit is plain: nothing bends but diodes, chokes keep their inductance, and something stores charge.
 */
function isPlain(shape: Circuit): boolean {
  const bends = shape.ports.length - shape.acPorts.length;
  return (
    shape.states > 0 &&
    shape.ports.every((p, n) => p.law === 'diode' || p.law === 'open' || n >= bends) &&
    shape.rails.every((r) => r.load.extra === null) &&
    shape.elements.every((e) => e.kind !== 'inductor' || e.halfAtA === Infinity)
  );
}

/** @returns null for a circuit that is not plain, or where there is no slot for it or no code */
export function plainRun(shape: Circuit, fields: Fields): PlainRun | null {
  if (!isPlain(shape)) return null;
  const slot = takeSlot();
  if (!slot) return null;
  const made = runIn(slot, shape, fields);
  if (!made) slot.release();
  return made;
}

function runIn(slot: Slot, shape: Circuit, fields: Fields): PlainRun | null {
  const told = plainShape(shape, fields.stride);
  const table = slot.ints(SIZES.length + OFFSETS.length + INTS.length + DOUBLES.length);
  const ints = new Map(INTS.map((name) => [name, slot.ints(told.ints[name].length)]));
  const doubles = DOUBLES.map((name) => [name, slot.doubles(told.doubles[name])] as const);
  if (!table || [...ints.values(), ...doubles.map(([, array]) => array)].includes(null)) return null;
  const arrays = Object.fromEntries(doubles) as Record<Double, Float64Array>;
  for (const name of INTS) ints.get(name)!.set(told.ints[name]);
  const { numbers } = arrays;
  const size = (name: Size, value: number) => (table[SIZE_AT[name]] = value);
  [
    ...SIZES.map((name) => told.sizes[name]),
    ...OFFSETS.map((name) => told.offsets[name]),
    ...INTS.map((name) => ints.get(name)!.byteOffset),
    ...DOUBLES.map((name) => arrays[name].byteOffset),
  ].forEach((value, n) => (table[n] = value));
  size('slotNext', slot.rest().from);
  size('slotEnd', slot.rest().end);
  shape.ports.forEach((p, n) => (arrays.share[n] = p.share));
  shape.ports.forEach((p, n) => (arrays.floatSign[n] = p.floatSign));
  arrays.touchSign.set(told.touchSigns);
  arrays.intoSign.set(told.intoSigns);
  const { code } = slot;
  const { x, transition, low, high, records, stops: stopAt } = arrays;
  const reader = plainReader(slot, shape, records, fields);
  let circuit = shape;
  let loading = 0;
  let fresh = true;

  return {
    load(next, gridS, firstS) {
      circuit = next;
      fresh = true;
      size('loading', ++loading);
      size('direct', next.direct ? 1 : 0);
      numbers[AT.periodS] = next.periodS;
      numbers[AT.omega] = next.omega;
      numbers[AT.peakV] = next.peakV;
      numbers[AT.clip] = next.clip;
      numbers[AT.ripple] = next.ripple;
      numbers[AT.sharedOhm] = next.sharedOhm;
      numbers[AT.leakS] = (LEAK_SHARE * next.typicalA) / next.peakV;
      numbers[AT.quietA] = 1e-2 * ABOUT_TO_CONDUCT * next.typicalA;
      numbers[AT.typicalA] = next.typicalA;
      numbers[AT.floatLeakS] = floatLeak(next);
      arrays.floatV.fill(0);
      numbers[AT.ceasedA] = CEASED * next.typicalA;
      numbers[AT.largeA] = LARGE * next.typicalA;
      numbers[AT.first] = firstS;
      arrays.gridH.set(gridS);
      const { elements, windings, ports } = next;
      const fill = <T>(into: Float64Array, list: readonly T[], value: (of: T) => number) => {
        for (let n = 0; n < list.length; n++) into[n] = value(list[n]!);
      };
      fill(arrays.farad, elements, (e) => (e.kind === 'capacitor' ? e.capacitanceF : 0));
      fill(arrays.ohmOf, elements, (e) => (e.kind === 'capacitor' ? e.esrOhm : e.ohm));
      fill(arrays.henry, elements, (e) => (e.kind === 'inductor' ? e.inductanceH : 0));
      fill(arrays.windingH, windings, (w) => w.inductanceH);
      fill(arrays.windingOhm, windings, (w) => w.ownOhm);
      fill(arrays.uE, ports, (p) => p.share * windings[p.winding]!.ratio);
      fill(arrays.theta, ports, (p) => p.thetaV || 1);
      fill(arrays.saturation, ports, (p) => (p.law === 'diode' ? p.saturationA : 0));
      fill(arrays.series, ports, (p) => p.ohm);
      fill(arrays.onV, ports, (p) => (p.law === 'diode' ? dropV(p, ABOUT_TO_CONDUCT * next.typicalA) : 0));
      let from = 0;
      const { breakV, pieceOffset, pieceSlope } = arrays;
      for (const { load } of next.rails) {
        const { breakpoints, offset, slope } = load;
        for (let n = 0; n < breakpoints.length; n++) breakV[from + n] = breakpoints[n]!;
        for (let n = 0; n < offset.length; n++) {
          pieceOffset[from + n] = offset[n]!;
          pieceSlope[from + n] = slope[n]!;
        }
        from += offset.length;
      }
    },
    setTolerance(swing, relative, squaredA2s, tolerated) {
      const { tolerance } = arrays;
      for (let n = 0; n < shape.states; n++) tolerance[n] = relative * swing[n]!;
      numbers[AT.toleranceSquares] = relative * squaredA2s;
      numbers[AT.tolerated] = tolerated;
    },
    run(start, from, to, { mains, record, carry }, kept) {
      if (record && kept.count > 0 && kept.data !== records) return -1;
      const at = stops(circuit, mains, from, to);
      if (at.length > MOST_STOPS) return -1;
      for (let n = 0; n < at.length; n++) stopAt[n] = at[n]!;
      size('stopCount', at.length);
      numbers[AT.factor] = mains.factor;
      numbers[AT.factorPerS] = mains.factor === 0 ? 0 : (mains.factorPerS ?? 0);
      numbers[AT.phase] = mains.phase;
      for (let n = 0; n < start.length; n++) x[n] = start[n]!;
      let done: number;
      try {
        done = code.run(table.byteOffset, fresh, from, record, carry, record ? kept.count : 0);
      } catch {
        // It trapped: a number beyond its range. The general way says what is wrong.
        done = -1;
      }
      fresh = false;
      if (!(done >= 0)) {
        fresh = true;
        return -1;
      }
      if (record) {
        kept.data = records;
        kept.count = done % 65536;
      }
      return Math.floor(done / 65536);
    },
    reading: ({ data, count }) => (data === records && count > 0 ? reader(circuit, count) : null),
    x,
    transition,
    low,
    high,
    flowed: () => numbers[AT.flowed]!,
    work: () => numbers[AT.work]!,
    release: slot.release,
  };
}
