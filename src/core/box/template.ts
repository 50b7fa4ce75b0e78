import { CHECK_LINE_MM } from '@/core/build/paper';
import type { BoxFace } from '@/core/design/design';
import type { Screws } from '@/core/parts/footprints';
import type { Inside, PlacedBlock } from './block';

/** A line, circle or text of a template, mm from the lower left corner of the face as it is looked at. */
export type TemplateItem =
  | { kind: 'hole'; xMm: number; yMm: number; diameterMm: number; of: string }
  | { kind: 'slot'; xMm: number; yMm: number; wMm: number; hMm: number; of: string }
  | { kind: 'outline'; xMm: number; yMm: number; wMm: number; hMm: number; of: string }
  | { kind: 'ring'; xMm: number; yMm: number; diameterMm: number; of: string }
  | { kind: 'text'; xMm: number; yMm: number; heightMm: number; text: string; of: string };

/** One face of the box at its own size, for drilling or for reading. */
export interface Template {
  face: BoxFace;
  /** From which side it is looked at: the marks go where the drill begins. */
  seenFrom: 'outside' | 'inside';
  wMm: number;
  hMm: number;
  items: readonly TemplateItem[];
  /** What has to be known before the first hole. */
  notes: readonly string[];
  title: string;
}

const FOOT = { diameterMm: 3.2, insetMm: 15 };
const TEXT_MM = 2.5;
const LABEL_MM = 3.2;

/**
 * A face with its holes.
 * @param seenFrom a rear panel seen from outside, or a front one from inside, is mirrored
 */
export function drillTemplate(
  placed: readonly PlacedBlock[],
  inside: Inside,
  face: BoxFace,
  seenFrom: Template['seenFrom'],
  name: string,
): Template {
  const floor = face === 'floor';
  const items: TemplateItem[] = placed
    .filter((p) => p.spot.face === face)
    .flatMap((p) => (floor ? floorItems(p) : panelItems(p)));
  if (floor)
    for (const xMm of [FOOT.insetMm, inside.wMm - FOOT.insetMm])
      for (const yMm of [FOOT.insetMm, inside.dMm - FOOT.insetMm])
        items.push({ kind: 'hole', xMm, yMm, diameterMm: FOOT.diameterMm, of: 'foot' });
  return finished(items, inside, face, seenFrom, `${name}: ${face}, drilled`, [
    `Seen from ${seenFrom}. Check the ${CHECK_LINE_MM} mm line before the first hole.`,
    'Pilot 2 mm first. Sizes are typical unless you measured them: lay the part in hand on the print.',
  ]);
}

/** From which side each face is drilled. */
const DRILLED = [
  ['front', 'outside'],
  ['rear', 'outside'],
  ['floor', 'inside'],
] as const;

/** All faces of a box with their holes, each from the side it is drilled from. */
export const drillTemplates = (
  { placed, inside }: { placed: readonly PlacedBlock[]; inside: Inside },
  name: string,
): Template[] => DRILLED.map(([face, from]) => drillTemplate(placed, inside, face, from, name));

/** What is written on a face, as it is read from outside. */
export function labelTemplate(
  placed: readonly PlacedBlock[],
  inside: Inside,
  face: Exclude<BoxFace, 'floor'>,
  name: string,
): Template {
  const items = placed
    .filter((p) => p.spot.face === face && p.block.hole !== null)
    .flatMap(({ block, spot }): TemplateItem[] =>
      holeMiddles({ block, spot }).map((at, n) => ({
        kind: 'text',
        ...at,
        yMm: at.yMm + (spot.turned ? block.size.wMm : block.size.hMm) / 2 + 2.5,
        heightMm: LABEL_MM,
        text: block.labels[n] ?? block.label,
        of: block.id,
      })),
    );
  return finished(items, inside, face, 'outside', `${name}: ${face}, labels`, [
    `Check the ${CHECK_LINE_MM} mm line: it has to be as long as it says.`,
  ]);
}

function finished(
  items: readonly TemplateItem[],
  { wMm, dMm, hMm }: Inside,
  face: BoxFace,
  seenFrom: Template['seenFrom'],
  title: string,
  notes: readonly string[],
): Template {
  // The front from outside, the rear from inside and the floor from above are as the places are counted.
  const mirrored = (face === 'front') === (seenFrom === 'inside');
  const at = (item: TemplateItem): TemplateItem =>
    mirrored ? { ...item, xMm: wMm - item.xMm - ('wMm' in item ? item.wMm : 0) } : item;
  return { face, seenFrom, wMm, hMm: face === 'floor' ? dMm : hMm, items: items.map(at), notes, title };
}

