import { demoDesigns } from '@/core/design/demo-designs';
import type { Design } from '@/core/design/design';

/** What a builder pays for a layout: less of it is better, and a change of the layouts must not cost more than today's. */
export interface LayoutBudget {
  /** Tracks on one side and on two: mm² of board, wires above it, mm of copper; and mm² of copper, which is to be no less. */
  etched: readonly (readonly [boardMm2: number, links: number, copperMm: number, copperMm2: number])[];
  /** Holes of a board of strips, links and cuts. */
  strips: readonly [holes: number, links: number, cuts: number];
  /** The circuit as drawn: its width, height and length of all wires, px, and where they cross. */
  circuit: readonly [width: number, height: number, wires: number, hops: number];
  /** The least box, mm. */
  box: readonly [wMm: number, dMm: number, hMm: number];
}

/** A row for each demo design: etched on one side | on two | strips | circuit | box. */
const BUDGETS: readonly LayoutBudget[] = `
  1974 2 204 243 | 1974 0 199 239 | 266 4 0 | 976 557 3926 1 | 260 200 120
  853 0 74 237 | 853 0 74 240 | 63 1 0 | 964 244 2326 1 | 200 160 100
  1774 1 145 171 | 1774 0 142 168 | 216 3 0 | 811 557 3461 1 | 180 140 80
  3398 3 307 367 | 3398 0 308 367 | 420 8 1 | 811 1012 5592 3 | 200 160 100
  3274 1 154 183 | 3274 0 194 230 | 140 2 0 | 845 425 2235 1 | 180 140 80
  3353 3 281 366 | 3353 0 343 460 | 496 8 7 | 918 671 4435 1 | 230 180 110
  2390 0 216 284 | 2390 0 216 284 | 285 6 4 | 918 671 4391 1 | 200 160 100
  3019 1 200 237 | 3019 0 200 238 | 300 5 2 | 1040 569 3854 0 | 100 80 45
`
  .trim()
  .split('\n')
  .map((row) => {
    const [one, two, strips, circuit, box] = row.split('|').map((part) => part.trim().split(' ').map(Number));
    return { etched: [one, two], strips, circuit, box } as unknown as LayoutBudget;
  });

/** Rounding. */
const SLACK = 1.005;

/** Which of some figures of a demo design's layout cost more than they may, by their names. */
export function overBudget(
  design: Design,
  of: (budget: LayoutBudget) => Record<string, [is: number, may: number]>,
): string[] {
  const budget = BUDGETS[demoDesigns().findIndex((d) => d.name === design.name)]!;
  return Object.entries(of(budget)).flatMap(([name, [is, may]]) =>
    is <= SLACK * may ? [] : [`${name}: ${is.toFixed(1)} where ${may} will do`],
  );
}
