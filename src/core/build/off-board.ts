import type { NetPart } from '@/core/netlist/netlist';
import { canSize } from '@/core/parts/footprints';
import { parseQuantity } from '@/core/quantity/parse';

/** What is never part of a board: it stands in a panel, on the floor of the box or on its lid. */
const OFF_BOARD: ReadonlySet<NetPart['kind']> = new Set([
  'inlet',
  'switch',
  'cutout',
  'transformer',
  'source',
  'choke',
  'valve',
  'terminal',
  'led',
  'fan',
  'heater',
]);
/** Cans wider than this stand beside the board, in a clamp or on their screws, mm. */
const BESIDE_THE_BOARD_MM = 18;

/** Whether a part stands for itself and is wired, instead of being soldered into the board. */
export function offBoard(part: NetPart): boolean {
  if (part.kind === 'fuse') return part.block === 'mains' && !part.soldered;
  // A trimmer is soldered in; a knob is in the panel.
  if (part.kind === 'pot') return part.what.startsWith('turns');
  return OFF_BOARD.has(part.kind) || (canOf(part)?.diameterMm ?? 0) > BESIDE_THE_BOARD_MM;
}

/** An electrolytic's diameter and height, mm, where its volts are known. */
export function canOf(part: NetPart): { diameterMm: number; hMm: number } | null {
  const volts = part.kind === 'electrolytic' && part.si ? rated(part, 'V') : null;
  return volts === null ? null : canSize(part.si!.value, volts);
}

/** What a part is printed with, in SI; null where it says nothing of that. */
export function rated({ rating }: Pick<NetPart, 'rating'>, unit: 'V' | 'A'): number | null {
  const read = rating.endsWith(unit) ? parseQuantity(rating, unit) : null;
  return read?.ok ? read.value : null;
}
