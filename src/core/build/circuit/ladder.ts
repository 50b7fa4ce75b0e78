import { netAt, type PartKind } from '@/core/netlist/netlist';
import {
  LINE_PX,
  widthOf,
  type DrawnLabel,
  type DrawnPin,
  type DrawnSymbol,
  type Group,
  type Point,
  type SymbolKind,
  type Wire,
} from './drawing';
import { shapeOf, turned } from './shapes';

/** Between a symbol and its label, and around both, px. */
const GAP = 6;
const PAD = 9;
/** Half the room a standing symbol has to its left, px. */
const HALF = 16;
/** How far beside a pot its wiper's lead goes down, px. */
const BENT = 22;
/** Where the wiper itself ends. */
const WIPER = 15;

/** One side of the ground line: plus rails lie above it, minus rails mirrored below. */
export type Side = 1 | -1;

interface Standing {
  group: Group;
  kind: SymbolKind;
  /** Pins and nets at its ends, the one of smaller y first. */
  up: [pin: string, net: string];
  down: [pin: string, net: string];
  x: number;
  lines: readonly string[];
  charging: boolean;
  /** A wiper: its net, and to which side it looks. */
  wiper: { net: string; side: 'left' | 'right' } | null;
}

/**
 * A circuit drawn as a ladder: every net is a level line, what lies between two lines stands in a column of its own, and
 * what joins two nets of one line lies in it. Columns come one after the other; where they cross a line of another net
 * they hop over it.
 */
