import { MINI_SIZE, miniTerrace, type Ink } from '@/core/picture/mini-terrace';
import type { Summary } from '@/core/picture/summary';

const INKS: Readonly<Record<Exclude<Ink, 'shortfall'>, string>> = {
  volt: 'var(--volt)',
  'volt-soft': 'var(--volt-soft)',
  ember: 'var(--ember)',
  older: 'var(--ink)',
  edge: 'var(--edge)',
};

/** A design's terrace, small; with an earlier state of it, thin, over it. */
export function MiniTerrace({ summary, older = null, id }: { summary: Summary; older?: Summary | null; id: string }) {
  const ink = (name: Ink | undefined) =>
    name === undefined ? 'none' : name === 'shortfall' ? `url(#short-${id})` : INKS[name];
  return (
    <svg viewBox={`0 0 ${MINI_SIZE.width} ${MINI_SIZE.height}`} className="block w-full" aria-hidden="true">
      <defs>
        <pattern id={`short-${id}`} width="6" height="6" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
          <path d="M0 0V6" stroke="var(--fail)" strokeWidth="3" />
        </pattern>
      </defs>
      {miniTerrace(summary, older).map(({ d, stroke, fill, width, dash, opacity }, n) => (
        <path
          key={n}
          d={d}
          stroke={ink(stroke)}
          fill={ink(fill)}
          strokeWidth={width}
          strokeDasharray={dash}
          strokeLinejoin="round"
          opacity={opacity}
        />
      ))}
    </svg>
  );
}
