import type { Consumer } from '@/core/design/design';

const one = (name: string, amps: number, part: Partial<Consumer> = {}): Consumer => ({
  name,
  count: 1,
  on: null,
  output: 'main',
  kind: 'current',
  standingA: 0,
  typicalA: amps,
  peakA: amps,
  dutyPct: 100,
  startA: null,
  ...part,
});

/** Things of a small observatory that hang on a supply, the smallest first. */
const THINGS: readonly Consumer[] = [
  one('Pilot lamp', 0.002),
  one('Thermometer by the door', 0.008),
  one('Tide-gauge pen', 0.03, { peakA: 0.08 }),
  one('Slave movement', 0.08),
  one('Slit lamp', 0.3, { kind: 'lamp', dutyPct: 60 }),
  one('Chart drive', 0.55),
  one('Shutter motor', 1.5, { kind: 'motor', dutyPct: 10, standingA: 0.05 }),
  one('Dew heater', 3, { kind: 'resistance', dutyPct: 80 }),
];

/** How many are offered. */
const OFFERED = 3;

/**
 * A few consumers to begin a table with, of a size that means something to a supply: the largest that stay within half of
 * what it is designed for. @param outputA what it is designed for, A
 */
export function consumersFor(outputA: number): readonly Consumer[] {
  const within = THINGS.filter((c) => c.peakA <= outputA / 2);
  return within.length >= OFFERED ? within.slice(-OFFERED) : THINGS.slice(0, OFFERED);
}
