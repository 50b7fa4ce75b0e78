import type { SizedSet } from '@/core/size/sized-set';

/** Margins beyond this many wanted ones are not told apart on the picture. */
export const MOST_LEFT = 3;
export const LEAST_LEFT = -3;

/** One point of the picture: the sets that cost and hold the same, by the first of them. */
export interface SetPoint {
  x: number;
  y: number;
  set: SizedSet;
  /** How many sets it stands for. */
  sets: number;
}

/** Sets as points of cost against worst margin; those that fall on one another are one. */
export function setPoints(sets: readonly SizedSet[]): SetPoint[] {
  const points = new Map<string, SetPoint>();
  for (const set of sets) {
    const y = Math.min(Math.max(set.worstLeft, LEAST_LEFT), MOST_LEFT);
    const key = `${set.toPayEur.toFixed(2)} ${y.toFixed(3)} ${set.fails > 0}`;
    const there = points.get(key);
    if (there) there.sets++;
    else points.set(key, { x: set.toPayEur, y, set, sets: 1 });
  }
  return [...points.values()];
}

/** The sets nothing beats: each costs more than the one before and holds more. The cheapest that passes is the first. */
export function bestFront(points: readonly SetPoint[]): SetPoint[] {
  const front: SetPoint[] = [];
  for (const p of points.filter((q) => q.set.fails === 0).sort((a, b) => a.x - b.x || b.y - a.y))
    if (front.length === 0 || p.y > front.at(-1)!.y + 1e-9) front.push(p);
  return front;
}