/** Middles of a panel part's holes, one beside the other. */
function holeMiddles({ block, spot }: Pick<PlacedBlock, 'block' | 'spot'>): { xMm: number; yMm: number }[] {
  const { count, apartMm } = block.holes;
  return Array.from({ length: count }, (_, n) => {
    const off = (n - (count - 1) / 2) * apartMm;
    return spot.turned ? { xMm: spot.xMm, yMm: spot.yMm + off } : { xMm: spot.xMm + off, yMm: spot.yMm };
  });
}

function panelItems(p: PlacedBlock): TemplateItem[] {
  const { block, spot } = p;
  const { hole } = block;
  if (!hole) return [outlineOf(p, block.size.wMm, block.size.hMm), ...screwsOf(p, block.size.wMm, block.size.hMm)];
  return holeMiddles(p).flatMap((at): TemplateItem[] => {
    const screws = screwsBeside(hole.screws).map(({ x, y }): TemplateItem => ({
      kind: 'hole',
      xMm: at.xMm + (spot.turned ? y : x),
      yMm: at.yMm + (spot.turned ? x : y),
      diameterMm: hole.screws!.diameterMm,
      of: block.label,
    }));
    if (hole.shape === 'round')
      return [
        { kind: 'hole', ...at, diameterMm: hole.diameterMm, of: block.label },
        ...screws,
        textAt(at.xMm, at.yMm - hole.diameterMm / 2 - 4, `${block.label}  ⌀${hole.diameterMm}`, block.label),
      ];
    const [wMm, hMm] = spot.turned ? [hole.hMm, hole.wMm] : [hole.wMm, hole.hMm];
    return [
      { kind: 'slot', xMm: at.xMm - wMm / 2, yMm: at.yMm - hMm / 2, wMm, hMm, of: block.label },
      ...screws,
      textAt(at.xMm, at.yMm - hMm / 2 - 4, `${block.label}  ${wMm} × ${hMm}, filed`, block.label),
    ];
  });
}

/** Where the screws of a hole are, from its middle, mm. */
function screwsBeside(screws: Screws | null): { x: number; y: number }[] {
  if (!screws) return [];
  const ends = [-screws.apartMm / 2, screws.apartMm / 2];
  return screws.at === 'sides' ? ends.map((x) => ({ x, y: 0 })) : ends.flatMap((x) => ends.map((y) => ({ x, y })));
}

function floorItems(p: PlacedBlock): TemplateItem[] {
  const { block, spot } = p;
  const [w, d] = spot.turned ? [block.size.dMm, block.size.wMm] : [block.size.wMm, block.size.dMm];
  return [
    block.round ? { kind: 'ring', xMm: spot.xMm, yMm: spot.yMm, diameterMm: w, of: block.label } : outlineOf(p, w, d),
    ...screwsOf(p, w, d),
    textAt(spot.xMm, spot.yMm + 3, `${block.label}${drilled(block)}`, block.label),
  ];
}

/** How a part of the floor is drilled, in words. */
const drilled = ({ screws: { count, diameterMm } }: PlacedBlock['block']) =>
  count === 0 ? '' : `  ${count} × ⌀${diameterMm}`;

function outlineOf({ block, spot }: PlacedBlock, w: number, h: number): TemplateItem {
  return { kind: 'outline', xMm: spot.xMm - w / 2, yMm: spot.yMm - h / 2, wMm: w, hMm: h, of: block.label };
}

function screwsOf({ block, spot }: PlacedBlock, w: number, d: number): TemplateItem[] {
  const { count, diameterMm, insetMm } = block.screws;
  const [x, y] = [w / 2 - insetMm, d / 2 - insetMm];
  const spots =
    count === 0
      ? []
      : count === 1
        ? [[0, 0]]
        : count === 2
          ? w >= d
            ? [
                [-x, 0],
                [x, 0],
              ]
            : [
                [0, -y],
                [0, y],
              ]
          : [
              [-x, -y],
              [x, -y],
              [x, y],
              [-x, y],
            ];
  return spots.map(([dx, dy]) => ({
    kind: 'hole',
    xMm: spot.xMm + dx!,
    yMm: spot.yMm + dy!,
    diameterMm,
    of: block.label,
  }));
}

const textAt = (xMm: number, yMm: number, text: string, of: string): TemplateItem => ({
  kind: 'text',
  xMm,
  yMm,
  heightMm: TEXT_MM,
  text,
  of,
});
