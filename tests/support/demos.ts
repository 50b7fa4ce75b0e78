import type { Design } from '@/core/design/design';
import { demoDesigns } from '@/core/design/demo-designs';

/** The demo designs by a short name, in the order of the shelf. */
export const [clock, dome, pen, drum, tide, physics, first, logger] = demoDesigns() as [
  Design,
  Design,
  Design,
  Design,
  Design,
  Design,
  Design,
  Design,
];
