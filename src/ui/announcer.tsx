'use client';

import { useEffect, useRef, useState } from 'react';
import type { Picture } from '@/core/picture/picture';
import { useView } from './session';

/** An edit is told once the hand rests, ms. */
const REST_MS = 700;

/** How the verdicts stand in one sentence: '1 fails: headroom at low line. The valley falls 0.3 V short.' */
export function verdictsInWords({ verdicts, fails }: Pick<Picture, 'verdicts' | 'fails'>): string {
  const worst = verdicts.find((v) => v.state === 'fails');
  return worst
    ? `${fails} ${fails === 1 ? 'fails' : 'fail'}: ${worst.title.toLowerCase()}. ${worst.sentence}`
    : `All ${verdicts.length} pass.`;
}

/** Says what an edit did to the verdicts, once, to those who do not see them. */
export function Announcer() {
  const picture = useView((s) => s.picture);
  const words = picture ? verdictsInWords(picture) : '';
  const told = useRef(words);
  const [said, setSaid] = useState('');
  useEffect(() => {
    if (words === '' || words === told.current) return;
    const timer = setTimeout(() => {
      // The first picture of a page is no change.
      if (told.current !== '') setSaid(words);
      told.current = words;
    }, REST_MS);
    return () => clearTimeout(timer);
  }, [words]);
  return (
    <p aria-live="polite" className="sr-only" data-testid="announced">
      {said}
    </p>
  );
}
