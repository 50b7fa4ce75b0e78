/** The name mark: a rail stepping down past its ember. */
export function Mark({ size = 26 }: { size?: number }) {
  return (
    <svg width={size} height={size} viewBox="0 0 32 32" aria-hidden="true" className="shrink-0">
      <path
        d="M3 9h7v5h6v4c2-3 3-3 4 0s2 2 3-1h6"
        fill="none"
        stroke="var(--volt)"
        strokeWidth="2.6"
        strokeLinejoin="round"
        strokeLinecap="round"
      />
      <circle cx="16" cy="26" r="3.4" fill="var(--ember)" />
    </svg>
  );
}
