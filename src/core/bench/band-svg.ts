import { escaped } from '@/core/quantity/escaped';
import { niceStep } from '@/core/quantity/nice-step';

const WIDTH = 760;
const HEIGHT = 430;
const EDGE = { left: 62, right: 18, top: 40, bottom: 46 };
const INK = '#2b2621';
const VOLT = '#1b6a74';
const EMBER = '#b8430f';
const RULE = '#d5c9b5';

const px = (value: number) => Number(value.toFixed(2));

/** Steps of one, two or five that divide a range into about so many. */
function ticks(low: number, high: number, about: number): number[] {
  const step = niceStep((high - low) / about);
  const first = Math.ceil(low / step);
  return Array.from({ length: Math.floor(high / step) - first + 1 }, (_, n) => (first + n) * step);
}

/** What a chart of a computed course, its band and the readings over it is drawn from. */
export interface BandDrawing {
  /** What the file is called inside. */
  title: string;
  /** Stands above it. */
  heading: string;
  /** What line, band and points are. */
  note: string;
  line: readonly { x: number; y: number; sigma: number }[];
  read: readonly { x: number; y: number }[];
  /** A number on either axis as it is printed. */
  xWords(x: number): string;
  yWords(y: number): string;
}

/** A course with the band its spread leaves, twice to either side, and what was read, as a drawing for paper. */
export function bandSvg({ title, heading, note, line, read, xWords, yWords }: BandDrawing): string {
  const band = (sign: number) => line.map((p) => ({ x: p.x, y: p.y + sign * 2 * p.sigma }));
  const [most, least] = [band(1), band(-1)];
  const all = [...most, ...least, ...read];
  const farX = Math.max(...all.map((p) => p.x), 1e-6);
  const [lowY, highY] = [Math.min(...all.map((p) => p.y)), Math.max(...all.map((p) => p.y))];
  const margin = 0.05 * Math.max(highY - lowY, 1e-3);
  const x = (a: number) => px(EDGE.left + (a / farX) * (WIDTH - EDGE.left - EDGE.right));
  const y = (v: number) =>
    px(HEIGHT - EDGE.bottom - ((v - lowY + margin) / (highY - lowY + 2 * margin)) * (HEIGHT - EDGE.top - EDGE.bottom));
  const path = (points: readonly { x: number; y: number }[]) =>
    points.map((p, n) => `${n === 0 ? 'M' : 'L'}${x(p.x)} ${y(p.y)}`).join('');
  const across = ticks(lowY - margin, highY + margin, 6).map(
    (v) =>
      `<path d="M${EDGE.left} ${y(v)}H${WIDTH - EDGE.right}" stroke="${RULE}"/><text x="${EDGE.left - 8}" y="${y(v) + 4}" text-anchor="end">${yWords(Number(v.toPrecision(6)))}</text>`,
  );
  const down = ticks(0, farX, 6).map(
    (a) =>
      `<path d="M${x(a)} ${EDGE.top}V${HEIGHT - EDGE.bottom}" stroke="${RULE}"/><text x="${x(a)}" y="${HEIGHT - EDGE.bottom + 18}" text-anchor="middle">${xWords(Number(a.toPrecision(6)))}</text>`,
  );
  return [
    `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 ${WIDTH} ${HEIGHT}" width="${WIDTH}" height="${HEIGHT}" font-family="sans-serif" font-size="13" fill="${INK}">`,
    `<title>${escaped(title)}</title>`,
    `<rect width="${WIDTH}" height="${HEIGHT}" fill="#fff"/>`,
    `<text x="${EDGE.left}" y="24" font-size="16" font-weight="bold">${escaped(heading)}</text>`,
    ...across,
    ...down,
    `<path d="${path(most)}${path([...least].reverse()).replace('M', 'L')}Z" fill="${VOLT}" fill-opacity="0.15"/>`,
    `<path d="${path(line)}" fill="none" stroke="${VOLT}" stroke-width="2.2"/>`,
    ...read.map((p) => `<circle cx="${x(p.x)}" cy="${y(p.y)}" r="4.5" fill="${EMBER}" stroke="${INK}"/>`),
    `<text x="${WIDTH - EDGE.right}" y="${HEIGHT - 8}" text-anchor="end" font-size="12">${escaped(note)}</text>`,
    '</svg>',
    '',
  ].join('\n');
}
