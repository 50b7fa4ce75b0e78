import type { Circuit } from '@/core/circuit/assemble';
import { dropV } from '@/core/circuit/port';
import { stops, type Mains } from '../emf';
import { LEAK_SHARE } from '../level';
import { floatLeak } from '../port-state';
import { CEASED, LARGE } from '../turn-off';
import { ABOUT_TO_CONDUCT } from '../turn-on';
import { DOUBLES, INTS, NUMBERS, OFFSETS, SIZES, type Double, type Named, type Size } from './fields';
import { takeSlot, type Slot } from './memory';
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
  readonly x: Float64Array;
  readonly transition: Float64Array;
  readonly low: Float64Array;
  readonly high: Float64Array;
  /** The integral of all currents squared over the last run, A²s, and its work. */
  flowed(): number;
  work(): number;
  release(): void;
}

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
export function plainRun(shape: Circuit, stride: number): PlainRun | null {
  if (!isPlain(shape)) return null;
  const slot = takeSlot();
  if (!slot) return null;
  const made = runIn(slot, shape, stride);
  if (!made) slot.release();
  return made;
}

function runIn(slot: Slot, shape: Circuit, stride: number): PlainRun | null {
  const told = plainShape(shape, stride);
  const table = slot.ints(SIZES.length + OFFSETS.length + INTS.length + DOUBLES.length);
  const ints = new Map(INTS.map((name) => [name, slot.ints(told.ints[name].length)]));
  const doubles = new Map(DOUBLES.map((name) => [name, slot.doubles(told.doubles[name])]));
  if (!table || [...ints.values(), ...doubles.values()].includes(null)) return null;
  for (const name of INTS) ints.get(name)!.set(told.ints[name]);
  const d = (name: Double): Float64Array => doubles.get(name)!;
  const numbers = d('numbers');
  const set = (name: Named, value: number) => (numbers[NUMBERS.indexOf(name)] = value);
  const get = (name: Named): number => numbers[NUMBERS.indexOf(name)]!;
  const size = (name: Size, value: number) => (table[SIZES.indexOf(name)] = value);
  [
    ...SIZES.map((name) => told.sizes[name]),
    ...OFFSETS.map((name) => told.offsets[name]),
    ...INTS.map((name) => ints.get(name)!.byteOffset),
    ...DOUBLES.map((name) => d(name).byteOffset),
  ].forEach((value, n) => (table[n] = value));
  size('slotNext', slot.rest().from);
  size('slotEnd', slot.rest().end);
  shape.ports.forEach((p, n) => (d('share')[n] = p.share));
  shape.ports.forEach((p, n) => (d('floatSign')[n] = p.floatSign));
  d('touchSign').set(told.touchSigns);
  d('intoSign').set(told.intoSigns);
  const { code } = slot;
  const [x, transition, low, high, records, stopAt] = (
    ['x', 'transition', 'low', 'high', 'records', 'stops'] as const
  ).map(d) as [Float64Array, Float64Array, Float64Array, Float64Array, Float64Array, Float64Array];
  let circuit = shape;
  let loading = 0;
  let fresh = true;

  return {
    load(next, gridS, firstS) {
      circuit = next;
      fresh = true;
      size('loading', ++loading);
      size('direct', next.direct ? 1 : 0);
      set('periodS', next.periodS);
      set('omega', next.omega);
      set('peakV', next.peakV);
      set('clip', next.clip);
      set('ripple', next.ripple);
      set('sharedOhm', next.sharedOhm);
      set('leakS', (LEAK_SHARE * next.typicalA) / next.peakV);
      set('longestS', gridS[0]!);
      set('quietA', 1e-2 * ABOUT_TO_CONDUCT * next.typicalA);
      set('typicalA', next.typicalA);
      set('floatLeakS', floatLeak(next));
      d('floatV').fill(0);
      set('ceasedA', CEASED * next.typicalA);
      set('largeA', LARGE * next.typicalA);
      set('first', firstS);
      d('gridH').set(gridS);
      const { elements, windings, ports } = next;
      const fill = <T>(name: Double, list: readonly T[], value: (of: T) => number) => {
        const into = d(name);
        for (let n = 0; n < list.length; n++) into[n] = value(list[n]!);
      };
      fill('farad', elements, (e) => (e.kind === 'capacitor' ? e.capacitanceF : 0));
      fill('ohmOf', elements, (e) => (e.kind === 'capacitor' ? e.esrOhm : e.ohm));
      fill('henry', elements, (e) => (e.kind === 'inductor' ? e.inductanceH : 0));
      fill('windingH', windings, (w) => w.inductanceH);
      fill('windingOhm', windings, (w) => w.ownOhm);
      fill('uE', ports, (p) => p.share * windings[p.winding]!.ratio);
      fill('theta', ports, (p) => p.thetaV || 1);
      fill('saturation', ports, (p) => (p.law === 'diode' ? p.saturationA : 0));
      fill('series', ports, (p) => p.ohm);
      fill('onV', ports, (p) => (p.law === 'diode' ? dropV(p, ABOUT_TO_CONDUCT * next.typicalA) : 0));
      let from = 0;
      for (const { load } of next.rails) {
        d('breakV').set(load.breakpoints, from);
        d('pieceOffset').set(load.offset, from);
        d('pieceSlope').set(load.slope, from);
        from += load.offset.length;
      }
    },
    setTolerance(swing, relative, squaredA2s, tolerated) {
      for (let n = 0; n < shape.states; n++) d('tolerance')[n] = relative * swing[n]!;
      set('toleranceSquares', relative * squaredA2s);
      set('tolerated', tolerated);
    },
    run(start, from, to, { mains, record, carry }, kept) {
      if (record && kept.count > 0 && kept.data !== records) return -1;
      const at = stops(circuit, mains, from, to);
      if (at.length > MOST_STOPS) return -1;
      stopAt.set(at);
      size('stopCount', at.length);
      set('factor', mains.factor);
      set('factorPerS', mains.factor === 0 ? 0 : (mains.factorPerS ?? 0));
      set('phase', mains.phase);
      x.set(start);
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
    x,
    transition,
    low,
    high,
    flowed: () => get('flowed'),
    work: () => get('work'),
    release: slot.release,
  };
}
