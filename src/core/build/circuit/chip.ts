import { netAt } from '@/core/netlist/netlist';
import { widthOf, type Group } from './drawing';
import { labelOf } from './groups';
import type { Ladder, Side } from './ladder';

/** Least width and height of its box, and how far off what leads around it lies, px. */
const WIDTH = 104;
const BOX = 46;
const OVER = 28;

/** A regulator of three terminals in its line, what leads around it above it. */
export function chip(lane: Ladder, group: Group, rail: 0 | 1, over: Group | null): void {
  const [part] = group;
  const side: Side = rail === 0 ? 1 : -1;
  const [input, output] = [netAt(part, 'in'), netAt(part, 'out')];
  const third = part.pins.find((p) => p.name === 'ground' || p.name === 'adjust')!;
  const bus = lane.yOf(input);
  const lines = labelOf(group);
  const width = Math.max(WIDTH, widthOf(lines) + 14);
  const inX = over ? lane.advance(18) + 10 : lane.x;
  const x = lane.advance(width + 24) + width / 2 + 12;
  const outX = over ? lane.advance(18) + 8 : lane.x;
  const height = Math.max(BOX, 14 * lines.length + 12);
  lane.symbols.push({
    kind: 'regulator',
    refs: group.map((p) => p.ref),
    x,
    y: bus,
    turn: 0,
    mirrored: rail === 1,
    length: width,
    breadth: height,
    pins: [
      { name: 'in', net: input, x: x - width / 2, y: bus },
      { ...third, x, y: bus + (side * height) / 2 },
      { name: 'out', net: output, x: x + width / 2, y: bus },
    ],
    negative: part.negative,
    charging: false,
  });
  lane.touch(input, x - width / 2);
  lane.touch(output, x + width / 2);
  lane.lead(third.net, { x, y: bus + (side * height) / 2 });
  lane.label(
    lines,
    { x, y: bus - 7 * lines.length },
    'middle',
    group.map((p) => p.ref),
  );
  if (!over) return;
  const [diode] = over;
  const y = bus - side * (height / 2 + OVER);
  const first = netAt(diode, 'anode');
  const symbol = lane.place('diode', over, { x, y }, first === input ? 0 : 2, false, false, {
    anode: netAt(diode, 'anode'),
    cathode: netAt(diode, 'cathode'),
  });
  for (const pin of symbol.pins) lane.bentLead(pin.net, pin, pin.net === input ? inX : outX);
  const text = labelOf(over);
  const named = [text.join(' ')];
  lane.label(named, { x, y: side === 1 ? y - 11 - 14 : y + 11 }, 'middle', symbol.refs);
}
