import { GRID_MM, type OnBoard, type Place, type Turn } from './etched';
import { around, quarterTurned } from './pad-footprint';

/** A part at another place, turned about its first leg: as it looks before its tracks are laid anew. */
export function movedTo(part: OnBoard, { xMm, yMm, turn }: Place): OnBoard {
  const more = ((turn - part.turn + 4) % 4) as Turn;
  const at = (x: number, y: number): [number, number] => {
    const [dx, dy] = quarterTurned(x - part.xMm, y - part.yMm, more);
    return [xMm + dx, yMm + dy];
  };
  return {
    ...part,
    xMm,
    yMm,
    turn,
    pads: part.pads.map((p) => {
      const [x, y] = at(p.xMm, p.yMm);
      return { ...p, xMm: x, yMm: y };
    }),
    body: around(at(part.body.x0, part.body.y0), at(part.body.x1, part.body.y1)),
  };
}

/** A quarter turn more, about its middle, back on the grid. */
export function turnedMore({ xMm, yMm, turn, body }: OnBoard): Place {
  const [cx, cy] = [(body.x0 + body.x1) / 2, (body.y0 + body.y1) / 2];
  const [dx, dy] = quarterTurned(xMm - cx, yMm - cy, 1);
  return onGrid({ xMm: cx + dx, yMm: cy + dy, turn: ((turn + 1) % 4) as Turn });
}

/** The nearest place of the grid parts stand on. */
export const onGrid = ({ xMm, yMm, turn }: Place): Place => ({
  xMm: Math.round(xMm / GRID_MM) * GRID_MM,
  yMm: Math.round(yMm / GRID_MM) * GRID_MM,
  turn,
});
