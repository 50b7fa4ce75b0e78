import vectorText from '@jscad/modeling/src/text/vectorText.js';

type Point = readonly [x: number, y: number];

/** Letters a plotter's font has; what it has not is a question. */
const plottable = (text: string) =>
  text
    .replace(/−/g, '-')
    .replace(/Ω/g, 'ohm')
    .replace(/µ/g, 'u')
    .replace(/×/g, 'x')
    .replace(/[^\u0020-\u007e]/g, '?');

/** The font's capitals are so many times its nominal height. */
const CAPITAL = 1.5;

/** A word as straight strokes around its middle, mm, downwards; capitals so many mm high. */
export function boardText(text: string, { x, y, mm }: { x: number; y: number; mm: number }): [Point, Point][] {
  const lines = vectorText({ height: mm / CAPITAL }, plottable(text));
  const width = Math.max(0, ...lines.flat().map(([px]) => px));
  return lines.flatMap((points) =>
    points.slice(1).map((to, n): [Point, Point] => {
      const from = points[n]!;
      const at = ([px, py]: readonly number[]): Point => [x - width / 2 + px!, y + mm / 2 - py!];
      return [at(from), at(to)];
    }),
  );
}
