import type { Pinout } from '@/core/build/pinouts';

const WIDTH = 176;

/** A part as it lies on the table, its print towards you, legs down. */
export function PinoutFigure({ pinout: { housing, legs, tab, told, reversed } }: { pinout: Pinout }) {
  return (
    <figure className="mt-2 text-[14px]">
      {legs.length > 0 && (
        <svg
          viewBox={`0 0 ${WIDTH} 96`}
          width={WIDTH}
          role="img"
          aria-label={`${housing}, from the left: ${legs.join(', ')}`}
        >
          {tab !== null && (
            <>
              <rect x="48" y="2" width={WIDTH - 96} height="20" fill="none" stroke="var(--ink)" />
              <circle cx={WIDTH / 2} cy="12" r="4.5" fill="none" stroke="var(--ink)" />
            </>
          )}
          <rect x="14" y="22" width={WIDTH - 28} height="30" rx="2" fill="var(--raised)" stroke="var(--ink)" />
          {legs.map((leg, n) => {
            const x = legs.length === 1 ? WIDTH / 2 : 30 + (n * (WIDTH - 60)) / (legs.length - 1);
            return (
              <g key={leg}>
                <path d={`M${x} 52V72`} stroke="var(--ink)" strokeWidth="3" />
                <text x={x} y="90" textAnchor="middle" fontSize="13" fill="var(--ink)">
                  {leg}
                </text>
              </g>
            );
          })}
        </svg>
      )}
      <figcaption>
        <span className="font-semibold">{housing}</span>
        {legs.length > 0 && ', the print towards you, legs down.'}
        {tab !== null && ` Its metal is the ${tab}.`} {told} {reversed}{' '}
        <span className="text-quiet">Check your data sheet: makers differ.</span>
      </figcaption>
    </figure>
  );
}
