import { escaped } from '@/core/quantity/escaped';
import { LINE_PX, type CircuitDrawing } from './drawing';
import { strokesOf, type Convention } from './strokes';

/** A drawing of a circuit as a file of its own, in black. */
export function circuitSvg(drawing: CircuitDrawing, convention: Convention, title: string): string {
  const { width, height, symbols, wires, dots, hops, labels } = drawing;
  const line = (d: string, more = '') => `<path d="${d}"${more}/>`;
  const parts = [
    `<g fill="none" stroke="#000" stroke-width="1.3" stroke-linecap="round" stroke-linejoin="round">`,
    ...wires.map(({ from, to }) => line(`M${from.x} ${from.y}L${to.x} ${to.y}`)),
    ...hops.map(
      ({ x, y }) => `${line(`M${x} ${y - 5}V${y + 5}`, ' stroke="#fff" stroke-width="3"')}${line(hopPath(x, y))}`,
    ),
    ...symbols.map(
      (s) =>
        `<g transform="translate(${s.x} ${s.y}) rotate(${90 * s.turn}) scale(1 ${flipped(s) ? -1 : 1})">${strokesOf(
          local(s),
          convention,
        )
          .map((stroke) =>
            line(
              stroke.d,
              `${stroke.solid ? ' fill="#000"' : ' fill="#fff"'}${stroke.dashed ? ' stroke-dasharray="3 3"' : ''}`,
            ),
          )
          .join('')}</g>`,
    ),
    '</g>',
    `<g fill="#000">${dots.map(({ x, y }) => `<circle cx="${x}" cy="${y}" r="2.6"/>`).join('')}</g>`,
    `<g font-family="'Source Sans 3 Variable', 'Source Sans 3', sans-serif" font-size="12.5" fill="#000">`,
    ...labels.map((l) =>
      l.lines
        .map((text, n) => {
          const x = l.align === 'start' ? l.x : l.align === 'end' ? l.x + l.width : l.x + l.width / 2;
          return `<text x="${x}" y="${l.y + LINE_PX * n + 11}" text-anchor="${l.align}"${n === 0 ? ' font-weight="600"' : ''}>${escaped(text)}</text>`;
        })
        .join(''),
    ),
    '</g>',
  ];
  return `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 ${width} ${height}" width="${width}" height="${height}"><title>${escaped(title)}</title><rect width="${width}" height="${height}" fill="#fff"/>${parts.join('')}</svg>`;
}

/** A small arc over the other wire. */
export const hopPath = (x: number, y: number): string => `M${x} ${y - 5}A5 5 0 0 1 ${x} ${y + 5}`;

/** A symbol whose pins are told from its middle. */
export const local = <S extends CircuitDrawing['symbols'][number]>(s: S): S => ({
  ...s,
  pins: s.pins.map((p) => ({ ...p, x: p.x - s.x, y: p.y - s.y })),
});

/** Which symbols are drawn turned over: those whose 'mirrored' says nothing else. */
export const flipped = ({ kind, mirrored }: CircuitDrawing['symbols'][number]): boolean =>
  mirrored && (kind === 'transistor' || kind === 'pot');
