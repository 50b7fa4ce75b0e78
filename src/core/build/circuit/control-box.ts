import { GROUND, netAt } from '@/core/netlist/netlist';
import type { Group } from './drawing';
import { labelOf } from './groups';
import type { Ladder, Side } from './ladder';
import { endX } from './transistors';

/** The amplifiers of a bench supply: one box below the line, a lead up to each net it looks at. */
export function controlBox(
  lane: Ladder,
  group: Group,
  { driveX, suppliedX, side, y, half }: { driveX: number; suppliedX: number; side: Side; y: number; half: number },
): void {
  const [part] = group;
  const lines = labelOf(group);
  const xOf: Record<string, number> = {
    supply: suppliedX,
    drive: driveX,
    sense: endX(lane, netAt(part, 'sense')),
    out: lane.advance(20) + 6,
  };
  const pins = part.pins.filter((p) => p.name !== 'ground').map((p) => ({ ...p, x: xOf[p.name]!, y: y - side * half }));
  const left = Math.min(...pins.map((p) => p.x)) - 14;
  const right = Math.max(...pins.map((p) => p.x)) + 14;
  const middle = (left + right) / 2;
  const foot = { name: 'ground', net: GROUND, x: middle, y: y + side * half };
  lane.symbols.push({
    kind: 'control',
    refs: group.map((p) => p.ref),
    x: middle,
    y,
    turn: 0,
    mirrored: side === -1,
    length: right - left,
    breadth: 2 * half,
    pins: [...pins, foot],
    negative: false,
    charging: false,
  });
  for (const pin of [...pins, foot]) lane.lead(pin.net, pin);
  lane.label(
    lines,
    { x: middle, y: y - 7 * lines.length },
    'middle',
    group.map((p) => p.ref),
  );
}
