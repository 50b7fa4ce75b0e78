import { readFileSync } from 'node:fs';
import type { Design } from '@/core/design/design';
import { readRepaired } from '@/core/design/repaired';
import { designInside } from '@/core/sheet/design-inside';

/**
 * The design in a file: JSON, the Markdown of a sheet, a shared page, the code of a label. A sentence on what is wrong with
 * it and where; what had to be mended is told on the error output.
 */
export function designIn(file: string): Design | string {
  let text: string;
  try {
    text = readFileSync(file, 'utf8');
  } catch (error) {
    return `${file} could not be read: ${error instanceof Error ? error.message : String(error)}`;
  }
  const inside = designInside(text);
  if (inside.kind === 'fault') return `${file}: ${inside.sentence}`;
  if (inside.kind === 'name') return `${file}: this label names its design and does not hold it.`;
  const read = readRepaired(inside.value);
  if (!read.ok) return `${file}: ${read.fault.path}: ${read.fault.sentence}`;
  for (const repair of read.repairs) process.stderr.write(`${file}: ${repair}\n`);
  return read.design;
}
