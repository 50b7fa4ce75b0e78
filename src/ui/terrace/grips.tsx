import { termsOf } from '@/core/design/source';
import type { Band, Picture } from '@/core/picture/picture';
import { dragEdits } from './drag-edits';
import type { Columns, VoltAxis } from '@/core/picture/terrace-geometry';
import { Grip } from './grip';
import type { RailScene } from './rail-scene';

interface Props {
  picture: Picture;
  band: Band;
  cols: Columns;
  axis: VoltAxis;
  /** The main rail as it is drawn. */
  scene: RailScene;
}

/** What can be pulled on the terrace, each at its volts; what the lens does not show has no handle. */
export function Grips({ picture, band, cols, axis, scene }: Props) {
  const { design } = picture;
  const drags = dragEdits(design, picture, axis);
  const say = termsOf(design);
  const middle = ([a, b]: [number, number]) => (a + b) / 2;
  const valley = scene[band].reservoir.reduce((a, b) => (b[1] < a[1] ? b : a));
  const outV = picture.points[band].outputMeanV;
  const grips = [
    { x: middle(cols.mains), v: scene.high.levels.openPeakV, label: `Drag ${say.high}`, edit: drags.high },
    { x: middle(cols.mains), v: scene.low.levels.openPeakV, label: `Drag ${say.low}`, edit: drags.low },
    ...(drags.winding
      ? [{ x: cols.winding[0] + 12, v: scene.nominal.levels.openPeakV, label: 'Drag the winding', edit: drags.winding }]
      : []),
    ...(design.reservoir.capacitanceF > 0
      ? [{ x: valley[0], v: valley[1], label: 'Drag the reservoir', edit: drags.reservoir }]
      : []),
    ...(design.regulator.kind !== 'none'
      ? [
          {
            x: cols.regulator[0] + 0.9 * (cols.regulator[1] - cols.regulator[0]),
            v: outV,
            label: 'Drag the output',
            edit: drags.output,
          },
        ]
      : []),
    { x: cols.load[1] - 20, v: outV, label: 'Drag the load', edit: drags.load },
  ];
  return grips
    .filter(({ v }) => v <= axis.topV)
    .map(({ x, v, label, edit }) => <Grip key={label} x={x} y={axis.y(v)} label={label} edit={edit} />);
}
