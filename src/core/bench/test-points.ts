import type { Design } from '@/core/design/design';
import { mainsPoints } from './mains-points';
import { outputPoints } from './output-points';
import { pointContext } from './point-context';
import { reservoirPoints } from './reservoir-points';
import { sinkPoints } from './sink-point';
import { stagesOf } from './stages';
import type { PointId, TestPoint } from './test-point';

/**
 * The test points of a staged power-up with the window a healthy build falls into: simulated at the mains volts read
 * that day, every part moved to the ends of its spread one at a time, the excursions added up, the meter's error on top.
 * @param mainsFor mains volts valid for a point's reading
 * @throws SolveError when a condition does not converge
 */
export function testPoints(design: Design, mainsFor: (point: PointId) => number): TestPoint[] {
  const context = pointContext(design, mainsFor);
  const points = [
    ...mainsPoints(context),
    ...reservoirPoints(context),
    ...outputPoints(context),
    ...sinkPoints(context),
  ];
  return stagesOf(design).flatMap(({ name, points: waited, more }) =>
    points.filter((p) => waited.includes(p.id) || more.includes(p.id)).map((p) => ({ ...p, stage: name })),
  );
}
