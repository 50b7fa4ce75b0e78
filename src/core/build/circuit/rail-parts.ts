import { GROUND, netAt } from '@/core/netlist/netlist';
import type { Group } from './drawing';
import { widthOf } from './drawing';
import { labelOf, type drawnNetlist } from './groups';
import { endsOf, type Ladder, type Side } from './ladder';
import { mark, testMark } from './marks';

/**
 * What hangs on a rail or lies in it, from left to right in the netlist's order: the rail's nets follow one another in
 * one line, ground is another, and what lies between two in series is a line half way.
 * @param groundY where the ground line is
 */
export function railParts(
  lane: Ladder,
  drawn: ReturnType<typeof drawnNetlist>,
  groups: readonly Group[],
  rail: 0 | 1,
  groundY: number,
): void {
  const side: Side = rail === 0 ? 1 : -1;
  const marked = new Set<string>();
  /** A probe's place, once what stands on its net has begun. */
  const probe = (net: string) => {
    if (marked.has(net)) return;
    marked.add(net);
    testMark(lane, drawn, (n) => n === net, rail === 1);
  };
  const placed = new Set<Group>();
  for (const group of groups) {
    if (placed.has(group)) continue;
    placed.add(group);
    const [part] = group;
    if (part.kind === 'terminal') {
      const net = netAt(part, rail === 1 ? 'minus' : 'plus');
      terminal(lane, group, net);
      continue;
    }
    const [a, b] = endsOf(part.kind).map((pin) => netAt(part, pin)) as [string, string];
    const names = endsOf(part.kind);
    const bus = (net: string) => net !== GROUND && drawn.netOf(net).role !== 'inside';
    if (bus(a) && bus(b)) {
      const y = lane.yOf(a);
      lane.level(b, y);
      probe(a);
      lane.lie(group, labelOf(group), [names[0], a], [names[1], b], y, side);
      continue;
    }
    const middle = [a, b].find((net) => net !== GROUND && !bus(net));
    if (middle === undefined) {
      lane.stand(group, labelOf(group), { charging: part.line === 'reservoir' });
      if (part.line === 'reservoir') probe(bus(a) ? a : b);
      continue;
    }
    // Two in series, one below the other.
    const rest = groups.filter((g) => !placed.has(g) && g[0].pins.some((p) => p.net === middle));
    const partner = rest.find((g) => g[0].line === part.line) ?? rest[0];
    const outer = [a, b].find((net) => net !== middle)!;
    if (!lane.hasLevel(middle)) {
      const far = partner ? partner[0].pins.map((p) => p.net).find((n) => n !== middle)! : GROUND;
      lane.level(middle, (lane.yOf(outer) + (far === GROUND ? groundY : lane.yOf(far))) / 2);
    }
    const charging = part.line === 'reservoir';
    const column = lane.stand(group, labelOf(group), {
      charging,
      room: partner ? widthOf(labelOf(partner)) : 0,
    });
    if (!partner) continue;
    placed.add(partner);
    lane.stand(partner, labelOf(partner), { at: column, charging });
    if (charging) probe(bus(outer) ? outer : partner[0].pins.map((p) => p.net).find((n) => n !== middle && bus(n))!);
  }
}

/** The two clamps an output ends in. */
export function terminal(lane: Ladder, group: Group, net: string): void {
  const lines = labelOf(group);
  const x = lane.advance(34 + widthOf(lines)) + 18;
  const [y, groundY] = [lane.yOf(net), lane.yOf(GROUND)];
  for (const [at, which] of [
    [y, net],
    [groundY, GROUND],
  ] as const) {
    lane.touch(which, x);
    // Two rails end in one clamp at ground.
    const shared = lane.symbols.findIndex((s) => s.kind === 'terminal' && s.x === x && s.y === at);
    if (shared >= 0) {
      const clamp = lane.symbols[shared]!;
      lane.symbols[shared] = { ...clamp, refs: [...clamp.refs, group[0].ref] };
      continue;
    }
    lane.symbols.push({ ...mark('terminal', { x, y: at }, which, 9, 9), refs: [group[0].ref] });
  }
  lane.label(lines, { x: x + 10, y: y < groundY ? y + 6 : y - 6 - 14 * lines.length }, 'start', [group[0].ref]);
}
