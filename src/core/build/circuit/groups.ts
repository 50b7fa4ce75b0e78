import { GROUND, type Net, type Netlist, type NetPart } from '@/core/netlist/netlist';
import { referencesOf } from '@/core/netlist/references';
import { pinoutOf } from '../pinouts';
import { unbroken } from '@/core/quantity/unbroken';
import { wrapped, type Group } from './drawing';

/** The netlist as it is drawn: what stands side by side and is alike is one group, each one's own nets one net. */
export function drawnNetlist(
  { parts, nets, tests }: Netlist,
  said: ReadonlyMap<string, string>,
  bears: ReadonlyMap<string, string>,
): {
  groups: Group[];
  tests: Netlist['tests'];
  /** What a probe should read at a test point, by its reference. */
  said: ReadonlyMap<string, string>;
  netOf: (name: string) => Net;
} {
  const byName = new Map(nets.map((n) => [n.name, n]));
  const drawn = (name: string) => byName.get(name)?.alike ?? name;
  const drawnNets = new Map(nets.map((n) => [drawn(n.name), { ...n, name: drawn(n.name) }]));
  const groups = new Map<string, NetPart[]>();
  for (const part of parts) {
    const pins = part.pins.map((p) => ({ ...p, net: drawn(p.net) }));
    const key = [
      part.kind,
      part.line,
      part.value,
      part.what,
      part.output,
      ...pins.flatMap((p) => [p.name, p.net]),
    ].join('|');
    const rating = part.rating || (bears.get(part.ref) ?? '');
    groups.set(key, [...(groups.get(key) ?? []), { ...part, rating, pins }]);
  }
  return {
    groups: [...groups.values()] as unknown as Group[],
    tests,
    said,
    netOf: (name) => drawnNets.get(name) ?? { name, role: name === GROUND ? 'ground' : 'inside', rail: null },
  };
}

/** What stands beside a symbol: its references, how many of what value, what it bears. */
export function labelOf(group: Group): string[] {
  const [{ value, rating, kind }] = group;
  const count = group.length > 1 && kind !== 'transistor' ? `${group.length} × ` : '';
  return [
    referencesOf(group),
    ...wrapped(unbroken(`${count}${value}`)),
    ...(rating ? [rating] : []),
    ...tabLine(group[0]),
  ];
}

/** What the metal of a power part is joined to: two that differ must not touch one sink bare. */
function tabLine(part: NetPart): string[] {
  const tab = pinoutOf(part)?.tab;
  const net = tab && part.pins.find((p) => p.name === tab)?.net;
  return net ? [`tab: ${net}`] : [];
}