export function ladder(startX: number) {
  const levels = new Map<string, number>();
  const touched = new Map<string, number[]>();
  const symbols: DrawnSymbol[] = [];
  const wires: Wire[] = [];
  const labels: DrawnLabel[] = [];
  const standing: Standing[] = [];
  let x = startX;

  const yOf = (net: string): number => {
    const y = levels.get(net);
    if (y === undefined) throw new RangeError(`no level for ${net}`);
    return y;
  };
  /** A lead from a net's line to a pin. */
  function lead(net: string, pin: Point): void {
    const y = yOf(net);
    touched.set(net, [...(touched.get(net) ?? []), pin.x]);
    if (y !== pin.y) wires.push({ net, from: { x: pin.x, y }, to: pin });
  }
  /** A lead that first goes level to a place of its own. */
  function bentLead(net: string, pin: Point, atX: number): void {
    const y = yOf(net);
    if (y === pin.y) {
      touched.set(net, [...(touched.get(net) ?? []), pin.x]);
      return;
    }
    wires.push({ net, from: pin, to: { x: atX, y: pin.y } });
    lead(net, { x: atX, y: pin.y });
  }
  function place(
    kind: SymbolKind,
    group: Group | null,
    at: Point,
    turn: DrawnSymbol['turn'],
    mirrored: boolean,
    charging: boolean,
    nets: Readonly<Record<string, string>>,
  ): DrawnSymbol {
    const { length, breadth, pins } = shapeOf(kind);
    const drawn: DrawnPin[] = Object.entries(pins).map(([name, p]) => {
      const t = turned(p, turn, mirrored);
      return { name, net: nets[name]!, x: at.x + t.x, y: at.y + t.y };
    });
    const symbol: DrawnSymbol = {
      kind,
      refs: group?.map((p) => p.ref) ?? [],
      ...at,
      turn,
      mirrored,
      length,
      breadth,
      pins: drawn,
      negative: group?.[0].negative ?? false,
      charging,
    };
    symbols.push(symbol);
    return symbol;
  }
  function label(
    lines: readonly string[],
    at: Point,
    align: DrawnLabel['align'],
    refs: readonly string[],
    net: string | null = null,
  ): void {
    const width = widthOf(lines);
    const left = align === 'start' ? at.x : align === 'end' ? at.x - width : at.x - width / 2;
    labels.push({ lines, x: left, y: at.y, width, height: lines.length * LINE_PX, align, refs, net });
  }

  return {
    symbols,
    wires,
    labels,
    yOf,
    lead,
    bentLead,
    label,
    place,
    level(net: string, y: number): void {
      levels.set(net, y);
    },
    hasLevel: (net: string) => levels.has(net),
    seek(to: number): void {
      x = to;
    },
    get x() {
      return x;
    },
    advance(width: number): number {
      const from = x;
      x += width;
      return from;
    },
    touch(net: string, at: number): void {
      touched.set(net, [...(touched.get(net) ?? []), at]);
    },
    /** A part of two ends between two levels, in a column of its own, or at one that is there. @returns its column */
    stand(
      group: Group,
      lines: readonly string[],
      { kind = group[0].kind as SymbolKind, pins, at, charging = false, wiper = null, room = 0 }: StandOptions = {},
    ): number {
      const [a, b] = pins ?? endsOf(group[0].kind);
      const netA = pins ? pins[0] : [a as string, netAt(group[0], a as string)];
      const netB = pins ? pins[1] : [b as string, netAt(group[0], b as string)];
      const [up, down] = yOf(netA[1]!) <= yOf(netB[1]!) ? [netA, netB] : [netB, netA];
      const wiperRoom = wiper ? 12 : 0;
      const column =
        at ?? this.advance(2 * HALF + GAP + Math.max(room, widthOf(lines)) + PAD + wiperRoom) + HALF + wiperRoom;
      standing.push({
        group,
        kind,
        up: up as [string, string],
        down: down as [string, string],
        x: column,
        lines,
        charging,
        wiper,
      });
      // A wiper joined to one of the ends goes there beside it.
      if (wiper) {
        const beside = [up[1], down[1]].includes(wiper.net) ? BENT : (wiper.side === 'left' ? -1 : 1) * WIPER;
        touched.set(wiper.net, [...(touched.get(wiper.net) ?? []), column + beside]);
      }
      for (const net of [up[1]!, down[1]!]) touched.set(net, [...(touched.get(net) ?? []), column]);
      return column;
    },
    /** A part of two ends in a line: left of it one net, right of it another of the same level. */
    lie(
      group: Group,
      lines: readonly string[],
      left: [pin: string, net: string],
      right: [pin: string, net: string],
      y: number,
      labelSide: Side,
      charging = false,
    ): DrawnSymbol {
      const kind = group[0].kind as SymbolKind;
      const { length, breadth, pins } = shapeOf(kind);
      const width = Math.max(length + 20, widthOf(lines) + PAD);
      const from = this.advance(width + PAD);
      const middle = from + width / 2;
      const turn = Object.keys(pins)[0] === left[0] ? 0 : 2;
      const symbol = place(kind, group, { x: middle, y }, turn, false, charging, {
        [left[0]]: left[1],
        [right[0]]: right[1],
      });
      for (const pin of symbol.pins) lead(pin.net, pin);
      touched.set(left[1], [...(touched.get(left[1]) ?? []), from]);
      touched.set(right[1], [...(touched.get(right[1]) ?? []), from + width]);
      const height = lines.length * LINE_PX;
      label(
        lines,
        { x: middle, y: labelSide === 1 ? y - breadth / 2 - GAP - height : y + breadth / 2 + GAP },
        'middle',
        symbol.refs,
      );
      return symbol;
    },
    /** Finds the places of all that stands, and draws the lines. @returns how far each line goes */
    finish(): Map<string, [number, number]> {
      const extent = new Map(
        [...touched].map(([net, xs]): [string, [number, number]] => [net, [Math.min(...xs), Math.max(...xs)]]),
      );
      for (const [net, [from, to]] of extent)
        if (to > from) wires.push({ net, from: { x: from, y: yOf(net) }, to: { x: to, y: yOf(net) } });
      for (const s of standing) {
        const [top, bottom] = [yOf(s.up[1]), yOf(s.down[1])];
        const reach = s.x + HALF + GAP + widthOf(s.lines);
        const between = [...extent]
          .filter(([net, [from, to]]) => {
            const y = yOf(net);
            return y > top && y < bottom && net !== s.wiper?.net && from < reach && to > s.x - HALF;
          })
          .map(([net]) => yOf(net));
        const bounds = [top, ...between.sort((a, b) => a - b), bottom];
        const gaps = bounds.slice(1).map((y, n) => ({ from: bounds[n]!, to: y }));
        const widest = gaps.reduce((a, g) => (g.to - g.from > a.to - a.from + 1 ? g : a));
        const bent = s.wiper !== null && [s.up[1], s.down[1]].includes(s.wiper.net);
        const y = s.wiper && !bent ? yOf(s.wiper.net) : (widest.from + widest.to) / 2;
        const { pins } = shapeOf(s.kind);
        const first = Object.keys(pins)[0]!;
        const turn = first === s.up[0] ? 1 : 3;
        // A wiper looks right where its first pin is up.
        const looksRight = turn === 1;
        const mirrored = s.wiper !== null && looksRight !== (s.wiper.side === 'right');
        const symbol = place(s.kind, s.group, { x: s.x, y }, turn, mirrored, s.charging, {
          [s.up[0]]: s.up[1],
          [s.down[0]]: s.down[1],
          ...(s.wiper ? { wiper: s.wiper.net } : {}),
        });
        for (const pin of symbol.pins) {
          const net = pin.net;
          if (pin.name === 'wiper' && bent) {
            const corner = { x: s.x + BENT, y: pin.y };
            wires.push(
              { net, from: { x: pin.x, y: pin.y }, to: corner },
              { net, from: corner, to: { x: corner.x, y: yOf(net) } },
            );
          }
          const end = pin.name === 'wiper' ? null : { x: pin.x, y: yOf(net) };
          if (end && end.y !== pin.y) wires.push({ net, from: end, to: { x: pin.x, y: pin.y } });
        }
        const height = s.lines.length * LINE_PX;
        const { breadth } = symbol;
        label(
          s.lines,
          { x: s.x + (bent ? BENT + 3 : Math.max(HALF, breadth / 2 + 2)) + GAP - 4, y: y - height / 2 },
          'start',
          symbol.refs,
        );
      }
      return extent;
    },
  };
}

export type Ladder = ReturnType<typeof ladder>;

export interface StandOptions {
  kind?: SymbolKind;
  /** Its two pins with their nets, where they are not those of its kind. */
  pins?: readonly [readonly [string, string], readonly [string, string]];
  /** Column of another one it stands in line with. */
  at?: number;
  charging?: boolean;
  /** Width its label is given at least: what stands in line with it may be wider. */
  room?: number;
  wiper?: Standing['wiper'];
}

/** The two ends of a part of two ends. */
export function endsOf(kind: PartKind): readonly [string, string] {
  switch (kind) {
    case 'capacitor':
    case 'electrolytic':
    case 'fan':
    case 'source':
      return ['plus', 'minus'];
    case 'diode':
    case 'zener':
    case 'led':
    case 'valve':
      return ['anode', 'cathode'];
    default:
      return ['a', 'b'];
  }
}
