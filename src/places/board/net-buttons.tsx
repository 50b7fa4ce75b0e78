'use client';

/** Nets of a board: one of them is lit up. */
export function NetButtons({
  nets,
  lit,
  hazardous,
  onLight,
}: {
  nets: readonly string[];
  lit: string | null;
  hazardous: ReadonlySet<string>;
  onLight(net: string | null): void;
}) {
  return (
    <section aria-label="Nets">
      <h2 className="text-[15px] font-semibold">Light up a net</h2>
      <div className="mt-1 flex flex-wrap gap-1">
        {nets.map((n) => (
          <button
            key={n}
            type="button"
            className="btn"
            aria-pressed={n === lit}
            onClick={() => onLight(n === lit ? null : n)}
          >
            {hazardous.has(n) && '⚠ '}
            {n}
          </button>
        ))}
      </div>
    </section>
  );
}
