import QRCode from 'qrcode';
import type { Design } from '@/core/design/design';
import { outputsOf } from '@/core/design/outputs';
import { dcSourceOf } from '@/core/design/source';
import { sourceWords } from '@/core/design/words';
import { escaped } from '@/core/quantity/escaped';
import { capitalised, formatNominal as n } from '@/core/quantity/format';
import { labelCode, type LabelCode } from './label-code';

/** Least and largest side of a label, mm; and what the usual roll gives. */
export const LABEL_MM = { min: 25, max: 200, width: 62, height: 29 } as const;

export interface LabelSize {
  wMm: number;
  hMm: number;
}

/** What stands on the box. */
export interface Label {
  name: string;
  lines: string[];
  /** In words, where volts on it can hurt; null where none can. */
  hazard: string | null;
  code: LabelCode;
}

/**
 * A design's label.
 * @param hazard what the design's own judgement says of dangerous volts
 * @param kept where it is on the shelf: its id and how often it was saved
 */
export function labelOf(
  design: Design,
  { hazard, day, kept }: { hazard: string | null; day: string; kept: { id: string; revision: number } | null },
): Label {
  const { mains, mainsSide } = design;
  const dc = dcSourceOf(design);
  const fuse = mainsSide.primaryFuseA;
  return {
    name: design.name,
    lines: [
      `In ${dc ? sourceWords(design) : `${n(mains.voltageRms, 'V')} ${n(mains.frequencyHz, 'Hz')}`}`,
      ...outputsOf(design).map(
        (o) =>
          `${o.id === 'main' ? 'Out' : capitalised(o.name)} ${n(o.demand.outputV, 'V')} DC, ${n(o.demand.outputA, 'A')}`,
      ),
      dc || design.transformer.sealed
        ? 'Fuse at its source'
        : fuse === null
          ? 'Fuse: not chosen'
          : `Fuse T ${n(fuse, 'A')}, 250 V`,
      `${day}${kept ? `, revision ${kept.revision}` : ''}`,
    ],
    hazard: hazard === null ? null : 'Dangerous volts inside',
    code: labelCode(design, kept?.id ?? null),
  };
}

const EDGE_MM = 1.5;
const NAME_MM = 3.4;
const LINE_MM = 2.5;
/** A letter is about so wide for its height: bold, and plain. */
const WIDE = { bold: 0.58, plain: 0.52 } as const;

/** Text of a label: where its line stands and how high its letters are, mm. */
export interface LabelText {
  text: string;
  xMm: number;
  /** Of the line the letters stand on. */
  yMm: number;
  letterMm: number;
  bold: boolean;
}

/** What a label is drawn from, mm. */
export interface LabelDrawing {
  texts: LabelText[];
  /** Filled in black. */
  filled: string[];
  /** Lines, and how thick, mm. */
  lines: { d: string; thickMm: number }[];
}

/** A label at its own size. Text that is too long for it is set smaller, never cut. */
export function labelDrawing(label: Label, { wMm, hMm }: LabelSize): LabelDrawing {
  const side = Math.min(hMm - 2 * EDGE_MM, wMm / 2);
  const room = wMm - side - 3 * EDGE_MM;
  const rows = label.lines.length + (label.hazard === null ? 0 : 1);
  const name = inLines(label.name, room);
  // All of it has to find room one below the other, whatever the label's height.
  const squeeze = Math.min(1, (hMm - 2 * EDGE_MM) / (1.2 * (NAME_MM * name.length + LINE_MM * rows)));
  const texts: LabelText[] = [];
  let yMm = EDGE_MM;
  const put = (text: string, mm: number, bold: boolean, xMm = EDGE_MM) => {
    const wide = (bold ? WIDE.bold : WIDE.plain) * Math.max(1, Array.from(text).length);
    yMm += squeeze * mm;
    texts.push({ text, xMm, yMm, letterMm: Math.min(squeeze * mm, (room - xMm + EDGE_MM) / wide), bold });
    yMm += 0.2 * squeeze * mm;
  };
  for (const part of name) put(part, NAME_MM, true);
  for (const line of label.lines) put(line, LINE_MM, false);
  const sign = label.hazard === null ? null : bolt(EDGE_MM, yMm, squeeze * LINE_MM);
  if (label.hazard !== null) put(label.hazard, LINE_MM, true, EDGE_MM + 1.4 * squeeze * LINE_MM);
  return {
    texts,
    filled: [codePath(label.code.text, wMm - EDGE_MM - side, (hMm - side) / 2, side), ...(sign ? [sign.bolt] : [])],
    lines: sign ? [{ d: sign.triangle, thickMm: sign.thickMm }] : [],
  };
}

