import { netAt } from '@/core/netlist/netlist';
import { widthOf, type Group } from './drawing';
import { labelOf } from './groups';
import type { Ladder } from './ladder';
import { mark } from './marks';

/** Half of what lies between the two leads of the mains, and what a heater takes, px. */
const MAINS_HALF = 34;
const HEATER = 56;
const EARTH = 36;

/** Inlet, fuse, switch and cut-out, in two lines up to the primary. */
export function mainsLines(
  lane: Ladder,
  own: readonly Group[],
  levels: readonly number[],
  core: Group | undefined,
): void {
  const parts = own.filter(([p]) => p.block === 'mains' && p.kind !== 'source');
  if (parts.length === 0 || core?.[0].kind !== 'transformer') return;
  const [top, bottom] = [Math.min(...levels), Math.max(...levels)];
  const middle = (top + bottom) / 2;
  const [live, neutral] = [middle - MAINS_HALF, middle + MAINS_HALF];
  for (const group of parts) {
    const [part] = group;
    for (const { net } of part.pins)
      lane.level(net, net === 'PE' ? neutral + EARTH : net.startsWith('N') ? neutral : live);
    if (part.kind === 'inlet') {
      const x = lane.advance(96) + 40;
      const earth = part.pins.find((p) => p.net === 'PE');
      const [from, to] = [live - 20, earth ? neutral + EARTH + 20 : neutral + 20];
      lane.symbols.push({
        kind: 'inlet',
        refs: [part.ref],
        x,
        y: (from + to) / 2,
        turn: 0,
        mirrored: false,
        length: 44,
        breadth: to - from,
        pins: part.pins.map((p) => ({ ...p, x: x + 22, y: lane.yOf(p.net) })),
        negative: false,
        charging: false,
      });
      for (const p of part.pins) lane.touch(p.net, x + 22);
      const lines = labelOf(group);
      lane.label(lines, { x, y: from - 6 - 14 * lines.length }, 'middle', [part.ref]);
      if (earth) {
        const at = { x: x + 36, y: lane.yOf('PE') };
        lane.touch('PE', at.x);
        lane.symbols.push(mark('earth', { x: at.x + 7, y: at.y }, 'PE', 14, 20));
      }
    } else if (part.kind === 'switch') {
      const lines = labelOf(group);
      const width = Math.max(56, widthOf(lines) + 8);
      const x = lane.advance(width + 8) + width / 2;
      const both = part.pins.length > 2;
      lane.symbols.push({
        kind: 'switch',
        refs: [part.ref],
        x,
        y: both ? middle : live,
        turn: 0,
        mirrored: both,
        length: 34,
        breadth: both ? 2 * MAINS_HALF + 16 : 16,
        pins: part.pins.map((p) => ({ ...p, x: x + (p.name.startsWith('a') ? -17 : 17), y: lane.yOf(p.net) })),
        negative: false,
        charging: false,
      });
      for (const p of part.pins) lane.touch(p.net, x + (p.name.startsWith('a') ? -17 : 17));
      lane.label(lines, { x, y: live - 16 - 14 * lines.length }, 'middle', [part.ref]);
    } else {
      lane.lie(group, labelOf(group), ['a', netAt(part, 'a')], ['b', netAt(part, 'b')], live, 1);
    }
  }
}

/** Primary and secondary windings about their core, heaters below them. */
export function windingCoils(lane: Ladder, [core]: Group, bottom: number, groups: readonly Group[]): void {
  const lines = labelOf([core]);
  const x = lane.advance(Math.max(96, widthOf(lines) + 12)) + 26;
  const coil = (
    kind: 'coil' | 'primary',
    at: number,
    a: { name: string; net: string },
    b: { name: string; net: string },
  ) => {
    const [ya, yb] = [lane.yOf(a.net), lane.yOf(b.net)];
    lane.symbols.push({
      kind,
      refs: [core.ref],
      x: at,
      y: (ya + yb) / 2,
      turn: 1,
      mirrored: false,
      length: Math.abs(yb - ya),
      breadth: 16,
      pins: [
        { ...a, x: at, y: ya },
        { ...b, x: at, y: yb },
      ],
      negative: false,
      charging: kind === 'coil',
    });
    lane.touch(a.net, at);
    lane.touch(b.net, at);
  };
  const pin = (name: string) => core.pins.find((p) => p.name === name)!;
  if (core.pins.some((p) => p.name === 'primary L')) coil('primary', x, pin('primary L'), pin('primary N'));
  const starts = core.pins.filter((p) => p.name.endsWith('start'));
  for (const start of starts) coil('coil', x + 34, start, pin(start.name.replace('start', 'end')));
  const top = Math.min(...core.pins.filter((p) => lane.hasLevel(p.net)).map((p) => lane.yOf(p.net)));
  lane.label(lines, { x: x + 17, y: top - 12 - 14 * lines.length }, 'middle', [core.ref]);
  let below = Math.max(bottom, ...core.pins.filter((p) => lane.hasLevel(p.net)).map((p) => lane.yOf(p.net))) + 34;
  for (const group of groups.filter(([p]) => p.kind === 'heater')) {
    const [heater] = group;
    lane.level(netAt(heater, 'a'), below);
    lane.level(netAt(heater, 'b'), below + HEATER);
    const on = (end: 'a' | 'b') => core.pins.find((p) => p.net === netAt(heater, end))!;
    coil('coil', x + 34, on('a'), on('b'));
    lane.stand(group, labelOf(group), { at: x + 76 });
    below += HEATER + 34;
  }
  const coils = lane.symbols.filter((c) => c.refs[0] === core.ref);
  if (!coils.some((c) => c.kind === 'primary')) return;
  const from = Math.min(...coils.map((c) => c.y - c.length / 2));
  const to = Math.max(...coils.map((c) => c.y + c.length / 2));
  lane.symbols.push({
    kind: 'core',
    refs: [core.ref],
    x: x + 17,
    y: (from + to) / 2,
    turn: 1,
    mirrored: false,
    length: to - from,
    breadth: 6,
    pins: [],
    negative: false,
    charging: false,
  });
}
