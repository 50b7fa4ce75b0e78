import type { EtchedBoard } from './etched';
import { boardLayer, drilled, layersOf, type LayerName } from './board-layers';
import type { BoardShape } from './board-shape';

/** A file of a board for those who make it. */
export interface BoardFile {
  /** What it is called after the design's name. */
  suffix: string;
  text: string;
}

/** What each layer is in the words of the format. */
const FUNCTIONS: Readonly<Record<LayerName, { suffix: string; means: (sides: 1 | 2) => string; negative?: true }>> = {
  'copper under': { suffix: 'copper-under.gbr', means: (sides) => `Copper,L${sides},Bot` },
  'copper above': { suffix: 'copper-above.gbr', means: () => 'Copper,L1,Top' },
  'mask under': { suffix: 'mask-under.gbr', means: () => 'Soldermask,Bot', negative: true },
  'mask above': { suffix: 'mask-above.gbr', means: () => 'Soldermask,Top', negative: true },
  silk: { suffix: 'silk.gbr', means: () => 'Legend,Top' },
  outline: { suffix: 'outline.gbr', means: () => 'Profile,NP' },
};

/** Coordinates: six places of a millimetre. */
const PLACES = 1e6;

/** All layers as Gerber X2 and all holes as drill files: what a board house asks for. Seen from above, y upwards. */
export function gerberFiles(board: EtchedBoard, volts: ReadonlyMap<string, string>): BoardFile[] {
  return [
    ...layersOf(board).map((layer) => ({
      suffix: FUNCTIONS[layer].suffix,
      text: gerber(boardLayer(board, layer, volts), board, layer),
    })),
    ...drillFiles(board),
  ];
}

/** Names as the format bears them: what separates its fields, and letters beyond the plain ones, by their number. */
const word = (text: string) =>
  text.replace(/[^\u0020-\u007e]|[,*%\\]/g, (c) => `\\u${c.charCodeAt(0).toString(16).toUpperCase().padStart(4, '0')}`);

function gerber(shapes: readonly BoardShape[], { hMm, sides }: EtchedBoard, layer: LayerName): string {
  const { means, negative } = FUNCTIONS[layer];
  const apertures = new Map<string, number>();
  const aperture = (mm: number) => {
    const key = mm.toFixed(3);
    const known = apertures.get(key);
    if (known !== undefined) return known;
    const next = 10 + apertures.size;
    apertures.set(key, next);
    return next;
  };
  const X = (mm: number) => `X${Math.round(mm * PLACES)}`;
  const Y = (mm: number) => `Y${Math.round((hMm - mm) * PLACES)}`;
  const body: string[] = [];
  let [now, net, pin] = [-1, '', ''];
  const object = (shape: BoardShape) => {
    const nextNet = shape.net === null ? '' : `%TO.N,${word(shape.net)}*%`;
    const leg = shape.kind === 'flash' ? shape.pin : null;
    const nextPin = leg ? `%TO.P,${word(leg.ref)},${word(leg.name)}*%` : '';
    if ((net !== '' && nextNet === '') || (pin !== '' && nextPin === '')) {
      body.push('%TD*%');
      [net, pin] = ['', ''];
    }
    if (nextNet !== net) body.push(nextNet);
    if (nextPin !== pin) body.push(nextPin);
    [net, pin] = [nextNet, nextPin];
  };
  for (const shape of shapes) {
    const tool = aperture(shape.kind === 'flash' ? shape.d : shape.w);
    if (layer.startsWith('copper')) object(shape);
    if (tool !== now) body.push(`D${tool}*`);
    now = tool;
    if (shape.kind === 'flash') body.push(`${X(shape.x)}${Y(shape.y)}D03*`);
    else body.push(`${X(shape.x1)}${Y(shape.y1)}D02*`, `${X(shape.x2)}${Y(shape.y2)}D01*`);
  }
  return [
    `%TF.FileFunction,${means(sides)}*%`,
    `%TF.FilePolarity,${negative ? 'Negative' : 'Positive'}*%`,
    '%TF.SameCoordinates*%',
    '%FSLAX46Y46*%',
    '%MOMM*%',
    '%LPD*%',
    ...[...apertures].map(([mm, code]) => `%ADD${code}C,${mm}*%`),
    'G01*',
    ...body,
    'M02*',
    '',
  ].join('\n');
}

/** Holes: of two sides those through copper plated, screws never; of one side none. */
function drillFiles(board: EtchedBoard): BoardFile[] {
  const all = drilled(board);
  if (board.sides === 1) return [drill(all, board, false, 'drill.drl')];
  return [
    drill(
      all.filter((h) => !h.screw),
      board,
      true,
      'drill-plated.drl',
    ),
    drill(
      all.filter((h) => h.screw),
      board,
      false,
      'drill-bare.drl',
    ),
  ];
}

function drill(
  holes: ReturnType<typeof drilled>,
  { hMm, sides }: EtchedBoard,
  plated: boolean,
  suffix: string,
): BoardFile {
  const sizes = [...new Set(holes.map((h) => h.d))].sort((a, b) => a - b);
  const text = [
    'M48',
    `; #@! TF.FileFunction,${plated ? 'Plated' : 'NonPlated'},1,${sides},${plated ? 'PTH' : 'NPTH'}`,
    'FMAT,2',
    'METRIC,TZ',
    ...sizes.map((d, n) => `T${n + 1}C${d.toFixed(3)}`),
    '%',
    'G90',
    'G05',
    ...sizes.flatMap((d, n) => [
      `T${n + 1}`,
      ...holes.filter((h) => h.d === d).map((h) => `X${h.x.toFixed(3)}Y${(hMm - h.y).toFixed(3)}`),
    ]),
    'M30',
    '',
  ].join('\n');
  return { suffix, text };
}
