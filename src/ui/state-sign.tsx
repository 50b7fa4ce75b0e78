import type { State } from '@/core/judge/verdict';
import { STATE_WORDS } from './state-in-words';

const COLOUR: Record<State, string> = {
  fails: 'var(--fail)',
  tight: 'var(--tight)',
  holds: 'var(--volt)',
  caution: 'var(--ember)',
};

/** A state told by shape: a cross fails, a hollow square on its corner is tight, a dot holds, a ring around a bar is a caution. */
export function StateSign({ state, size = 16 }: { state: State; size?: number }) {
  const colour = COLOUR[state];
  return (
    <svg width={size} height={size} viewBox="0 0 16 16" role="img" aria-label={STATE_WORDS[state]} className="shrink-0">
      {state === 'fails' && <path d="M2 2 14 14M14 2 2 14" stroke={colour} strokeWidth="3.2" strokeLinecap="round" />}
      {state === 'tight' && (
        <path d="M8 1.5 14.5 8 8 14.5 1.5 8Z" fill="none" stroke={colour} strokeWidth="2.4" strokeLinejoin="round" />
      )}
      {state === 'caution' && (
        <>
          <circle cx="8" cy="8" r="6" fill="none" stroke={colour} strokeWidth="1.8" />
          <path d="M8 4.8v6.4" stroke={colour} strokeWidth="2.2" strokeLinecap="round" />
        </>
      )}
      {state === 'holds' && <circle cx="8" cy="8" r="4" fill={colour} />}
    </svg>
  );
}

export function stateColour(state: State): string {
  return COLOUR[state];
}
