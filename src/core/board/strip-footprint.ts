import { canOf } from '@/core/build/off-board';
import { pinoutOf } from '@/core/build/pinouts';
import type { NetPart } from '@/core/netlist/netlist';

/** A leg: so many strips below the first and so many holes to the right of it, and the net it is on. */
export interface Leg {
  name: string;
  net: string;
  strip: number;
  hole: number;
}

/** A way a part can lie over the strips: its legs across them, and what its body covers, in holes. */
export interface Lying {
  legs: readonly Leg[];
  body: { strips: readonly [number, number]; holes: readonly [number, number] };
}

/** Holes are so far apart, mm. */
export const PITCH_MM = 2.54;

/** Spans of a lying resistor or diode, holes: 10 mm as bent by most, then closer and wider. */
const AXIAL_SPANS = [4, 3, 5, 6, 7, 8, 10, 12] as const;
/** A diode of 3 A and more is 10 mm long itself, twice as thick, and cannot be bent as close. */
const FAT_SPANS = [6, 7, 8, 10, 12] as const;
const FUSE_SPAN = 9;
const FAT_DIODE = /^(1N54|1N58[2-9]|Schottky$)/;

/** Whether a diode is of 3 A and more. */
export const isFat = ({ kind, value }: NetPart): boolean => kind === 'diode' && FAT_DIODE.test(value);

/** Every way a part can lie: its legs over different strips, either way round where that is another way. */
export function lyings(part: NetPart): Lying[] {
  const { kind } = part;
  if (part.pins.length === 1) return [legsApart(part, 0, 0, 0)];
  if (kind === 'fuse') return bothWays(legsApart(part, FUSE_SPAN, 1, 1));
  if (kind === 'electrolytic' || kind === 'capacitor') {
    const diameterMm = canOf(part)?.diameterMm ?? 6;
    const span = diameterMm > 10 ? 3 : diameterMm > 6.5 || kind === 'capacitor' ? 2 : 1;
    const reach = kind === 'capacitor' ? 0 : Math.ceil(diameterMm / 2 / PITCH_MM - 0.5);
    return bothWays(roundOver(part, span, reach, kind === 'capacitor' ? 0 : Math.max(0, reach - Math.floor(span / 2))));
  }
  if (part.pins.length === 2) {
    const fat = isFat(part);
    return (fat ? FAT_SPANS : AXIAL_SPANS).flatMap((span) => bothWays(lyingFlat(part, span, fat ? 1 : 0)));
  }
  // In a row: chips, transistors, bridges, trimmers, headers. Wide packages have their legs two holes apart.
  const pitch = /^(TO-247|TO-3)$/.test(pinoutOf(part)?.housing ?? '') || kind === 'bridge' ? 2 : 1;
  const depth = kind === 'control' ? 4 : kind === 'bridge' || kind === 'pot' ? 2 : 1;
  return bothWays(inRow(part, pitch, depth));
}

const netsOf = (part: NetPart) => new Map(part.pins.map((p) => [p.name, p.net]));

/** Two legs so many strips apart, the body between them. */
function legsApart(part: NetPart, span: number, left: number, right: number): Lying {
  return {
    legs: part.pins.map(({ name, net }, n) => ({ name, net, strip: n * span, hole: 0 })),
    body: { strips: [0, span], holes: [-left, right] },
  };
}

/** Lying flat between its legs: beside the legs themselves holes stay free. */
function lyingFlat(part: NetPart, span: number, wide: number): Lying {
  return { ...legsApart(part, span, 0, 0), body: { strips: [1, span - 1], holes: [-wide, 1] } };
}

/** A can over its legs. */
function roundOver(part: NetPart, span: number, reach: number, beyond: number): Lying {
  return { ...legsApart(part, span, reach, reach), body: { strips: [-beyond, span + beyond], holes: [-reach, reach] } };
}

/** Legs one after the other in the order they have on the part. */
function inRow(part: NetPart, pitch: number, depth: number): Lying {
  const nets = netsOf(part);
  const told = pinoutOf(part)?.legs.filter((l) => nets.has(l)) ?? [];
  const names = [...told, ...part.pins.map((p) => p.name).filter((n) => !told.includes(n))];
  return {
    legs: names.map((name, n) => ({ name, net: nets.get(name)!, strip: n * pitch, hole: 0 })),
    body: { strips: [pitch === 1 ? -1 : 0, (names.length - 1) * pitch + (pitch === 1 ? 1 : 0)], holes: [0, depth] },
  };
}

/** The same turned by half. */
function bothWays(lying: Lying): Lying[] {
  const last = Math.max(...lying.legs.map((l) => l.strip));
  const [top, bottom] = lying.body.strips;
  const [left, right] = lying.body.holes;
  return [
    lying,
    {
      legs: lying.legs.map((l) => ({ ...l, strip: last - l.strip, hole: -l.hole })),
      body: { strips: [last - bottom, last - top], holes: [-right, -left] },
    },
  ];
}
