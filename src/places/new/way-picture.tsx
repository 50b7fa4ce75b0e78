export type Way = 'load' | 'have' | 'box' | 'example' | 'file';

const LINE = { fill: 'none', stroke: 'var(--volt)', strokeWidth: 2.2, strokeLinejoin: 'round' } as const;
const THIN = { fill: 'none', stroke: 'var(--edge)', strokeWidth: 1.6, strokeLinejoin: 'round' } as const;

/** What each way begins with, drawn as the terrace would: the known part firm, what is still to be found dotted. */
export function WayPicture({ way }: { way: Way }) {
  return (
    <svg viewBox="0 0 150 48" className="mb-1 block h-[44px] w-full max-w-[180px]" aria-hidden="true">
      {way === 'load' && (
        <>
          <path d="M6 12H40V20H66l8 8 8-8 8 8 8-8" {...THIN} strokeDasharray="2 4" />
          <path d="M98 30H128" {...LINE} />
          <circle cx="138" cy="30" r="7" {...LINE} />
        </>
      )}
      {way === 'have' && (
        <>
          <path d="M10 42C16 6 24 6 30 42" {...LINE} />
          <path d="M40 42V12H52V18H64V24H76V30H142" {...THIN} strokeDasharray="2 4" />
        </>
      )}
      {way === 'box' && (
        <>
          <rect x="8" y="10" width="58" height="32" rx="3" {...THIN} />
          <path d="M18 32l8-12 8 12 8-12 8 12" {...LINE} />
          <path d="M66 20H92M66 34H92" {...THIN} />
          <circle cx="112" cy="26" r="17" {...THIN} />
          <path d="M112 36 120 16" {...LINE} stroke="var(--ember)" />
        </>
      )}
      {way === 'example' && (
        <>
          <path d="M6 12H34V17H54l8 9 8-9 8 9 8-9 8 9" {...LINE} />
          <path d="M94 33H144" {...LINE} />
          <path d="M54 29H94" {...THIN} strokeDasharray="5 3" stroke="var(--ember)" />
        </>
      )}
      {way === 'file' && (
        <>
          <path d="M52 4H86L100 16V44H52Z" {...THIN} />
          <path d="M86 4V16H100" {...THIN} />
          <path d="M60 24H68l5 7 5-7 5 7H92" {...LINE} />
        </>
      )}
    </svg>
  );
}
