'use client';

import type { Design } from '@/core/design/design';

/** Hands the whole design to the person as a JSON file. */
export function downloadDesign(design: Design) {
  const url = URL.createObjectURL(new Blob([`${JSON.stringify(design, null, 2)}\n`], { type: 'application/json' }));
  const link = document.createElement('a');
  link.href = url;
  link.download = `${
    design.name
      .toLowerCase()
      .replace(/[^a-z0-9]+/g, '-')
      .replace(/^-|-$/g, '') || 'design'
  }.json`;
  link.click();
  setTimeout(() => URL.revokeObjectURL(url), 1000);
}
