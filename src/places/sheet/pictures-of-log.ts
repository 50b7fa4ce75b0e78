'use client';

import type { Design } from '@/core/design/design';
import { photoPath } from '@/ui/photos';

/** The pictures of a design's log as data addresses, by the name they are kept under; one that cannot be had is left out. */
export async function picturesOfLog({ log }: Pick<Design, 'log'>): Promise<Map<string, string>> {
  const pictures = new Map<string, string>();
  for (const id of new Set(log.flatMap((e) => e.photos))) {
    const answer = await fetch(photoPath(id)).catch(() => null);
    if (answer?.ok) pictures.set(id, await asData(await answer.blob()));
  }
  return pictures;
}

const asData = (blob: Blob): Promise<string> =>
  new Promise((resolve, reject) => {
    const reader = new FileReader();
    reader.onload = () => resolve(reader.result as string);
    reader.onerror = () => reject(new Error('a picture could not be read'));
    reader.readAsDataURL(blob);
  });
