import { netAt } from '@/core/netlist/netlist';
import { widthOf, type Group, type Point } from './drawing';
import { labelOf } from './groups';
import type { Ladder, Side } from './ladder';
import { mark } from './marks';

/** A pass transistor in its line, its base towards ground. @returns where its base is */
export function passTransistor(lane: Ladder, group: Group, rail: 0 | 1): number {
  const [part] = group;
  const side: Side = rail === 0 ? 1 : -1;
  const lines = labelOf(group);
  const width = Math.max(52, widthOf(lines) + 8);
  const x = lane.advance(width + 8) + width / 2;
  const bus = lane.yOf(netAt(part, 'collector'));
  const nets = { collector: netAt(part, 'collector'), base: netAt(part, 'base'), emitter: netAt(part, 'emitter') };
  const symbol = lane.place('transistor', group, { x, y: bus + 8 * side }, rail === 0 ? 3 : 1, rail === 1, false, nets);
  for (const pin of symbol.pins) lane.lead(pin.net, pin);
  lane.touch(nets.collector, x - width / 2);
  lane.touch(nets.emitter, x + width / 2);
  const height = 14 * lines.length;
  lane.label(lines, { x, y: side === 1 ? bus - 12 - height : bus + 12 }, 'middle', symbol.refs);
  return x;
}

/** What a small transistor of a regulator is there for, and where its leads went. */
export interface SmallTransistor {
  does: 'limits' | 'compares' | 'drives';
  baseX: number;
  emitterX: number;
}

/**
 * A small transistor that stands between two lines: one that drives, its base to the left; one that compares, its base to
 * the right, where the divider is; one that limits, its base back to the sense resistor.
 */
export function smallTransistor(
  lane: Ladder,
  group: Group,
  rail: 0 | 1,
  onBus: (net: string) => boolean,
): SmallTransistor {
  const [part] = group;
  const side: Side = rail === 0 ? 1 : -1;
  const nets = { collector: netAt(part, 'collector'), base: netAt(part, 'base'), emitter: netAt(part, 'emitter') };
  const does = onBus(nets.base) ? 'limits' : onBus(nets.collector) ? 'drives' : 'compares';
  const sensed = does === 'limits' ? endX(lane, nets.base) : 0;
  const compares = does === 'compares';
  const lines = labelOf(group);
  const before = compares ? 20 : 34;
  const x = lane.advance(before) + before;
  lane.advance(26 + widthOf(lines) + (compares ? 8 : 0));
  const [top, bottom] = [lane.yOf(nets.collector), lane.yOf(nets.emitter)];
  const y = compares ? lane.yOf(nets.base) : (top + bottom) / 2;
  const collectorUp = top < bottom;
  // Turned half round its base looks right, and its collector down: turned over it looks up again.
  const mirrored = compares ? collectorUp : !collectorUp;
  const symbol = lane.place('transistor', group, { x, y }, compares ? 2 : 0, mirrored, false, nets);
  const pin = (name: string) => symbol.pins.find((p) => p.name === name)!;
  lane.lead(nets.collector, pin('collector'));
  lane.lead(nets.emitter, pin('emitter'));
  const baseX = { limits: sensed, compares: pin('base').x + 8, drives: pin('base').x - 10 }[does];
  lane.bentLead(nets.base, pin('base'), baseX);
  const height = 14 * lines.length;
  const at = compares ? { x: x + 19, y: side === 1 ? y + 4 : y - 4 - height } : { x: x + 20, y: y - height / 2 };
  lane.label(lines, at, 'start', symbol.refs);
  return { does, baseX, emitterX: pin('emitter').x };
}

/** A zener that holds a base above an output drawn further right: named there instead of led there. @param far the output */
export function follows(lane: Ladder, group: Group, inner: string, far: string, rail: 0 | 1): void {
  const [part] = group;
  const side: Side = rail === 0 ? 1 : -1;
  const [anode, cathode] = [netAt(part, 'anode'), netAt(part, 'cathode')];
  const lines = labelOf(group);
  const x = lane.advance(32 + Math.max(widthOf(lines), widthOf([far])) + 14) + 16;
  const y = lane.yOf(inner) + side * 34;
  const up: Point = { x, y };
  const symbol = lane.place('zener', group, up, (side === 1) === (inner === cathode) ? 3 : 1, false, false, {
    anode,
    cathode,
  });
  const near = symbol.pins.find((p) => p.net === inner)!;
  lane.lead(inner, near);
  const other = symbol.pins.find((p) => p.net === far)!;
  const end = { x, y: other.y + side * 22 };
  lane.wires.push({ net: far, from: other, to: end });
  lane.symbols.push({ ...mark('flag', end, far, 8, 8), pins: [{ name: 'at', net: far, x, y: end.y }] });
  lane.label(lines, { x: x + 20, y: y - 7 * lines.length }, 'start', symbol.refs);
  lane.label([far], { x: x + 10, y: end.y - 7 + 6 * side }, 'start', [], far);
}

/** Where the line of a net ends to the left of its next part: the lead of a small transistor comes down there. */
export function endX(lane: Ladder, net: string): number {
  const pins = lane.symbols.flatMap((s) => s.pins.filter((p) => p.net === net).map((p) => p.x));
  return Math.max(...pins) - 4;
}
