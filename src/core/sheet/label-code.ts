import crc32 from 'crc-32';
import { deflateSync, inflateSync } from 'fflate';
import type { Design } from '@/core/design/design';
import { fromBase45, toBase45 } from './base45';
import { LABEL_DICTIONARY } from './label-dictionary';

const dictionary = new TextEncoder().encode(LABEL_DICTIONARY);
/** What a label's code begins with: the design itself, or the name it is kept under. */
const HOLDS = 'EMBER RAIL 1:';
const NAMES = 'EMBER RAIL ID:';
/** Letters of the tight kind a code of version 20 holds at level M. */
export const CODE_LETTERS_MAX = 970;
/** Nothing a label holds unfolds to more. */
const TEXT_MAX = 200_000;

/** What stands in the code of a label. */
export interface LabelCode {
  text: string;
  /** The whole design, the design without its records, or the name it is kept under where even that is too much. */
  holds: 'all' | 'no records' | 'name';
}

/** The code of a design's label: as much of the design as it takes. */
export function labelCode(design: Design, id: string | null): LabelCode {
  for (const [holds, document] of [
    ['all', design],
    ['no records', withoutRecords(design)],
  ] as const) {
    const packed = deflateSync(new TextEncoder().encode(JSON.stringify(document)), { level: 9, dictionary });
    const text = HOLDS + toBase45(Uint8Array.from([...packed, ...checkOf(packed)]));
    if (text.length <= CODE_LETTERS_MAX) return { text, holds };
  }
  return { text: `${NAMES}${(id ?? '').toUpperCase()}`, holds: 'name' };
}

/** A design as it is to be built: without what was read, written down, counted, ticked or put somewhere by hand. */
const withoutRecords = (design: Design): Design => ({
  ...design,
  note: '',
  log: [],
  picked: [],
  bench: { ...design.bench, readings: [], loadLine: [], soak: [], calibration: [] },
  build: {
    placed: [],
    wired: [],
    kit: [],
    box: { ...design.build.box, places: [], sizes: [], own: [] },
    board: { ...design.build.board, places: [], strips: [] },
  },
});

/** Four bytes that no single wrong letter leaves as they were (CRC-32). */
const checkOf = (bytes: Uint8Array): Uint8Array => new Uint8Array(Int32Array.of(crc32.buf(bytes)).buffer);
const CHECK_BYTES = 4;

export type ReadLabel = { kind: 'document'; value: unknown } | { kind: 'name'; id: string } | { kind: 'spoiled' };

/** What a label's code says; null where it is none of a label. */
export function readLabel(text: string): ReadLabel | null {
  const said = text.trim();
  if (said.startsWith(NAMES)) return { kind: 'name', id: said.slice(NAMES.length).toLowerCase() };
  if (!said.startsWith(HOLDS)) return null;
  const bytes = fromBase45(said.slice(HOLDS.length));
  if (!bytes || bytes.length <= CHECK_BYTES) return { kind: 'spoiled' };
  const packed = bytes.subarray(0, -CHECK_BYTES);
  // A letter that was misread could fall where it only changes a figure.
  if (checkOf(packed).some((sum, n) => sum !== bytes[packed.length + n])) return { kind: 'spoiled' };
  try {
    const unfolded = new Uint8Array(TEXT_MAX);
    const document = inflateSync(packed, { dictionary, out: unfolded });
    return { kind: 'document', value: JSON.parse(new TextDecoder().decode(document)) as unknown };
  } catch {
    return { kind: 'spoiled' };
  }
}
