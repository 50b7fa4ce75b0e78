import { readFileSync } from 'node:fs';
import type { Design } from '@/core/design/design';
import { readDesign } from '@/core/design/schema';

/** The design in a file exported as JSON, or a sentence on what is wrong with it and where. */
export function designIn(file: string): Design | string {
  let json: unknown;
  try {
    json = JSON.parse(readFileSync(file, 'utf8'));
  } catch (error) {
    return `${file} could not be read: ${error instanceof Error ? error.message : String(error)}`;
  }
  const read = readDesign(json);
  return read.ok ? read.design : `${file}: ${read.fault.path}: ${read.fault.sentence}`;
}
