import { GROUND, RAW, netAt, type NetPart } from '@/core/netlist/netlist';
import { labelOf, type drawnNetlist } from './groups';
import { widthOf, type Group, type SymbolKind } from './drawing';
import { ladder, type Ladder } from './ladder';
import { lineOrder } from './line-order';
import { mark, nameEnd, testMark } from './marks';
import { railParts } from './rail-parts';

type Drawn = ReturnType<typeof drawnNetlist>;

/** Between two lines of the rectifier, px; with two diodes in series between them, more. */
const SLOT = 64;
const CHAINED_SLOT = 112;
/** From a rail to ground, at least. */
const DEPTH = 192;
/** Above the rail: what lies in it is named there. */
const TOP = 66;
/** Half of what lies between the two leads of the mains, and what a heater takes, px. */
const MAINS_HALF = 34;
const HEATER = 56;
const EARTH = 36;
/** What lies half way keeps so far from another line. */
const ASIDE = 18;

interface Unit {
  group: Group;
  lines: readonly string[];
  /** Nets at its ends with the pins they are drawn at. */
  from: readonly [string, string];
  to: readonly [string, string];
  kind: 'diode' | 'valve' | NetPart['kind'];
}

/** From the mains to what the regulators are fed from: source, transformer, rectifier, filter and reservoir. */
export function sourceLane(drawn: Drawn): Ladder {
  const { groups } = drawn;
  const own = groups.filter(([p]) => ['mains', 'transformer', 'rectifier', 'filter'].includes(p.block));
  const core = own.find(([p]) => p.kind === 'transformer' || (p.kind === 'source' && p.block === 'transformer'));
  const fuses = own.filter(([p]) => p.kind === 'fuse' && p.block === 'rectifier');
  /** A net ahead of a fuse lies in one line with the net behind it. */
  const behind = new Map(fuses.map(([p]) => [netAt(p, 'a'), netAt(p, 'b')]));
  const inLine = (net: string) => behind.get(net) ?? net;
  const units = own.filter(([p]) => p.block === 'rectifier' && p.kind !== 'fuse').flatMap(unitsOf);
  // What all of them are stands at the first.
  units.filter((u) => u.group[0].line === 'rectifier').forEach((u, n) => n > 0 && (u.lines = u.lines.slice(0, 1)));
  const windings = core
    ? core[0].pins
        .filter((p) => p.name.startsWith('winding') && p.name.endsWith('start'))
        .map((p) => [inLine(p.net), inLine(netAt(core[0], p.name.replace('start', 'end')))] as const)
    : own.filter(([p]) => p.kind === 'source').map(([p]) => [inLine(netAt(p, 'plus')), GROUND] as const);
  const rails = groups.some(([p]) => p.rail === 1) ? 2 : 1;
  // Between two alike parts in series nothing else hangs: they stand in one column.
  const halves = halfNets(units);
  const inner = [...new Set(units.flatMap((u) => [u.from[1], u.to[1]]))].filter(
    (net) => ![RAW[0], RAW[1], GROUND].includes(net as never) && !halves.has(net),
  );
  for (const net of windings.flat()) if (net !== GROUND && net !== RAW[0] && !inner.includes(net)) inner.push(net);
  const chained = halves.size > 0;
  const slot = chained ? CHAINED_SLOT : SLOT;
  const order = lineOrder(
    inner,
    units.map((u) => halves.get(u.from[1]) ?? halves.get(u.to[1]) ?? ([u.from[1], u.to[1]] as const)),
    windings,
    rails,
  );
  const lane = ladder(0);
  const above = order.indexOf(GROUND);
  const below = order.length - above - 1;
  const depth = Math.max(DEPTH, (above + 1) * slot, rails === 2 ? (below + 1) * slot : 0);
  const ground = TOP + depth;
  order.forEach((net, n) => {
    if (n < above) lane.level(net, TOP + (depth * (n + 1)) / (above + 1));
    else if (net === GROUND) lane.level(net, ground);
    else lane.level(net, rails === 2 ? ground + (depth * (n - above)) / (below + 1) : ground + slot * (n - above));
  });
  lane.level(RAW[0], TOP);
  if (rails === 2) lane.level(RAW[1], ground + depth);
  for (const [ahead, net] of behind) lane.level(ahead, lane.yOf(net));
  const lines = [...order, RAW[0], ...(rails === 2 ? [RAW[1]] : [])].map((net) => lane.yOf(net));
  for (const [net, [one, other]] of halves) {
    const y = (lane.yOf(one) + lane.yOf(other)) / 2;
    lane.level(net, lines.some((l) => Math.abs(l - y) < ASIDE) ? y - ASIDE : y);
  }
  const bottom = rails === 2 ? ground + depth : ground + slot * below;

  mains(
    lane,
    own,
    windings.flat().map((n) => lane.yOf(n)),
    core,
  );
  if (core) windingsOf(lane, core, bottom, groups);
  else {
    const [source] = own.find(([p]) => p.kind === 'source')!;
    lane.stand([source], labelOf([source]));
  }
  for (const fuse of fuses)
    lane.lie(
      fuse,
      labelOf(fuse),
      ['a', netAt(fuse[0], 'a')],
      ['b', netAt(fuse[0], 'b')],
      lane.yOf(netAt(fuse[0], 'b')),
      1,
    );
  testMark(lane, drawn, (net) => windings.flat().includes(net) && net !== GROUND);
  rectifier(lane, units, order, halves);
  const from = lane.x;
  let to = from;
  for (let r = 0; r < rails; r++) {
    lane.seek(from);
    railParts(
      lane,
      drawn,
      own.filter(([p]) => p.block === 'filter' && p.rail === r),
      r as 0 | 1,
      ground,
    );
    const end = groups.filter(([p]) => p.block === 'output' && p.kind === 'terminal' && p.rail === r);
    for (const terminal of end)
      if (lane.hasLevel(netAt(terminal[0], r === 1 ? 'minus' : 'plus')))
        railParts(lane, drawn, [terminal], r as 0 | 1, ground);
    to = Math.max(to, lane.x);
  }
  lane.seek(to);
  // What goes on in the drawings of the outputs is named where it leaves this one.
  const fed = [
    ...new Set(
      groups.filter(([p]) => p.block === 'ahead' || p.block === 'regulator').flatMap(([p]) => p.pins.map((x) => x.net)),
    ),
  ];
  const leaving = fed.filter((net) => lane.hasLevel(net));
  if (leaving.length > 0) {
    const x = lane.advance(30 + Math.max(...leaving.map((net) => widthOf([net])))) + 14;
    for (const net of leaving) nameEnd(lane, net, x, 'right');
  }
  return lane;
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
function rectifier(
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

/** Inlet, fuse, switch and cut-out, in two lines up to the primary. */
function mains(lane: Ladder, own: readonly Group[], levels: readonly number[], core: Group | undefined): void {
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
function windingsOf(lane: Ladder, [core]: Group, bottom: number, groups: readonly Group[]): void {
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

/** A part of the rectifier as it is drawn: a block of four is four diodes, a bulb one symbol an anode. */
function unitsOf(group: Group): Unit[] {
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
