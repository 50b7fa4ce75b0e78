import { GROUND, RAW, netAt } from '@/core/netlist/netlist';
import { widthOf } from './drawing';
import { labelOf, type drawnNetlist } from './groups';
import { ladder, type Ladder } from './ladder';
import { lineOrder } from './line-order';
import { mainsLines, windingCoils } from './mains-lines';
import { nameEnd, testMark } from './marks';
import { railParts } from './rail-parts';
import { halfNets, rectifierColumns, unitsOf } from './rectifier-columns';

type Drawn = ReturnType<typeof drawnNetlist>;

/** Between two lines of the rectifier, px; with two diodes in series between them, more. */
const SLOT = 64;
const CHAINED_SLOT = 112;
/** From a rail to ground, at least. */
const DEPTH = 192;
/** Above the rail: what lies in it is named there. */
const TOP = 66;
/** What lies half way keeps so far from another line. */
const ASIDE = 18;

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

  mainsLines(
    lane,
    own,
    windings.flat().map((n) => lane.yOf(n)),
    core,
  );
  if (core) windingCoils(lane, core, bottom, groups);
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
  rectifierColumns(lane, units, order, halves);
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
