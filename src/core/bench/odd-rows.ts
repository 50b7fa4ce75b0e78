import type { Design } from '@/core/design/design';
import { formatQuantity as q } from '@/core/quantity/format';

/** So many times full load is no overload any more, but another unit. */
const BEYOND = 3;
/** A thousand times too much or too little, give or take what a fault may do to it. */
const THOUSAND = { least: 500, most: 2000 };
/** So many different loads with one and the same reading are no coincidence. */
const LOADS_ALIKE = 3;

/**
 * What looks mistyped in a load line, in sentences that say where: it is kept as it was typed.
 * @param sound what the design says of each reading, by the reading's id
 */
export function oddRows(
  { bench: { loadLine }, demand }: Design,
  sound: Readonly<Record<string, { value: number }>>,
): string[] {
  const odd: string[] = [];
  loadLine.forEach((row, n) => {
    const times = row.loadA / demand.outputA;
    if (times > BEYOND)
      odd.push(
        `Row ${n + 1}: ${q(row.loadA, 'A')} is ${q(times, '', 2)} times the ${q(demand.outputA, 'A')} it is for. Typed in milliamperes?`,
      );
    for (const [key, what, unit] of [
      ['reservoirV', 'reservoir', 'V'],
      ['rippleV', 'ripple', 'V'],
      ['outputV', 'output', 'V'],
    ] as const) {
      const read = row[key];
      const should = sound[`row-${n}-${key}`]?.value;
      if (read === null || should === undefined || read <= 0 || should <= 0) continue;
      const ratio = Math.max(read / should, should / read);
      if (ratio < THOUSAND.least || ratio > THOUSAND.most) continue;
      odd.push(
        `Row ${n + 1}, ${what}: ${q(read, unit)} is a thousand times too ${read > should ? 'much' : 'little'}. Typed in ${read > should ? 'volts what was millivolts' : 'millivolts what was volts'}?`,
      );
    }
  });
  const read = loadLine.filter((r) => r.reservoirV !== null);
  const first = read[0]?.reservoirV ?? null;
  const loads = new Set(read.map((r) => r.loadA));
  if (first !== null && first > 0 && loads.size >= LOADS_ALIKE && read.every((r) => r.reservoirV === first))
    odd.push(
      `The reservoir reads ${q(first, 'V')} at every load. Is the meter on hold, or the load not on? No value can be told from it.`,
    );
  return odd;
}
