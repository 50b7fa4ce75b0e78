import { mainsReadV, ofThisSource } from '@/core/circuit/condition';
import { mainsVolts } from '@/core/circuit/feed';
import type { Design, Reading } from '@/core/design/design';
import type { PointId, TestPoint } from './test-point';

export type ReadingVerdict = { state: 'as expected' | 'too low' | 'too high'; offBy: number; hint: string };

/** Judges one reading against its point's window. */
export function judgeReading(point: TestPoint, value: number): ReadingVerdict {
  if (value < point.low) return { state: 'too low', offBy: value - point.low, hint: point.ifLow };
  if (value > point.high) return { state: 'too high', offBy: value - point.high, hint: point.ifHigh };
  return { state: 'as expected', offBy: 0, hint: '' };
}

/**
 * Whether what was read while fed so can be held against the design. A lamp's resistance follows its own glow, and a bench
 * supply in place of a transformer has no peaks: what was read so is kept, and held against nothing.
 */
export const judgedWhenFed = ({ source }: Pick<Design, 'source'>, fedFrom: Reading['fedFrom']): boolean =>
  fedFrom !== 'lamp' && (fedFrom !== 'bench supply' || source.kind !== 'mains');

/** The newest reading of each point. */
export function latestReadings(readings: readonly Reading[]): Map<string, Reading> {
  const latest = new Map<string, Reading>();
  for (const reading of readings) {
    const before = latest.get(reading.point);
    if (!before || reading.at >= before.at) latest.set(reading.point, reading);
  }
  return latest;
}

/** Mains, or open volts of the source, valid now: the newest reading, or nominal when none was taken. */
export function mainsToday(design: Design): number {
  const nominalV = mainsVolts(design, 'nominal');
  const read = mainsReadV(design);
  return read !== undefined && ofThisSource(read, nominalV) ? read : nominalV;
}

/** For each point: the mains volts noted with its reading, or today's. */
export function mainsForReadings(design: Design): (point: PointId) => number {
  const latest = latestReadings(design.bench.readings);
  const today = mainsToday(design);
  const nominalV = mainsVolts(design, 'nominal');
  return (point) => {
    const then = point === 'mains' ? undefined : latest.get(point)?.mainsV;
    return then !== undefined && ofThisSource(then, nominalV) ? then : today;
  };
}
