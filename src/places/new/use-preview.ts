'use client';

import { useRouter } from 'next/navigation';
import { useEffect, useState } from 'react';
import type { Design } from '@/core/design/design';
import type { Picture } from '@/core/picture/picture';
import { createDesign } from '@/ui/api';
import { asked } from '@/workers/asked';

/** A design still to be made, solved and judged once the hand rests. */
export function usePreview(design: Design | null): {
  picture: Picture | null;
  trouble: string | null;
  /** Whether picture and trouble are of the design as it stands, and not of the one before. */
  current: boolean;
} {
  const [shown, setShown] = useState<{ picture: Picture | null; trouble: string | null; of: string }>({
    picture: null,
    trouble: null,
    of: '',
  });
  const key = design ? JSON.stringify(design) : '';
  useEffect(() => {
    if (key === '') return;
    let current = true;
    const timer = setTimeout(() => {
      void asked((solver) => solver.evaluate(JSON.parse(key) as Design)).then((answer) => {
        if (!current) return;
        setShown(
          answer.ok
            ? { picture: answer.value, trouble: null, of: key }
            : { picture: null, trouble: answer.error, of: key },
        );
      });
    }, 150);
    return () => {
      current = false;
      clearTimeout(timer);
    };
  }, [key]);
  // A picture stays until the next one is there; of nothing there is none.
  return key === ''
    ? { picture: null, trouble: null, current: true }
    : { picture: shown.picture, trouble: shown.trouble, current: shown.of === key };
}

/**
 * Puts a design on the shelf and opens it.
 * @param keptAs the name its first state is kept under; left out, none is kept
 */
export function useMake(keptAs?: { name: string; why: string }): {
  busy: boolean;
  refused: string | null;
  make(design: Design): Promise<void>;
} {
  const router = useRouter();
  const [busy, setBusy] = useState(false);
  const [refused, setRefused] = useState<string | null>(null);
  return {
    busy,
    refused,
    async make(design) {
      setBusy(true);
      const created = await createDesign(design);
      setBusy(false);
      if (created.ok) {
        const { id } = created.value;
        if (keptAs) {
          const { keepMoment } = await import('@/ui/kept-moments');
          keepMoment(id, created.value.design, keptAs.name, keptAs.why);
        }
        router.push(`/design/${id}`);
      } else setRefused(created.refusal.sentence);
    },
  };
}
