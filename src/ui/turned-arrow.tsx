/** An arrow that turns back, and its mirror: the two icons every page of a design begins with, too few to load a set of icons for. */
export function TurnedArrow({ forth = false }: { forth?: boolean }) {
  return (
    <svg
      width="17"
      height="17"
      viewBox="0 0 24 24"
      fill="none"
      stroke="currentColor"
      strokeWidth="2"
      strokeLinecap="round"
      strokeLinejoin="round"
      aria-hidden="true"
      transform={forth ? 'scale(-1 1)' : undefined}
    >
      <path d="M9 15 4 10l5-5M4 10h11a5 5 0 0 1 0 10h-4" />
    </svg>
  );
}
