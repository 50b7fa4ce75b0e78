import type { Netlist } from '@/core/netlist/netlist';
import { widthOf, type DrawnSymbol, type Point, type SymbolKind } from './drawing';
import type { Ladder } from './ladder';

/** A symbol that is no part: one pin to its left, or at its middle. */
export function mark(kind: SymbolKind, at: Point, net: string, length: number, breadth: number): DrawnSymbol {
  return {
    kind,
    refs: [],
    ...at,
    turn: 0,
    mirrored: false,
    length,
    breadth,
    pins: [{ name: 'at', net, x: kind === 'test-point' || kind === 'terminal' ? at.x : at.x - length / 2, y: at.y }],
    negative: false,
    charging: false,
  };
}

/** Where a probe goes: a ring on the line, named above it, or below the lines of a minus rail. */
export function testMark(
  lane: Ladder,
  { tests, said }: { tests: Netlist['tests']; said: ReadonlyMap<string, string> },
  at: (net: string) => boolean,
  below = false,
): void {
  for (const test of tests.filter((t) => at(t.net) && lane.hasLevel(t.net))) {
    const reading = said.get(test.ref);
    const lines = reading === undefined ? [test.ref] : [test.ref, reading];
    const width = Math.max(46, widthOf(lines) + 8);
    const x = lane.advance(width) + width / 2;
    const y = lane.yOf(test.net);
    lane.touch(test.net, x);
    lane.symbols.push({ ...mark('test-point', { x, y }, test.net, 9, 9), refs: [test.ref] });
    lane.label(lines, { x, y: below ? y + 9 : y - 9 - 14 * lines.length }, 'middle', [], test.net);
  }
}

/** The end of a line that goes on elsewhere: its name, and a sign where it stops. */
export function nameEnd(lane: Ladder, net: string, x: number, side: 'left' | 'right'): void {
  const y = lane.yOf(net);
  const out = side === 'left' ? -1 : 1;
  lane.touch(net, x - 4 * out);
  // Two rails have one ground.
  if (lane.symbols.some((s) => s.kind === 'flag' && s.x === x && s.y === y)) return;
  lane.symbols.push({ ...mark('flag', { x, y }, net, 8, 8), pins: [{ name: 'at', net, x: x - 4 * out, y }] });
  lane.label([net], { x: x + 6 * out, y: y - 7 }, side === 'left' ? 'end' : 'start', [], net);
}
