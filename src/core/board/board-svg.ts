import { escaped } from '@/core/quantity/escaped';
import { printed, PRINT_WORDS, type PrintView } from './board-print';
import type { EtchedBoard } from './etched';

/** A view of a board at its own size, in millimetres, black on white. */
export function boardSvg(
  board: EtchedBoard,
  view: PrintView,
  title: string,
  volts: ReadonlyMap<string, string>,
): string {
  const n = (v: number) => String(Number(v.toFixed(3)));
  const [w, h] = [n(board.wMm), n(board.hMm)];
  const body = printed(board, view, volts).map((s) =>
    s.kind === 'dot'
      ? `<circle cx="${n(s.x)}" cy="${n(s.y)}" r="${n(s.d / 2)}" fill="${s.ink === 'black' ? '#000' : '#fff'}"/>`
      : `<line x1="${n(s.x1)}" y1="${n(s.y1)}" x2="${n(s.x2)}" y2="${n(s.y2)}" stroke-width="${n(s.w)}"/>`,
  );
  return `<svg xmlns="http://www.w3.org/2000/svg" width="${w}mm" height="${h}mm" viewBox="0 0 ${w} ${h}"><title>${escaped(`${title}: ${PRINT_WORDS[view]}`)}</title><rect width="${w}" height="${h}" fill="#fff"/><g stroke="#000" stroke-linecap="round">${body.join('')}</g></svg>\n`;
}
