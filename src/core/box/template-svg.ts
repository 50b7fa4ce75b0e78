import { escaped } from '@/core/quantity/escaped';
import type { Template } from './template';
import { templatePaper, templateStrokes, type Layer } from './template-strokes';

const COLOURS: Readonly<Record<Layer, string>> = { cut: '#000', mark: '#666', text: '#000' };
const mm = (v: number) => Number(v.toFixed(3));

/** A template as a drawing at its own size: its units are millimetres. */
export function templateSvg(template: Template): string {
  const { left, below, w, h } = templatePaper(template);
  const X = (x: number) => mm(left + x);
  const Y = (y: number) => mm(h - below - y);
  const body = templateStrokes(template).map((s) => {
    const colour = COLOURS[s.layer];
    if (s.kind === 'line')
      return `<line x1="${X(s.x1)}" y1="${Y(s.y1)}" x2="${X(s.x2)}" y2="${Y(s.y2)}" stroke="${colour}" class="${s.layer}"/>`;
    if (s.kind === 'circle')
      return `<circle cx="${X(s.x)}" cy="${Y(s.y)}" r="${mm(s.r)}" stroke="${colour}" class="${s.layer}"/>`;
    return `<text x="${X(s.x)}" y="${Y(s.y)}" font-size="${s.mm}" fill="#000" stroke="none"${s.middle ? ' text-anchor="middle"' : ''}>${escaped(s.text)}</text>`;
  });
  return `<svg xmlns="http://www.w3.org/2000/svg" width="${mm(w)}mm" height="${mm(h)}mm" viewBox="0 0 ${mm(w)} ${mm(h)}" fill="none" stroke-width="0.2" font-family="sans-serif"><title>${escaped(template.title)}</title>${body.join('')}</svg>\n`;
}
