import { from1 } from './migrations/from-1';
import { from10 } from './migrations/from-10';
import { from11 } from './migrations/from-11';
import { from12 } from './migrations/from-12';
import { from13 } from './migrations/from-13';
import { from2 } from './migrations/from-2';
import { from3 } from './migrations/from-3';
import { from4 } from './migrations/from-4';
import { from5 } from './migrations/from-5';
import { from6 } from './migrations/from-6';
import { from7 } from './migrations/from-7';
import { from8 } from './migrations/from-8';
import { from9 } from './migrations/from-9';
import type { Json } from './migrations/json';

/** The version this program writes. */
export const DESIGN_VERSION = 14;

/** From each earlier version to the next: what that one did not know is set to nothing. A new version is a file and its line. */
const STEPS: Readonly<Record<number, (document: Json) => Json>> = {
  1: from1,
  2: from2,
  3: from3,
  4: from4,
  5: from5,
  6: from6,
  7: from7,
  8: from8,
  9: from9,
  10: from10,
  11: from11,
  12: from12,
  13: from13,
};

/** A design of an earlier version as this one; anything else comes back as it is. Never throws. */
export function migrated(document: Json): Json {
  let next = document;
  for (;;) {
    const { version } = next;
    const step = typeof version === 'number' ? STEPS[version] : undefined;
    if (!step) return next;
    next = step(next);
  }
}
