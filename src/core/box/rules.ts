import type { Block, Inside, Spot } from './block';
import type { Figure } from '@/core/study/figure';
import { gapMm, mid, planGap, type Solid } from './solid';
import { fieldDistance } from './stray-field';

/** A block where it is, with the room it takes. */
export interface Standing {
  block: Block;
  spot: Spot;
  solid: Solid;
}

export type BoxRuleId =
  'inside' | 'lid' | 'reach' | 'mains-to-low' | 'bend' | 'heat-to-can' | 'above-fins' | 'field' | 'together';

/** What one of two blocks has to keep from the other. */
export interface PairRule {
  id: BoxRuleId;
  name: string;
  why: string;
  /** Where its limit is from. */
  source: string;
  /** No farther than that, instead of no nearer. */
  atMost?: true;
  /** Distance wanted, mm; null where it says nothing of these two. */
  wants(a: Block, b: Block, ctx: Surroundings): number | null;
  /** How its limit comes about, where it is computed for these two. */
  working?(a: Block, b: Block, ctx: Surroundings): Figure | null;
  /** Distance there is, mm; infinite where it says nothing of these two as they stand. */
  has(a: Standing, b: Standing): number;
}

/** What a block has to keep from the box itself. */
interface WallRule {
  id: BoxRuleId;
  name: string;
  why: string;
  source: string;
  wants(a: Standing): number | null;
  has(a: Standing, inside: Inside): number;
}

/** What the distances hang on besides the parts. */
export interface Surroundings {
  ring: boolean;
  frequencyHz: number;
}

/** Air below and above fins, mm. */
export const FIN_AIR_MM = 25;
const MAINS_TO_LOW_MM = 8;
const REACH_MM = 5;
const LID_MM = 5;
const BEND_MM = 15;
/** What stays free between a block and the lid, mm. */
export const overheadMm = (fins: boolean): number => (fins ? FIN_AIR_MM : LID_MM);
/** From the walls, and in a panel from its edges, mm. */
const FROM_EDGE_MM = { floor: 2, panel: 5 };
const HEAT_TO_CAN_MM = 10;
/** Inlet, fuse and switch no farther from each other than this, middle to middle, mm. Rule of thumb. */
const TOGETHER_MM = 120;
/** A wire from one panel to the other is longer than together allows, mm. */
const PANEL_TO_PANEL_MM = 150;

const gap = (a: Standing, b: Standing) => gapMm(a.solid, b.solid);
const either = (a: Block, b: Block, test: (a: Block, b: Block) => boolean) => test(a, b) || test(b, a);
const onPanel = ({ spot, block }: Standing) => spot.face !== 'floor' && !block.outside;

