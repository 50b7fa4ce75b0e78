import { formatQuantity } from '@/core/quantity/format';
import { Tag } from './tag';

/** The gap between the lowest valley and what the regulator needs: the number the drawing is about. */
export function Daylight({
  x,
  valleyV,
  headroomV: headroom,
  y,
  mirrored,
  onOpen,
}: {
  x: number;
  valleyV: number;
  /** Between that valley and what is needed, as it is judged, V. */
  headroomV: number;
  y: (v: number) => number;
  /** True below zero, where clear means further down. */
  mirrored: boolean;
  onOpen(): void;
}) {
  const short = headroom < 0;
  const a = y(valleyV);
  const b = y(valleyV - headroom);
  const colour = short ? 'var(--fail)' : headroom < 0.5 ? 'var(--tight)' : 'var(--volt)';
  return (
    <g>
      <path d={`M${x - 14} ${a}H${x + 4}`} stroke={colour} strokeWidth="1" />
      <path d={`M${x} ${a}V${b}`} stroke={colour} strokeWidth={short ? 5 : 3} />
      <Tag
        x={x + 10}
        y={short ? (a + b) / 2 + 6 : mirrored ? Math.max(a, b) + 18 : Math.min(a, b) - 8}
        colour={colour}
        size={17}
        bold
        onOpen={onOpen}
      >
        {short ? `${formatQuantity(-headroom, 'V')} short` : `${formatQuantity(headroom, 'V')} clear`}
      </Tag>
    </g>
  );
}
