import { netAt, type NetPart } from '@/core/netlist/netlist';
import { widthOf, type Group, type SymbolKind } from './drawing';
import { labelOf } from './groups';
import type { Ladder } from './ladder';

/** A diode or a can of the rectifier as it is drawn. */
export interface Unit {
  group: Group;
  lines: readonly string[];
  /** Nets at its ends with the pins they are drawn at. */
  from: readonly [string, string];
  to: readonly [string, string];
  kind: 'diode' | 'valve' | NetPart['kind'];
}

/** A part of the rectifier as it is drawn: a block of four is four diodes, a bulb one symbol an anode. */
export function unitsOf(group: Group): Unit[] {
  const [part] = group;
  const lines = labelOf(group);
  const one = (from: [string, string], to: [string, string], kind: Unit['kind'], n: number, of: number): Unit => ({
    group,
    from,
    to,
    kind,
    lines: n === 0 ? [of > 1 ? `${lines[0]} a` : lines[0]!, ...lines.slice(1)] : [`${lines[0]} ${'abcd'[n]}`],
  });
  if (part.kind === 'bridge') {
    const at = (pin: string) => netAt(part, pin);
    return [
      one(['anode', at('AC 1')], ['cathode', at('plus')], 'diode', 0, 4),
      one(['anode', at('minus')], ['cathode', at('AC 2')], 'diode', 1, 4),
      one(['anode', at('AC 2')], ['cathode', at('plus')], 'diode', 2, 4),
      one(['anode', at('minus')], ['cathode', at('AC 1')], 'diode', 3, 4),
    ];
  }
  if (part.kind === 'valve') {
    const anodes = part.pins.filter((p) => p.name.startsWith('anode'));
    return anodes.map((p, n) => one(['anode', p.net], ['cathode', netAt(part, 'cathode')], 'valve', n, anodes.length));
  }
  const [a, b] =
    part.kind === 'diode' ? ['anode', 'cathode'] : part.kind === 'resistor' ? ['a', 'b'] : ['plus', 'minus'];
  return [one([a!, netAt(part, a!)], [b!, netAt(part, b!)], part.kind, 0, 1)];
}

/** Nets in the middle of two parts in series, with the nets the two hang between. */
export function halfNets(units: readonly Pick<Unit, 'from' | 'to' | 'kind'>[]): Map<string, readonly [string, string]> {
  const found = new Map<string, readonly [string, string]>();
  for (const net of new Set(units.flatMap((u) => [u.from[1], u.to[1]]))) {
    const there = units.filter((u) => u.from[1] === net || u.to[1] === net);
    const inSeries = there.length === 2 && there.every((u) => u.kind === 'diode' || u.kind === 'valve');
    if (!net.startsWith('middle') && !(net.startsWith('between') && inSeries)) continue;
    const [one, other] = [...new Set(there.flatMap((u) => [u.from[1], u.to[1]]))].filter((n) => n !== net);
    found.set(net, [one!, other!]);
  }
  return found;
}

/** Diodes and cans of the rectifier, from the uppermost line down: what goes up stands before what goes down. */
export function rectifierColumns(
  lane: Ladder,
  units: readonly Unit[],
  order: readonly string[],
  halves: ReadonlyMap<string, unknown>,
): void {
  const waiting = new Set(units);
  const stand = (unit: Unit, at?: number) => {
    waiting.delete(unit);
    const partner = partnerOf(unit, units, halves);
    const room = Math.max(widthOf(unit.lines), partner ? widthOf(partner.lines) : 0);
    return lane.stand(unit.group, unit.lines, {
      kind: unit.kind as SymbolKind,
      pins: [unit.from, unit.to],
      charging: true,
      room,
      ...(at === undefined ? {} : { at }),
    });
  };
  for (const net of order) {
    const y = lane.yOf(net);
    const far = (u: Unit) => lane.yOf(u.from[1] === net ? u.to[1] : u.from[1]);
    const here = [...waiting].filter((u) => u.from[1] === net || u.to[1] === net);
    for (const unit of here.sort((p, q) => Number(far(p) > y) - Number(far(q) > y))) {
      if (!waiting.has(unit)) continue;
      const column = stand(unit);
      const partner = partnerOf(unit, [...waiting], halves);
      if (partner) stand(partner, column);
    }
  }
}

/** What stands in series with a part, both in one column. */
function partnerOf(unit: Unit, among: readonly Unit[], halves: ReadonlyMap<string, unknown>): Unit | undefined {
  const half = [unit.from[1], unit.to[1]].find((net) => halves.has(net));
  if (half === undefined) return undefined;
  return among.find((u) => u !== unit && u.kind === unit.kind && (u.from[1] === half || u.to[1] === half));
}
