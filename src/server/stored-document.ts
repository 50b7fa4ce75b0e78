import type { Design } from '@/core/design/design';
import { readDesign } from '@/core/design/schema';
import { depthOfJson } from './json-depth';

/** Deepest nesting a document has; what is deeper was not written by any version of this program. */
export const DEPTH_MAX = 24;

/** A document as it was stored, brought up to this version, or what is wrong with it. */
export function readStored(document: string): { ok: true; design: Design } | { ok: false; sentence: string } {
  if (depthOfJson(document) > DEPTH_MAX) return { ok: false, sentence: 'It is nested deeper than any design.' };
  let value: unknown;
  try {
    value = JSON.parse(document);
  } catch {
    return { ok: false, sentence: 'What was stored is not JSON.' };
  }
  const read = readDesign(value);
  return read.ok
    ? read
    : { ok: false, sentence: `${read.fault.path ? `At ${read.fault.path}: ` : ''}${read.fault.sentence}.` };
}
