'use client';

import type { RoomId } from './places';

const LINK =
  'sr-only focus:not-sr-only focus:fixed focus:left-2 focus:top-2 focus:z-50 focus:rounded focus:border focus:border-edge focus:bg-paper focus:px-3 focus:py-1.5';

/** Past the top of the page, for those who go by keyboard. */
export function SkipLinks({ room }: { room: RoomId }) {
  const ways = [
    ...(room === 'supply' || room === 'scope' ? [['drawing', 'To the drawing']] : []),
    ...(room === 'supply'
      ? [
          ['verdicts', 'To the verdicts'],
          ['fields', 'To the fields'],
        ]
      : []),
    ['room', 'Past the top of the page'],
  ] as const;
  return (
    <nav aria-label="Skip to">
      {ways.map(([id, words]) => (
        <a
          key={id}
          href={`#${id!}`}
          className={LINK}
          onClick={(event) => {
            event.preventDefault();
            const target = document.getElementById(id!);
            target?.scrollIntoView({ block: 'nearest' });
            target?.focus();
          }}
        >
          {words}
        </a>
      ))}
    </nav>
  );
}
