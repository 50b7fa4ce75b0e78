import type { RegulatorModel } from '@/core/parts/regulators/model';
import { formatQuantity } from '@/core/quantity/format';
import { pathOf, type Point } from '@/core/picture/terrace-geometry';
import { Tag } from './tag';

interface Props {
  model: RegulatorModel;
  /** The load's column, the current running across it. */
  x: [number, number];
  y(v: number): number;
  outputV: number;
  /** What stands ahead of it, V: into a short all of that lies across it. */
  railV: number;
  /** What is drawn from it, A. */
  loadA: number;
  /** Whether the foot of the column is taken: the words then stand halfway down. */
  crowded: boolean;
  onOpen(): void;
}

/**
 * Output volts against current on the terrace's own volt axis: level to where it limits itself, then down to what flows
 * into a short, straight down for a constant current, backwards for a foldback.
 */
export function LimitCurve({ model, x: [x0, x1], y, outputV, railV, loadA, crowded, onOpen }: Props) {
  const { limitA } = model;
  const shortA = model.shortA(railV);
  if (!Number.isFinite(limitA)) return null;
  const from = x0 + 8;
  const perA = (x1 - 14 - from) / (1.08 * Math.max(limitA, shortA, loadA));
  const at = (amps: number) => from + perA * amps;
  // The axis is folded: what is straight in volts and amperes is drawn point by point.
  const points: Point[] = Array.from({ length: 25 }, (_, n) => [
    at(limitA + ((shortA - limitA) * n) / 24),
    outputV * (1 - n / 24),
  ]);
  const folds = shortA < 0.97 * limitA;
  return (
    <g data-testid="limit-curve">
      <path
        d={pathOf([[at(loadA), outputV], [at(limitA), outputV], ...points], y)}
        fill="none"
        stroke="var(--ember)"
        strokeWidth="1.4"
        strokeDasharray="1 3"
        strokeLinecap="round"
      />
      <path d={`M${at(shortA)} ${y(0) - 4}v8`} stroke="var(--ember)" strokeWidth="2" />
      {Math.abs(y(0) - y(outputV)) > 60 && (
        <Tag
          x={x1 - 4}
          y={crowded ? (y(outputV) + y(0)) / 2 - 4 : y(0) - 8}
          anchor="end"
          colour="var(--quiet)"
          onOpen={onOpen}
        >
          {folds
            ? `limits at ${formatQuantity(limitA, 'A')}, short ${formatQuantity(shortA, 'A')}`
            : `holds ${formatQuantity(shortA, 'A')} into a short`}
        </Tag>
      )}
    </g>
  );
}
