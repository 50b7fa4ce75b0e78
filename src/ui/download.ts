'use client';

import type { Design } from '@/core/design/design';

/** A name as a file may have it. */
export function fileName(name: string): string {
  return (
    name
      .toLowerCase()
      .replace(/[^a-z0-9]+/g, '-')
      .replace(/^-|-$/g, '') || 'design'
  );
}

/** Hands a picture or table to the person as a file. */
export function save(name: string, blob: Blob) {
  const url = URL.createObjectURL(blob);
  const link = document.createElement('a');
  link.href = url;
  link.download = name;
  link.click();
  setTimeout(() => URL.revokeObjectURL(url), 1000);
}

/** Hands text to the person as a file. */
export function download(name: string, text: string, type: string) {
  save(name, new Blob([text], { type: `${type};charset=utf-8` }));
}

/** Hands the whole design to the person as a JSON file. */
export function downloadDesign(design: Design) {
  download(`${fileName(design.name)}.json`, `${JSON.stringify(design, null, 2)}\n`, 'application/json');
}
