'use client';

import type { Design } from '@/core/design/design';
import type { Refusal } from './api';
import { border } from './border';

/** No design is larger, bytes. */
const FILE_MAX = 2_000_000;

/** Reads a design from a file, or says what is wrong with it and where. Never throws. */
export async function readDesignFile(
  chosen: File,
): Promise<{ ok: true; design: Design } | { ok: false; refusal: Refusal }> {
  const refuse = (path: string, sentence: string) => ({ ok: false as const, refusal: { path, sentence } });
  if (chosen.size > FILE_MAX) return refuse(chosen.name, 'this file is larger than any design: 2 MB is the most.');
  let value: unknown;
  try {
    value = JSON.parse(await chosen.text());
  } catch {
    return refuse(chosen.name, 'this is not a JSON file: it could not be read at all.');
  }
  const read = (await border())(value);
  return read.ok ? read : refuse(read.fault.path || chosen.name, read.fault.sentence);
}
