import type { LoadRow } from '@/core/design/design';
import { formatNominal, formatQuantity as q } from '@/core/quantity/format';
import type { ComputedLine } from './load-line';

const WIDTH = 760;
const HEIGHT = 430;
const EDGE = { left: 62, right: 18, top: 40, bottom: 46 };
const INK = '#2b2621';
const VOLT = '#1b6a74';
const EMBER = '#b8430f';
const RULE = '#d5c9b5';

const escaped = (text: string) =>
  text.replace(/[&<>"]/g, (c) => ({ '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;' })[c]!);
const px = (value: number) => Number(value.toFixed(2));

/** Steps of one, two or five that divide a range into about so many. */
function ticks(low: number, high: number, about: number): number[] {
  const raw = (high - low) / about;
  const decade = 10 ** Math.floor(Math.log10(raw));
  const step = [1, 2, 5, 10].map((m) => m * decade).find((s) => s >= raw)!;
  const first = Math.ceil(low / step);
  return Array.from({ length: Math.floor(high / step) - first + 1 }, (_, n) => (first + n) * step);
}

/** A load line as a drawing for paper: the computed one with the band its tolerances leave, and what was read. */
export function lineSvg(name: string, computed: ComputedLine, rows: readonly LoadRow[]): string {
  const read = rows.flatMap((r) => (r.reservoirV === null ? [] : [{ x: r.loadA, y: r.reservoirV }]));
  const band = (sign: number) => computed.line.map((p) => ({ x: p.loadA, y: p.value + sign * 2 * p.sigma }));
  const [most, least] = [band(1), band(-1)];
  const all = [...most, ...least, ...read];
  const highA = Math.max(...all.map((p) => p.x), 1e-6);
  const [lowV, highV] = [Math.min(...all.map((p) => p.y)), Math.max(...all.map((p) => p.y))];
  const margin = 0.05 * Math.max(highV - lowV, 1e-3);
  const x = (a: number) => px(EDGE.left + (a / highA) * (WIDTH - EDGE.left - EDGE.right));
  const y = (v: number) =>
    px(HEIGHT - EDGE.bottom - ((v - lowV + margin) / (highV - lowV + 2 * margin)) * (HEIGHT - EDGE.top - EDGE.bottom));
  const path = (points: readonly { x: number; y: number }[]) =>
    points.map((p, n) => `${n === 0 ? 'M' : 'L'}${x(p.x)} ${y(p.y)}`).join('');
  const across = ticks(lowV - margin, highV + margin, 6).map(
    (v) =>
      `<path d="M${EDGE.left} ${y(v)}H${WIDTH - EDGE.right}" stroke="${RULE}"/><text x="${EDGE.left - 8}" y="${y(v) + 4}" text-anchor="end">${formatNominal(Number(v.toPrecision(6)), 'V')}</text>`,
  );
  const down = ticks(0, highA, 6).map(
    (a) =>
      `<path d="M${x(a)} ${EDGE.top}V${HEIGHT - EDGE.bottom}" stroke="${RULE}"/><text x="${x(a)}" y="${HEIGHT - EDGE.bottom + 18}" text-anchor="middle">${formatNominal(Number(a.toPrecision(6)), 'A')}</text>`,
  );
  return [
    `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 ${WIDTH} ${HEIGHT}" width="${WIDTH}" height="${HEIGHT}" font-family="sans-serif" font-size="13" fill="${INK}">`,
    `<title>${escaped(name)}: load line</title>`,
    `<rect width="${WIDTH}" height="${HEIGHT}" fill="#fff"/>`,
    `<text x="${EDGE.left}" y="24" font-size="16" font-weight="bold">${escaped(name)}: reservoir against load, at ${q(computed.mainsV, 'V')}</text>`,
    ...across,
    ...down,
    `<path d="${path(most)}${path([...least].reverse()).replace('M', 'L')}Z" fill="${VOLT}" fill-opacity="0.15"/>`,
    `<path d="${path(computed.line.map((p) => ({ x: p.loadA, y: p.value })))}" fill="none" stroke="${VOLT}" stroke-width="2.2"/>`,
    ...read.map((p) => `<circle cx="${x(p.x)}" cy="${y(p.y)}" r="4.5" fill="${EMBER}" stroke="${INK}"/>`),
    `<text x="${WIDTH - EDGE.right}" y="${HEIGHT - 8}" text-anchor="end" font-size="12">line: the design; band: what its tolerances leave; points: read</text>`,
    '</svg>',
    '',
  ].join('\n');
}
