import { GROUND, netAt } from '@/core/netlist/netlist';
import { widthOf, type Group, type Point } from './drawing';
import { labelOf, type drawnNetlist } from './groups';
import { endsOf, ladder, type Ladder, type Side } from './ladder';
import { mark, nameEnd, testMark } from './marks';
import { railParts, terminal } from './rail-parts';

type Drawn = ReturnType<typeof drawnNetlist>;

const TOP = 96;
/** From the rail to ground: of a regulator on a chip, and of one of single parts. */
const DEPTH = 190;
const DEEP = 330;
/** Above the rail, where what leads around a regulator lies, px. */
const OVER = 52;
const WIDTH = 104;
const BOX = 46;

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
    net !== GROUND && (drawn.netOf(net).role !== 'inside' || ['emitter', 'sense'].includes(local(net) ?? ''));
  for (const [part] of groups)
    for (const { net } of part.pins) {
      if (net === GROUND) continue;
      if (onBus(net)) lane.level(net, bus);
      else if (local(net) !== undefined) {
        const levels = deep && part.block === 'regulator' ? STACKED : SHALLOW;
        lane.level(net, inward(levels[local(net)!] ?? 0.5));
      }
    }
  const first = groups.find(([p]) => p.block !== 'output')![0];
  const fed = first.pins.map((p) => p.net).find((net) => onBus(net) && !['output'].includes(drawn.netOf(net).role))!;
  const width = widthOf([fed]) + 16;
  const inX = lane.advance(width + 10) + width;
  for (const net of [fed, GROUND]) nameEnd(lane, net, inX, 'left');
  // The amplifiers of a bench supply take theirs ahead of its other parts.
  const supply = groups.find(([p]) => p.kind === 'control' && p.pins.some((x) => x.name === 'supply'));
  let fedX: number | null = null;
  const out = groups.find(([p]) => p.kind === 'terminal')![0];
  const outNet = netAt(out, rail === 1 ? 'minus' : 'plus');
  const names = (group: Group) => endsOf(group[0].kind);
  const nets = (group: Group) => names(group).map((pin) => netAt(group[0], pin)) as [string, string];
  const device = groups.find(([p]) => p.kind === 'regulator' && p.block === 'regulator');
  let over: Group | null = null;
  let column: number | null = null;
  let errorAt: number | null = null;
  /** Columns that leads of a control circuit come down. */
  let driveX = lane.x;
  const rest: Group[] = [];
  for (const group of groups) {
    const [part] = group;
    if (part.block === 'output') {
      rest.push(group);
      continue;
    }
    if (supply && part.block === 'regulator') fedX ??= lane.advance(34) + 14;
    switch (part.kind) {
      case 'regulator':
        chip(lane, group, rail, part === device?.[0] ? over : null);
        break;
      case 'transistor': {
        const [c, b, e] = ['collector', 'base', 'emitter'].map((pin) => netAt(part, pin)) as [string, string, string];
        if (onBus(c) && onBus(e)) {
          const baseX = pass(lane, group, rail);
          if (local(b) === 'drive') driveX = baseX;
        } else {
          const limits = onBus(b);
          const sensed = limits ? senseX(lane, b) : 0;
          const error = !onBus(c) && !onBus(e);
          const lines = labelOf(group);
          // The base looks to where its net comes from.
          const baseSide = error ? 'right' : 'left';
          const x = lane.advance(baseSide === 'left' ? 34 : 20) + (baseSide === 'left' ? 34 : 20);
          lane.advance(26 + widthOf(lines) + (error ? 8 : 0));
          const y = error ? lane.yOf(b) : (lane.yOf(c) + lane.yOf(e)) / 2;
          const up = lane.yOf(c) < lane.yOf(e);
          const symbol = lane.place(
            'transistor',
            group,
            { x, y },
            baseSide === 'left' ? 0 : 2,
            baseSide === 'left' ? !up : up,
            false,
            { collector: c, base: b, emitter: e },
          );
          const pin = (name: string) => symbol.pins.find((p) => p.name === name)!;
          lane.lead(c, pin('collector'));
          lane.lead(e, pin('emitter'));
          if (limits) lane.bentLead(b, pin('base'), sensed);
          else if (error) lane.bentLead(b, pin('base'), pin('base').x + 8);
          else {
            driveX = pin('base').x - 10;
            lane.bentLead(b, pin('base'), driveX);
          }
          if (error) errorAt = pin('emitter').x;
          lane.label(
            lines,
            error
              ? { x: x + 19, y: side === 1 ? y + 4 : y - 4 - 14 * lines.length }
              : { x: x + 20, y: y - 7 * lines.length },
            'start',
            symbol.refs,
          );
        }
        break;
      }
      case 'control':
        controlBox(lane, group, { driveX, fedX: fedX ?? driveX, side, y: inward(0.68), half: 0.16 * depth });
        break;
      case 'pot': {
        const wiper = netAt(part, 'wiper');
        const lines = labelOf(group);
        const side = [netAt(part, 'a'), netAt(part, 'b')].includes(wiper) ? 'right' : 'left';
        column = lane.stand(group, lines, {
          ...(column === null ? {} : { at: column }),
          wiper: { net: wiper, side },
        });
        break;
      }
      default: {
        const [a, b] = nets(group);
        if (onBus(a) && onBus(b)) {
          if (part.kind === 'diode') over = group;
          else lane.lie(group, labelOf(group), [names(group)[0], a], [names(group)[1], b], bus, side);
          break;
        }
        if (part.kind === 'zener' && part.block === 'ahead' && [a, b].includes(outNet)) {
          follows(lane, group, a, b, rail);
          break;
        }
        const divides = part.what.startsWith('sets the output');
        const room =
          10 +
          Math.max(
            ...groups.filter(([p]) => p.what.startsWith('sets') || p.kind === 'pot').map((g) => widthOf(labelOf(g))),
            0,
          );
        const at = divides
          ? column
          : part.kind === 'zener' &&
              local(part.pins[0]!.net === GROUND ? part.pins[1]!.net : part.pins[0]!.net) === 'reference'
            ? errorAt
            : null;
        const stood = lane.stand(group, labelOf(group), {
          ...(at === null ? {} : { at }),
          ...(divides ? { room } : {}),
        });
        if (divides) column = stood;
      }
    }
    if (part.kind === 'resistor' && column === null && part.what.startsWith('sets')) column = lane.x;
  }
  testMark(lane, drawn, (net) => net === outNet, rail === 1);
  railParts(
    lane,
    drawn,
    rest.filter(([p]) => p.kind !== 'terminal'),
    rail,
    groundY,
  );
  terminal(
    lane,
    rest.find(([p]) => p.kind === 'terminal')!,
    outNet,
  );
}

