import type { FitRow } from '@/core/bench/fit-design';
import { formatQuantity } from '@/core/quantity/format';

/** What is left over of every reading, in the instrument's own standard deviations. */
export function Residuals({ rows }: { rows: readonly FitRow[] }) {
  const most = Math.max(3, ...rows.map((r) => Math.min(8, Math.abs(r.sigmas))));
  return (
    <section aria-label="What is left over">
      <h3 className="text-[16px] font-semibold">What is left over</h3>
      <p className="text-[13px] text-quiet">
        Read less computed, in what your instrument may be off. Inside the pale field is as it should be.
      </p>
      <ul className="mt-1 text-[13.5px]">
        {rows.map((r) => {
          const off = Math.max(-most, Math.min(most, -r.sigmas));
          return (
            <li key={r.id} className="grid grid-cols-[minmax(0,1fr)_130px_62px] items-center gap-2 py-[1px]">
              <span className={`truncate ${r.wrong ? 'font-semibold text-fail' : ''}`} title={r.label}>
                {r.wrong && '✕ '}
                {r.label}
              </span>
              <span className="relative block h-[15px] bg-sunk" aria-hidden="true">
                <span
                  className="absolute inset-y-0 bg-raised"
                  style={{ left: `${50 - 100 / most}%`, width: `${200 / most}%` }}
                />
                <span className="absolute inset-y-0 left-1/2 w-px bg-edge" />
                <span
                  className={`absolute top-[3px] h-[9px] w-[9px] -translate-x-1/2 rounded-full ${r.wrong ? 'bg-fail' : 'bg-volt'}`}
                  style={{ left: `${50 + (off / most) * 50}%` }}
                />
              </span>
              <span className="text-right tabular-nums">
                {formatQuantity(r.read - r.computed, r.unit === '°C' ? 'K' : r.unit, 2)}
              </span>
            </li>
          );
        })}
      </ul>
    </section>
  );
}
