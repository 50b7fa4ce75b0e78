import type { Verdict } from '@/core/judge/verdict';
import { formatNominal } from '@/core/quantity/format';
import { stateColour } from '@/ui/state-sign';

const LIMIT_AT = 34;
const WANTED_AT = 62;

/** How much is left: the limit as a post, the wanted margin as a tick, the bar reaching right of the post or falling short of it, hatched. */
export function MarginBar({ verdict }: { verdict: Verdict }) {
  const share = Math.max(-1.15, Math.min(2.3, verdict.left));
  const end = LIMIT_AT + share * (WANTED_AT - LIMIT_AT);
  const [from, to] = end < LIMIT_AT ? [end, LIMIT_AT] : [LIMIT_AT, end];
  const colour = stateColour(verdict.state);
  const id = `margin-${verdict.id}`;
  return (
    <div className="my-1.5">
      <svg viewBox="0 0 100 7" preserveAspectRatio="none" className="block h-[9px] w-full" aria-hidden="true">
        <defs>
          <pattern id={id} width="2" height="2" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
            <path d="M0 0V2" stroke={colour} strokeWidth="1.4" />
          </pattern>
        </defs>
        <rect x="0" y="2.5" width="100" height="2" fill="var(--rule)" opacity="0.6" />
        <rect
          x={from}
          y="1"
          width={Math.max(0.8, to - from)}
          height="5"
          fill={end < LIMIT_AT ? `url(#${id})` : colour}
        />
        <rect x={LIMIT_AT - 0.4} y="0" width="0.8" height="7" fill="var(--ink)" />
        <rect x={WANTED_AT - 0.2} y="1" width="0.4" height="5" fill="var(--quiet)" />
      </svg>
      <div className="relative h-4 text-[12px] text-quiet">
        <span className="absolute -translate-x-1/2" style={{ left: `${LIMIT_AT}%` }}>
          {verdict.id === 'headroom'
            ? 'limit'
            : `limit ${formatNominal(Number(verdict.limit.toPrecision(3)), verdict.figure.unit)}`}
        </span>
        <span className="absolute -translate-x-1/2" style={{ left: `${WANTED_AT + 8}%` }}>
          wanted
        </span>
      </div>
    </div>
  );
}
