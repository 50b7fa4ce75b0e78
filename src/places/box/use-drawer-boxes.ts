'use client';

import { useEffect, useState } from 'react';
import type { Inside } from '@/core/box/block';
import { fetchParts } from '@/ui/drawer/parts-api';

/** Boxes in the person's drawer that are there to be used; none while they are asked for, or where they cannot be had. */
export function useDrawerBoxes(): readonly { name: string; inside: Inside }[] {
  const [boxes, setBoxes] = useState<readonly { name: string; inside: Inside }[]>([]);
  useEffect(() => {
    let current = true;
    void fetchParts(['box']).then((answer) => {
      if (!current || !answer.ok) return;
      setBoxes(
        answer.value.parts.flatMap(({ name, count, ratings: { widthMm, depthMm, heightMm } }) =>
          count > 0 && widthMm && depthMm && heightMm
            ? [{ name, inside: { wMm: widthMm, dMm: depthMm, hMm: heightMm } }]
            : [],
        ),
      );
    });
    return () => {
      current = false;
    };
  }, []);
  return boxes;
}
