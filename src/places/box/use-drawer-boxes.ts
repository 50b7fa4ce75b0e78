'use client';

import { useEffect, useState } from 'react';
import type { Inside } from '@/core/box/block';
import { rangeFault } from '@/core/design/limits';
import { fetchParts } from '@/ui/drawer/parts-api';

/** Boxes in the person's drawer that are there to be used; none while they are asked for, or where they cannot be had. */
export function useDrawerBoxes(): readonly { name: string; inside: Inside }[] {
  const [boxes, setBoxes] = useState<readonly { name: string; inside: Inside }[]>([]);
  useEffect(() => {
    let current = true;
    void fetchParts(['box']).then((answer) => {
      if (!current || !answer.ok) return;
      setBoxes(
        answer.value.parts.flatMap(({ name, count, ratings }) => {
          const inside = { wMm: ratings['widthMm'] ?? 0, dMm: ratings['depthMm'] ?? 0, hMm: ratings['heightMm'] ?? 0 };
          const real = Object.values(inside).every((mm) => rangeFault('box.insideMm', mm) === null);
          return count > 0 && real ? [{ name, inside }] : [];
        }),
      );
    });
    return () => {
      current = false;
    };
  }, []);
  return boxes;
}
