import { MINI_SIZE, miniTerrace, type Ink, type Stroke } from './mini-terrace';
import type { Summary } from './summary';

/** Inks on white paper. What falls short is a firm red instead of a hatching: not every reader of SVG knows patterns. */
const PAPER: Readonly<Record<Ink, string>> = {
  volt: '#1b6a74',
  'volt-soft': '#d9e6e5',
  ember: '#b8430f',
  older: '#2b2621',
  edge: '#8d8171',
  shortfall: '#d9685f',
};

/** A design's terrace as an SVG file of its own, for paper. */
export function terraceSvg(summary: Summary, older: Summary | null = null): string {
  const { width, height } = MINI_SIZE;
  return [
    `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 ${width} ${height}" width="${width}" height="${height}">`,
    ...miniTerrace(summary, older)
      .filter(({ d }) => d !== '')
      .map(pathSvg),
    '</svg>',
  ].join('\n');
}

function pathSvg({ d, stroke, fill, width, dash, opacity }: Stroke): string {
  const said = Object.entries({
    stroke: stroke ? PAPER[stroke] : undefined,
    fill: fill ? PAPER[fill] : 'none',
    'stroke-width': width,
    'stroke-dasharray': dash,
    'stroke-linejoin': stroke && 'round',
    opacity,
  }).filter(([, value]) => value !== undefined);
  return `<path d="${d}"${said.map(([name, value]) => ` ${name}="${value}"`).join('')}/>`;
}
