import { GROUND, netAt, type NetPart } from '@/core/netlist/netlist';
import { controlBox } from './control-box';
import { chip } from './chip';
import { widthOf, type Group } from './drawing';
import { labelOf, type drawnNetlist } from './groups';
import { endsOf, ladder, type Ladder, type Side } from './ladder';
import { nameEnd, testMark } from './marks';
import { railParts, terminal } from './rail-parts';
import { follows, passTransistor, smallTransistor } from './transistors';

type Drawn = ReturnType<typeof drawnNetlist>;

const TOP = 96;
/** From the rail to ground: of a regulator on a chip, and of one of single parts. */
const DEPTH = 190;
const DEEP = 330;

/** How far down from the rail the lines inside a regulator lie, as shares of the way to ground. */
const SHALLOW: Readonly<Record<string, number>> = { adjust: 0.38, pot: 0.7, base: 0.4 };
const STACKED: Readonly<Record<string, number>> = {
  base: 0.2,
  drive: 0.4,
  'pot high': 0.47,
  tap: 0.6,
  'pot low': 0.73,
  reference: 0.8,
};

/** Nets inside a regulator that lie in the line of its rail. */
const IN_LINE = new Set(['emitter', 'sense']);

/** One output with its regulator, or a plus and a minus one mirrored about their ground. */
export function outputLane(drawn: Drawn, outputs: readonly string[], startX: number): Ladder {
  const of = (output: string) =>
    drawn.groups.filter(([p]) => p.output === output && ['ahead', 'regulator', 'output'].includes(p.block));
  const groups = outputs.map(of);
  const deep = groups
    .flat()
    .some(
      ([p]) =>
        p.kind === 'transistor' && p.block === 'regulator' && p.pins.some((x) => drawn.netOf(x.net).local === 'drive'),
    );
  const depth = deep ? DEEP : DEPTH;
  const rails = groups.map((g) => g[0]![0].rail as 0 | 1);
  const ground = rails[0] === 1 ? TOP : TOP + depth;
  const lane = ladder(startX);
  lane.level(GROUND, ground);
  const from = lane.x;
  let to = from;
  groups.forEach((list, n) => {
    lane.seek(from);
    regulated(lane, drawn, list, rails[n]!, ground, depth, deep);
    to = Math.max(to, lane.x);
  });
  lane.seek(to);
  return lane;
}

/** What is drawn of one regulator, from where its rail comes in to its clamps. */
function regulated(
  lane: Ladder,
  drawn: Drawn,
  groups: readonly Group[],
  rail: 0 | 1,
  groundY: number,
  depth: number,
  deep: boolean,
): void {
  const side: Side = rail === 0 ? 1 : -1;
  const bus = groundY - side * depth;
  const inward = (share: number) => bus + side * share * depth;
  const local = (net: string) => drawn.netOf(net).local;
  const onBus = (net: string) =>
    net !== GROUND && (drawn.netOf(net).role !== 'inside' || IN_LINE.has(local(net) ?? ''));
  for (const [part] of groups)
    for (const { net } of part.pins.filter((p) => p.net !== GROUND)) {
      const levels = deep && part.block === 'regulator' ? STACKED : SHALLOW;
      if (onBus(net)) lane.level(net, bus);
      else if (local(net) !== undefined) lane.level(net, inward(levels[local(net)!] ?? 0.5));
    }
  const devices = groups.filter(([p]) => p.block !== 'output');
  const fed = devices[0]![0].pins.map((p) => p.net).find((net) => onBus(net) && drawn.netOf(net).role !== 'output')!;
  const width = widthOf([fed]) + 16;
  const inX = lane.advance(width + 10) + width;
  for (const net of [fed, GROUND]) nameEnd(lane, net, inX, 'left');
  const end = groups.find(([p]) => p.kind === 'terminal')!;
  const outNet = netAt(end[0], rail === 1 ? 'minus' : 'plus');
  const main = devices.find(([p]) => p.kind === 'regulator' && p.block === 'regulator');
  // The amplifiers of a bench supply take their supply ahead of its other parts.
  const supplied = devices.some(([p]) => p.kind === 'control' && p.pins.some((x) => x.name === 'supply'));
  let suppliedX: number | null = null;
  /** What leads around the regulator, until that is drawn. */
  let over: Group | null = null;
  /** Where a divider stands, the emitter an error transistor's reference hangs on, and what drives the pass transistors. */
  let divider: number | null = null;
  let referenceX: number | null = null;
  let driveX = lane.x;
  const room = Math.max(0, ...devices.filter(([p]) => divides(p)).map((g) => widthOf(labelOf(g)))) + 10;
  for (const group of devices) {
    const [part] = group;
    if (supplied && part.block === 'regulator') suppliedX ??= lane.advance(34) + 14;
    if (part.kind === 'regulator') chip(lane, group, rail, group === main ? over : null);
    else if (part.kind === 'control')
      controlBox(lane, group, { driveX, suppliedX: suppliedX ?? driveX, side, y: inward(0.68), half: 0.16 * depth });
    else if (part.kind === 'transistor') {
      const drives = local(netAt(part, 'base')) === 'drive';
      if (onBus(netAt(part, 'collector')) && onBus(netAt(part, 'emitter'))) {
        const baseX = passTransistor(lane, group, rail);
        if (drives) driveX = baseX;
      } else {
        const at = smallTransistor(lane, group, rail, onBus);
        if (at.does === 'drives') driveX = at.baseX;
        if (at.does === 'compares') referenceX = at.emitterX;
      }
    } else {
      const [first, second] = endsOf(part.kind);
      const [a, b] = [netAt(part, first), netAt(part, second)];
      if (onBus(a) && onBus(b)) {
        if (part.kind === 'diode') over = group;
        else lane.lie(group, labelOf(group), [first, a], [second, b], bus, side);
      } else if (part.kind === 'zener' && part.block === 'ahead' && [a, b].includes(outNet))
        follows(lane, group, a === outNet ? b : a, outNet, rail);
      else if (divides(part)) {
        const at = divider === null ? {} : { at: divider };
        divider = lane.stand(group, labelOf(group), { ...at, room, wiper: wiperOf(part) });
      } else {
        const hangs = part.kind === 'zener' && [a, b].some((net) => local(net) === 'reference');
        lane.stand(group, labelOf(group), hangs && referenceX !== null ? { at: referenceX } : {});
      }
    }
  }
  testMark(lane, drawn, (net) => net === outNet, rail === 1);
  const others = groups.filter((g) => g[0].block === 'output' && g !== end);
  railParts(lane, drawn, others, rail, groundY);
  terminal(lane, end, outNet);
}

/** Whether a part stands in the column of the divider that sets the output. */
const divides = ({ kind, what }: NetPart) => kind === 'pot' || what.startsWith('sets the output');

/** A wiper that goes to a net of its own looks left, to what it sets; one joined to its own end goes down beside it. */
function wiperOf(part: NetPart): { net: string; side: 'left' | 'right' } | null {
  if (part.kind !== 'pot') return null;
  const net = netAt(part, 'wiper');
  return { net, side: [netAt(part, 'a'), netAt(part, 'b')].includes(net) ? 'right' : 'left' };
}
