import type { readDesign } from '@/core/design/schema';
import { breathe } from '@/workers/breathe';

/** What the border is made of, each after what it needs: put together at once it would hold the page up noticeably. */
const PIECES = [
  () => import('yup'),
  () => import('@/core/design/schema-pieces'),
  () => import('@/core/design/source-schema'),
  () => import('@/core/design/regulator-schema'),
  () => import('@/core/design/rail-schema'),
  () => import('@/core/design/record-schema'),
  () => import('@/core/design/load-schema'),
];

/** The document's border, put together piece by piece; between two of them the page answers. */
export async function borderInPieces(): Promise<typeof readDesign> {
  for (const piece of PIECES) {
    await piece();
    await breathe();
  }
  return (await import('@/core/design/schema')).readDesign;
}
