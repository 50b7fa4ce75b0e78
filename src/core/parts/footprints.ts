/** What a part takes up, mm: width from left to right and depth away from its panel or towards the rear, height up. */
export interface Size {
  wMm: number;
  dMm: number;
  hMm: number;
}

/** A hole in a panel: drilled, or sawn and filed. */
export type Hole =
  | { shape: 'round'; diameterMm: number; screws: Screws | null }
  | { shape: 'slot'; wMm: number; hMm: number; screws: Screws | null };

/** Screws beside a hole: one left and one right of it, or one at each corner of a square; so far apart, mm. */
export interface Screws {
  at: 'sides' | 'corners';
  apartMm: number;
  diameterMm: number;
}

/** Iron by its volt-amperes: laminated by width and depth, a ring by its diameter; typical. */
const LAMINATED: readonly (readonly [va: number, w: number, d: number, h: number])[] = [
  [6, 42, 36, 36],
  [20, 54, 48, 48],
  [50, 78, 60, 65],
  [100, 84, 75, 74],
  [160, 96, 80, 85],
  [225, 108, 85, 95],
  [300, 120, 92, 105],
];
const RINGS: readonly (readonly [va: number, diameter: number, h: number])[] = [
  [15, 60, 36],
  [30, 70, 40],
  [50, 80, 42],
  [80, 95, 42],
  [120, 95, 53],
  [160, 107, 53],
  [225, 115, 57],
  [300, 120, 65],
  [500, 140, 70],
];

/** A transformer's size: the next one sold that bears as much; above the largest, grown with the cube root of its VA. */
export function transformerSize(ratedVA: number, core: 'laminated' | 'ring'): Size {
  const rows = core === 'ring' ? RINGS.map(([va, d, h]) => [va, d, d, h] as const) : LAMINATED;
  const [va, w, d, h] = rows.find((r) => r[0] >= ratedVA) ?? rows.at(-1)!;
  const grown = Math.max(1, Math.cbrt(ratedVA / va));
  return { wMm: Math.ceil(grown * w), dMm: Math.ceil(grown * d), hMm: Math.ceil(grown * h) };
}

/** Electrolytics by what they hold: capacitance F, volts, diameter and height mm; typical. */
const CANS: readonly (readonly [farad: number, volts: number, diameter: number, h: number])[] = [
  [100e-6, 25, 6.3, 11],
  [470e-6, 25, 10, 13],
  [1000e-6, 25, 10, 20],
  [2200e-6, 25, 13, 25],
  [4700e-6, 25, 16, 32],
  [4700e-6, 35, 18, 36],
  [6800e-6, 50, 25, 40],
  [10000e-6, 63, 35, 50],
  [22000e-6, 50, 35, 55],
];
/** What an electrolytic's size goes by, F·V. */
const charge = (farad: number, volts: number) => farad * volts;

/** A can's diameter and height, mm: the next one sold that holds its farads times its volts; above the largest, grown with their cube root. */
export function canSize(farad: number, volts: number): { diameterMm: number; hMm: number } {
  const cv = charge(farad, volts);
  const rows = [...CANS].sort((a, b) => charge(a[0], a[1]) - charge(b[0], b[1]));
  const row = rows.find((r) => charge(r[0], r[1]) >= cv * 0.999) ?? rows.at(-1)!;
  const grown = Math.max(1, Math.cbrt(cv / charge(row[0], row[1])));
  return { diameterMm: Math.ceil(grown * row[2] * 10) / 10, hMm: Math.ceil(grown * row[3]) };
}

/** Fins by still air take about so much room for each watt a kelvin, cm3·K/W. Rule of thumb. */
const SINK_CM3_K_PER_W = 550;
/** Fins are no shallower than this, mm. */
const LEAST_SINK_MM = 8;

/** A sink by its thermal resistance: room by rule of thumb, in the shape extruded ones have: wide, flat, fins upright. */
export function sinkSize(kPerW: number, heightMm: number | null = null): Size {
  const mm3 = (1000 * SINK_CM3_K_PER_W) / kPerW;
  // 2 : 0.6 : 1, width to depth to height.
  const unit = Math.cbrt(mm3 / 1.2);
  if (heightMm !== null) {
    const deep = Math.max(LEAST_SINK_MM, Math.sqrt((0.3 * mm3) / heightMm));
    return { wMm: Math.ceil(mm3 / (deep * heightMm)), dMm: Math.ceil(deep), hMm: heightMm };
  }
  return { wMm: Math.ceil(2 * unit), dMm: Math.max(LEAST_SINK_MM, Math.ceil(0.6 * unit)), hMm: Math.ceil(unit) };
}

/** Energy a choke holds at its rated current per volt-ampere of a transformer of its size, J. Rule of thumb: a gapped core of 50 VA holds 0.35 J. */
const CHOKE_J_PER_VA = 7e-3;

/** A choke by the energy it holds at its rated current: a laminated core that could hold it. Rule of thumb. */
export const chokeSize = (inductanceH: number, ratedA: number): Size =>
  transformerSize((0.5 * inductanceH * ratedA * ratedA) / CHOKE_J_PER_VA, 'laminated');

/** A part of a panel: its hole, its face outside, and the room it takes behind with its tabs, mm; typical. */
export interface PanelPart {
  hole: Hole;
  /** What it covers of the panel, flange and nut included, mm. */
  face: { wMm: number; hMm: number };
  behindMm: number;
}

const round = (diameterMm: number, faceMm: number, behindMm: number, screws: Screws | null = null): PanelPart => ({
  hole: { shape: 'round', diameterMm, screws },
  face: { wMm: faceMm, hMm: faceMm },
  behindMm,
});
const slot = (
  wMm: number,
  hMm: number,
  face: { wMm: number; hMm: number },
  behindMm: number,
  screws: Screws | null = null,
): PanelPart => ({ hole: { shape: 'slot', wMm, hMm, screws }, face, behindMm });

export const PANEL_PARTS = {
  inlet: slot(27, 20, { wMm: 50, hMm: 24 }, 40, { at: 'sides', apartMm: 40, diameterMm: 3.5 }),
  'switch, one pole': slot(19.2, 13, { wMm: 21, hMm: 15 }, 30),
  'switch, two poles': slot(28, 22, { wMm: 31, hMm: 25 }, 40),
  'fuse holder': round(12.7, 16, 50),
  post: round(8, 14, 25),
  pot: round(7.2, 20, 20),
  lamp: round(8, 11, 15),
  jack: round(8, 14, 20),
  /** Of 60 mm. */
  fan: round(57, 60, 25, { at: 'corners', apartMm: 50, diameterMm: 4.3 }),
} as const satisfies Record<string, PanelPart>;

/** Between the two of a pair of posts, mm. */
export const POSTS_APART_MM = 19;