/** A regulator of three terminals in its line, what leads around it above it. */
function chip(lane: Ladder, group: Group, rail: 0 | 1, over: Group | null): void {
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
  const y = bus - side * (height / 2 + OVER - 24);
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

/** A pass transistor in its line, its base towards ground. @returns where its base is */
function pass(lane: Ladder, group: Group, rail: 0 | 1): number {
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

/** A zener that holds a base above an output drawn further right: named there instead of led there. */
function follows(lane: Ladder, group: Group, anode: string, cathode: string, rail: 0 | 1): void {
  const [part] = group;
  const side: Side = rail === 0 ? 1 : -1;
  const inner = [anode, cathode].find(
    (net) =>
      lane.yOf(net) !== lane.yOf(GROUND) && lane.yOf(net) !== lane.yOf(netAt(part, rail === 0 ? 'anode' : 'cathode')),
  )!;
  const far = inner === anode ? cathode : anode;
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
function senseX(lane: Ladder, net: string): number {
  const pins = lane.symbols.flatMap((s) => s.pins.filter((p) => p.net === net).map((p) => p.x));
  return Math.max(...pins) - 4;
}

/** The amplifiers of a bench supply: one box below the line, a lead up to each net it looks at. */
function controlBox(
  lane: Ladder,
  group: Group,
  { driveX, fedX, side, y, half }: { driveX: number; fedX: number; side: Side; y: number; half: number },
): void {
  const [part] = group;
  const lines = labelOf(group);
  const xOf: Record<string, number> = {
    supply: fedX,
    drive: driveX,
    sense: senseX(lane, netAt(part, 'sense')),
    out: lane.advance(20) + 6,
  };
  const pins = part.pins.filter((p) => p.name !== 'ground').map((p) => ({ ...p, x: xOf[p.name]!, y: y - side * half }));
  const left = Math.min(...pins.map((p) => p.x)) - 14;
  const right = Math.max(...pins.map((p) => p.x)) + 14;
  const middle = (left + right) / 2;
  const foot = { name: 'ground', net: GROUND, x: middle, y: y + side * half };
  lane.symbols.push({
    kind: 'control',
    refs: group.map((p) => p.ref),
    x: middle,
    y,
    turn: 0,
    mirrored: side === -1,
    length: right - left,
    breadth: 2 * half,
    pins: [...pins, foot],
    negative: false,
    charging: false,
  });
  for (const pin of [...pins, foot]) lane.lead(pin.net, pin);
  lane.label(
    lines,
    { x: middle, y: y - 7 * lines.length },
    'middle',
    group.map((p) => p.ref),
  );
}
