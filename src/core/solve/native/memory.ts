import { keptOmega } from '../wright-omega';
import { NATIVE_PLAIN } from './compiled';

/** What the machine's own code does (native/). Addresses are bytes in the shared memory. */
export interface NativeCode {
  run(table: number, fresh: boolean, from: number, record: boolean, carry: boolean, already: number): number;
  /** Puts columns together and adds them up: native/10-sums.ts. */
  fill(out: number, count: number, column: number, step: number, factor: number): void;
  add(out: number, count: number, column: number, step: number, factor: number): void;
  survey(out: number, records: number, wide: number, count: number, column: number, step: number): void;
  product(records: number, wide: number, count: number, a: number, stepA: number, b: number, stepB: number): number;
  spread(records: number, wide: number, count: number, column: number, step: number, mean: number): number;
  timeAbove(records: number, wide: number, count: number, column: number, level: number): number;
}

const PAGE = 65_536;
/** Slots there are, each for one circuit's shape: more than stand ready at a time. */
const SLOTS = 40;
/** What levels, stages and records of most circuits take, bytes. */
const SLOT_BYTES = 8 * PAGE;
/** What the columns of one reading may take, bytes. */
const COLUMN_BYTES = 16 * PAGE;
/** Sums a survey leaves. */
const SUMS = 4;

/** Where columns are put together, whichever circuit's: one reading at a time. */
interface ColumnRoom {
  readonly from: number;
  readonly end: number;
  /** What a survey leaves. */
  readonly sums: Float64Array;
}

/** Where the numbers of one circuit stand in the memory the machine's own code shares. */
export interface Slot {
  readonly code: NativeCode;
  readonly columns: ColumnRoom;
  /** Arrays of nothing; null where the slot is full. */
  doubles(count: number): Float64Array | null;
  ints(count: number): Int32Array | null;
  /** Addresses of what is left of it. */
  rest(): { from: number; end: number };
  /** Gives it back: its arrays must not be used afterwards. */
  release(): void;
}

interface Memory {
  code: NativeCode;
  columns: ColumnRoom;
  buffer: ArrayBuffer;
  /** Addresses of the slots nobody has. */
  free: number[];
}

let memory: Memory | null | undefined;

function started(): Memory | null {
  try {
    const { series, coarseFrom } = keptOmega();
    // The first page is the code's own.
    const omegaAt = PAGE;
    const sumsAt = omegaAt + Math.ceil(series.byteLength / PAGE) * PAGE;
    const from = sumsAt + COLUMN_BYTES;
    const shared = new WebAssembly.Memory({ initial: (from + SLOTS * SLOT_BYTES) / PAGE });
    const bytes = Uint8Array.from(atob(NATIVE_PLAIN), (c) => c.charCodeAt(0));
    const { exports } = new WebAssembly.Instance(new WebAssembly.Module(bytes), { env: { memory: shared } });
    const code = exports as unknown as NativeCode & { setOmega(fine: number, coarse: number): void };
    new Float64Array(shared.buffer, omegaAt, series.length).set(series);
    code.setOmega(omegaAt, omegaAt + 8 * coarseFrom);
    return {
      code,
      columns: { from: sumsAt + 8 * SUMS, end: from, sums: new Float64Array(shared.buffer, sumsAt, SUMS) },
      buffer: shared.buffer,
      free: Array.from({ length: SLOTS }, (_, n) => from + (SLOTS - 1 - n) * SLOT_BYTES),
    };
  } catch {
    // Where a page or a machine does not allow it everything is solved the general way, only slower.
    return null;
  }
}

/** A slot for a circuit's numbers; null where there is none, or no code that would work there. */
export function takeSlot(): Slot | null {
  memory ??= memory === undefined ? started() : null;
  const from = memory?.free.pop();
  if (!memory || from === undefined) return null;
  const { buffer, free, code, columns } = memory;
  const end = from + SLOT_BYTES;
  let next = from;
  let held = true;
  const place = (bytes: number): number | null => {
    if (next + bytes > end) return null;
    const at = next;
    next += Math.ceil(bytes / 8) * 8;
    return at;
  };
  return {
    code,
    columns,
    doubles(count) {
      const at = place(8 * count);
      return at === null ? null : new Float64Array(buffer, at, count).fill(0);
    },
    ints(count) {
      const at = place(4 * count);
      return at === null ? null : new Int32Array(buffer, at, count).fill(0);
    },
    rest: () => ({ from: next, end }),
    release() {
      if (held) free.push(from);
      held = false;
    },
  };
}
