'use client';

import type { Design } from '@/core/design/design';
import type { Refusal } from './api';

/** No design is larger, bytes; a shared page carries its pictures with it. */
const FILE_MAX = 60_000_000;

/** A design that was found in a file or a text, and what had to be mended in it. */
export type FoundDesign =
  | { ok: true; design: Design; repairs: string[] }
  /** `id`: it names a design that may be on this very shelf. */
  | { ok: false; refusal: Refusal; id?: string };

/** Reads a design from a file, or says what is wrong with it and where. Never throws. */
export async function readDesignFile(chosen: File): Promise<FoundDesign> {
  if (chosen.size > FILE_MAX)
    return refused(chosen.name, `this file is larger than any design: ${FILE_MAX / 1e6} MB is the most.`);
  try {
    return await readDesignText(await chosen.text(), chosen.name);
  } catch {
    return refused(chosen.name, 'this file could not be read at all.');
  }
}

/** Reads a design from a text: JSON, the Markdown of a sheet, a shared page, what a label's code says. */
export async function readDesignText(text: string, from: string): Promise<FoundDesign> {
  const [{ designInside }, { readRepaired }] = await Promise.all([
    import('@/core/sheet/design-inside'),
    import('@/core/design/repaired'),
  ]);
  const inside = designInside(text);
  if (inside.kind === 'fault') return refused(from, inside.sentence);
  if (inside.kind === 'name')
    return {
      ...refused(from, 'this label names its design and does not hold it: it is to be had where it was printed.'),
      id: inside.id,
    };
  const read = readRepaired(inside.value);
  return read.ok ? read : refused(read.fault.path || from, read.fault.sentence);
}

const refused = (path: string, sentence: string) => ({ ok: false as const, refusal: { path, sentence } });
