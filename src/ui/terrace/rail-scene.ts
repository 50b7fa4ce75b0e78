import { levelsOf, type Levels } from '@/core/picture/levels';
import { BANDS, type Band, type Picture } from '@/core/picture/picture';
import { onRail } from '@/core/study/point';
import { followPoints, steps, wavePoints, type Columns, type Point } from '@/core/picture/terrace-geometry';

/** One rail in one mains band as lines over the terrace's columns, volts as magnitudes. */
export interface RailLines {
  levels: Levels;
  /** Everything from the winding to where the load or regulator hangs. */
  path: Point[];
  /** The reservoir's two cycles. */
  reservoir: Point[];
  /** The two cycles the load or regulator sees: the reservoir's, or those behind the filter. */
  rail: Point[];
  output: Point[];
}

export type RailScene = Record<Band, RailLines>;

/** The lines of one rail in all three bands. */
export function railScene(picture: Picture, rail: number, cols: Columns): RailScene {
  return Object.fromEntries(
    BANDS.map((b): [Band, RailLines] => {
      const point = onRail(picture.points[b], rail);
      const levels = levelsOf(point);
      const { wave } = point;
      const before = cols.before ? followPoints(wave.inputV, wave.reservoirV, cols.before) : [];
      const reservoir = wavePoints(wave.reservoirV, cols.reservoir);
      const after = cols.after ? followPoints(wave.railV, wave.reservoirV, cols.after) : [];
      const first = (before[0] ?? reservoir[0]!)[1];
      return [
        b,
        {
          levels,
          path: [...steps(levels, cols, first), ...before, ...reservoir, ...after],
          reservoir,
          rail: cols.after ? after : reservoir,
          output: followPoints(wave.outputV, wave.reservoirV, cols.after ?? cols.reservoir),
        },
      ];
    }),
  ) as RailScene;
}
