import type { TestPoint } from '@/core/bench/test-point';

/** The window as the middle of a rule, the expected value as a line, the reading as a pointer. */
export function WindowGauge({ point, value }: { point: TestPoint; value: number | undefined }) {
  const width = Math.max(point.high - point.low, 1e-9);
  const at = (v: number) => Math.max(1.5, Math.min(98.5, 30 + (40 * (v - point.low)) / width));
  const inside = value !== undefined && value >= point.low && value <= point.high;
  return (
    <svg viewBox="0 0 100 12" preserveAspectRatio="none" className="mt-0.5 block h-[16px] w-full" aria-hidden="true">
      <path d="M0 8H100" stroke="var(--edge)" strokeWidth="0.6" vectorEffect="non-scaling-stroke" />
      <rect
        x="30"
        y="5"
        width="40"
        height="6"
        fill="var(--volt-soft)"
        stroke="var(--volt)"
        strokeWidth="1"
        vectorEffect="non-scaling-stroke"
      />
      <path
        d={`M${at(point.expected.value)} 5V11`}
        stroke="var(--volt)"
        strokeWidth="1.5"
        vectorEffect="non-scaling-stroke"
      />
      {value !== undefined && <path d={`M${at(value)} 7l-1.6 -7h3.2Z`} fill={inside ? 'var(--ink)' : 'var(--fail)'} />}
    </svg>
  );
}