export const PAIR_RULES: readonly PairRule[] = [
  {
    id: 'mains-to-low',
    name: 'Mains to low volts',
    why: 'What comes loose inside must not bring the mains to the output: 8 mm through air, or a barrier between.',
    source: 'As usual for reinforced insulation at 230 V; your local code decides.',
    wants: (a, b) =>
      either(a, b, (m, l) => m.carries === 'mains' && (l.carries === 'low' || l.carries === 'input') && !l.outside)
        ? MAINS_TO_LOW_MM
        : null,
    has: gap,
  },
  {
    id: 'reach',
    name: 'Screws and fingers',
    why: 'A screwdriver, a nut and two fingers have to get between any two parts.',
    source: 'Rule of thumb: a 4 mm screwdriver and an M3 nut.',
    wants: () => REACH_MM,
    has: gap,
  },
  {
    id: 'bend',
    name: 'Wire bends',
    why: 'A wire leaves its tab straight and needs 15 mm to turn; bent shorter it breaks at the solder.',
    source: 'Rule of thumb for stranded wire to 1.5 mm².',
    wants: () => BEND_MM,
    has: (a, b) => {
      const [panel, other] = onPanel(a) ? [a, b] : [b, a];
      return onPanel(panel) && other.spot.face === 'floor' ? runBehind(panel, other) : Infinity;
    },
  },
  {
    id: 'heat-to-can',
    name: 'Heat to electrolytics',
    why: 'Every 10 °C more halve the life of an electrolytic: 10 mm of air to what is hot.',
    source: 'Rule of thumb.',
    wants: (a, b) => (either(a, b, (h, c) => h.hot && c.can && !h.outside) ? HEAT_TO_CAN_MM : null),
    has: gap,
  },
  {
    id: 'above-fins',
    name: 'Nothing in the warm air',
    why: 'Air rises hot from the fins: what stands above them is heated, and chokes them.',
    source: 'Usual for natural convection: fins want 25 mm below and above.',
    wants: (a, b) => (either(a, b, (f) => f.fins && !f.outside) ? FIN_AIR_MM : null),
    has: (a, b) => {
      const [fins, other] = a.block.fins ? [a, b] : [b, a];
      if (planGap(fins.solid, other.solid) >= 0) return Infinity;
      return other.solid.z[0] >= mid(fins.solid.z)
        ? other.solid.z[0] - fins.solid.z[1]
        : fins.solid.z[0] - other.solid.z[1];
    },
  },
  {
    id: 'field',
    name: 'Stray field to an input',
    why: 'The transformer’s field falls with the cube of the distance; what an input’s loop picks up no regulator takes out.',
    source: 'Rule of thumb: about 1/r³ from 10 µT at 100 mm for 100 VA.',
    wants: (a, b, around) => fieldBetween(a, b, around)?.value ?? null,
    working: fieldBetween,
    has: gap,
  },
  {
    id: 'together',
    name: 'Mains parts together',
    why: 'Inlet, fuse and switch on one panel, side by side: mains wires stay short and in one corner.',
    source: 'Rule of thumb: middles within 120 mm.',
    atMost: true,
    wants: (a, b) => (a.carries === 'mains' && b.carries === 'mains' ? TOGETHER_MM : null),
    // From one panel to another along the wall between them, at least.
    has: (a, b) =>
      a.spot.face === 'floor' || b.spot.face === 'floor'
        ? Infinity
        : Math.hypot(a.spot.xMm - b.spot.xMm, a.spot.yMm - b.spot.yMm) +
          (a.spot.face === b.spot.face ? 0 : PANEL_TO_PANEL_MM),
  },
];

/** How far an input has to keep from iron, where one of two is that and the other the other. */
function fieldBetween(a: Block, b: Block, { ring, frequencyHz }: Surroundings): Figure | null {
  const [iron, input] = a.fieldVA !== null ? [a, b] : [b, a];
  return iron.fieldVA !== null && input.carries === 'input' ? fieldDistance(iron.fieldVA, ring, frequencyHz) : null;
}

/** Free run behind the tabs of a part in a panel, until what stands there begins, mm. */
function runBehind(panel: Standing, other: Standing): number {
  const { x, z, y } = panel.solid;
  const o = other.solid;
  if (o.x[0] >= x[1] || o.x[1] <= x[0] || o.z[0] >= z[1] || o.z[1] <= z[0]) return Infinity;
  return panel.spot.face === 'front' ? o.y[0] - y[1] : y[0] - o.y[1];
}

export const WALL_RULES: readonly WallRule[] = [
  {
    id: 'inside',
    name: 'Inside the box',
    why: 'It has to go between the walls and past their folded edges; a flange or a nut in a panel needs more.',
    source: 'Rule of thumb: 2 mm on the floor, 5 mm from a panel’s edge.',
    wants: (a) => (onPanel(a) ? FROM_EDGE_MM.panel : FROM_EDGE_MM.floor),
    has: ({ solid: { x, y, z }, spot }, { wMm, dMm, hMm }) => {
      const across = [x[0], wMm - x[1]];
      if (spot.face !== 'floor') across.push(z[0], hMm - z[1]);
      else across.push(y[0], dMm - y[1]);
      return Math.min(...across);
    },
  },
  {
    id: 'lid',
    name: 'Room to the lid',
    why: 'A lid bends, and a can needs its vent: 5 mm above everything; fins want 25 mm of air.',
    source: 'Usual: 5 mm above a can’s vent; 25 mm above fins.',
    wants: ({ block, spot }) => (spot.face === 'floor' ? overheadMm(block.fins) : null),
    has: ({ solid }, { hMm }) => hMm - solid.z[1],
  },
];