/** The same as SVG. */
export function labelSvg(label: Label, { wMm, hMm }: LabelSize): string {
  const { texts, filled, lines } = labelDrawing(label, { wMm, hMm });
  return [
    `<svg xmlns="http://www.w3.org/2000/svg" width="${wMm}mm" height="${hMm}mm" viewBox="0 0 ${wMm} ${hMm}" font-family="Roboto, Arial, sans-serif">`,
    `<rect width="${wMm}" height="${hMm}" fill="white"/>`,
    ...texts.map(
      (t) =>
        `<text x="${short(t.xMm)}" y="${short(t.yMm)}" font-size="${short(t.letterMm)}"${t.bold ? ' font-weight="bold"' : ''}>${escaped(t.text)}</text>`,
    ),
    ...lines.map(({ d, thickMm }) => `<path d="${d}" fill="none" stroke="black" stroke-width="${short(thickMm)}"/>`),
    ...filled.map((d) => `<path d="${d}" shape-rendering="crispEdges"/>`),
    '</svg>',
  ].join('\n');
}

/** A name in one line, or in two where one would be smaller than what stands under it. */
function inLines(name: string, roomMm: number): string[] {
  if (Array.from(name).length * WIDE.bold * LINE_MM <= roomMm) return [name];
  const spaces = Array.from(name.matchAll(/ /g), ({ index }) => index);
  if (spaces.length === 0) return [name];
  const middle = spaces.reduce((best, at) =>
    Math.abs(at - name.length / 2) < Math.abs(best - name.length / 2) ? at : best,
  );
  return [name.slice(0, middle), name.slice(middle + 1)];
}

const short = (mm: number) => Math.round(1000 * mm) / 1000;

/** A triangle with a bolt in it, as on every door behind which volts can hurt. */
function bolt(x: number, y: number, size: number): { triangle: string; bolt: string; thickMm: number } {
  const path = (points: readonly (readonly [number, number])[]) =>
    `M${points.map(([dx, dy]) => `${short(x + dx * size)} ${short(y + dy * size)}`).join('L')}Z`;
  return {
    triangle: path([
      [0.6, 0.05],
      [1.18, 1.05],
      [0.02, 1.05],
    ]),
    bolt: path([
      [0.66, 0.32],
      [0.46, 0.7],
      [0.6, 0.7],
      [0.53, 0.98],
      [0.76, 0.6],
      [0.61, 0.6],
    ]),
    thickMm: 0.09 * size,
  };
}

/** The code as one path, its modules as squares; the white around it is the label's own edge. */
function codePath(text: string, x: number, y: number, side: number): string {
  const { modules } = QRCode.create(text, { errorCorrectionLevel: 'M' });
  const module = side / (modules.size + 2);
  let d = '';
  for (let row = 0; row < modules.size; row++) {
    for (let from = 0; from < modules.size; from++) {
      if (!modules.get(row, from)) continue;
      let to = from + 1;
      while (to < modules.size && modules.get(row, to)) to++;
      d += `M${short(x + (from + 1) * module)} ${short(y + (row + 1) * module)}h${short((to - from) * module)}v${short(module)}h${short((from - to) * module)}z`;
      from = to;
    }
  }
  return d;
}
