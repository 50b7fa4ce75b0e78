/** A label as it was first put, px; `rank` says who stays: the higher one does. */
export interface Placed {
  x: number;
  y: number;
  width: number;
  height: number;
  rank: number;
}

/** How far a label may be moved from what it names, px, and by what steps. */
const REACH_PX = 66;
const STEP_PX = 3;

const meet = (a: Placed, b: Placed, dy: number) =>
  a.x < b.x + b.width && b.x < a.x + a.width && a.y + dy < b.y + b.height && b.y < a.y + dy + a.height;

/**
 * Moves labels up or down, each as little as it takes, until none lies on another: the ones of higher rank stand first.
 * Where there is no room within reach a label stays where it was put.
 * @param top and bottom, px: between them labels stay
 * @returns by how much each is moved, px
 */
export function settleLabels(labels: readonly Placed[], top: number, bottom: number): number[] {
  const moves = labels.map(() => 0);
  const order = labels.map((_, n) => n).sort((a, b) => labels[b]!.rank - labels[a]!.rank || a - b);
  const standing: Placed[] = [];
  for (const n of order) {
    const label = labels[n]!;
    const free = (dy: number) =>
      label.y + dy >= top && label.y + dy + label.height <= bottom && !standing.some((s) => meet(label, s, dy));
    let dy = 0;
    if (standing.some((s) => meet(label, s, 0))) {
      for (let reach = STEP_PX; reach <= REACH_PX; reach += STEP_PX) {
        const found = [-reach, reach].find(free);
        if (found !== undefined) {
          dy = found;
          break;
        }
      }
    }
    moves[n] = dy;
    standing.push({ ...label, y: label.y + dy });
  }
  return moves;
}
