import { GRID_MM, type OnBoard, type Place, type Rect, type Turn } from './etched';

/** A part at another place, turned about its first leg: as it looks before its tracks are laid anew. */
export function movedTo(part: OnBoard, { xMm, yMm, turn }: Place): OnBoard {
  const quarters = (turn - part.turn + 4) % 4;
  const at = (x: number, y: number): [number, number] => {
    let [dx, dy] = [x - part.xMm, y - part.yMm];
    for (let n = 0; n < quarters; n++) [dx, dy] = [dy, -dx];
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

const around = ([ax, ay]: readonly [number, number], [bx, by]: readonly [number, number]): Rect => ({
  x0: Math.min(ax, bx),
  y0: Math.min(ay, by),
  x1: Math.max(ax, bx),
  y1: Math.max(ay, by),
});

/** A quarter turn more, about its middle, back on the grid. */
export function turnedMore({ xMm, yMm, turn, body }: OnBoard): Place {
  const [cx, cy] = [(body.x0 + body.x1) / 2, (body.y0 + body.y1) / 2];
  const next = ((turn + 1) % 4) as Turn;
  return onGrid({ xMm: cx + (yMm - cy), yMm: cy - (xMm - cx), turn: next });
}

/** The nearest place of the grid parts stand on. */
export const onGrid = ({ xMm, yMm, turn }: Place): Place => ({
  xMm: Math.round(xMm / GRID_MM) * GRID_MM,
  yMm: Math.round(yMm / GRID_MM) * GRID_MM,
  turn,
});
