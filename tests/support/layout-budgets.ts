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

const BUDGETS: readonly LayoutBudget[] = [
  {
    etched: [
      [1974, 2, 204, 243],
      [1974, 0, 199, 239],
    ],
    strips: [266, 4, 0],
    circuit: [976, 557, 3926, 1],
    box: [260, 200, 120],
  },
  {
    etched: [
      [853, 0, 74, 237],
      [853, 0, 74, 240],
    ],
    strips: [63, 1, 0],
    circuit: [964, 244, 2326, 1],
    box: [200, 160, 100],
  },
  {
    etched: [
      [1774, 1, 145, 171],
      [1774, 0, 142, 168],
    ],
    strips: [216, 3, 0],
    circuit: [811, 557, 3461, 1],
    box: [180, 140, 80],
  },
  {
    etched: [
      [3398, 3, 307, 367],
      [3398, 0, 308, 367],
    ],
    strips: [420, 8, 1],
    circuit: [811, 1012, 5592, 3],
    box: [200, 160, 100],
  },
  {
    etched: [
      [3274, 1, 154, 183],
      [3274, 0, 194, 230],
    ],
    strips: [140, 2, 0],
    circuit: [845, 425, 2235, 1],
    box: [180, 140, 80],
  },
  {
    etched: [
      [3353, 3, 281, 366],
      [3353, 0, 343, 460],
    ],
    strips: [496, 8, 7],
    circuit: [918, 671, 4435, 1],
    box: [230, 180, 110],
  },
  {
    etched: [
      [2390, 0, 216, 284],
      [2390, 0, 216, 284],
    ],
    strips: [285, 6, 4],
    circuit: [918, 671, 4391, 1],
    box: [200, 160, 100],
  },
  {
    etched: [
      [3019, 1, 200, 237],
      [3019, 0, 200, 238],
    ],
    strips: [300, 5, 2],
    circuit: [1040, 569, 3854, 0],
    box: [100, 80, 45],
  },
];

/** Rounding. */
const SLACK = 1.005;

/** Which of some figures of a demo design's layout cost more than they may, by their names. */
export function overBudget(
  design: Design,
  of: (budget: LayoutBudget) => Record<string, [is: number, may: number]>,
): string[] {
  const budget = BUDGETS[demoDesigns().findIndex((d) => d.name === design.name)]!;
  return Object.entries(of(budget)).flatMap(([name, [is, may]]) =>
    is > SLACK * may ? [`${name}: ${is.toFixed(1)} where ${may} will do`] : [],
  );
}
