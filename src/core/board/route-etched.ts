import { LEAST_MM } from './copper-rules';
import { closerThan, toPiece, type Piece } from './copper-geometry';
import {
  apartBetween,
  EDGE_MM,
  fromScrew,
  LINK_PAD,
  SCREW,
  STAR_MM,
  VIA_PAD,
  type Branch,
  type Layer,
  type OnBoard,
  type Rect,
} from './etched';
import {
  ABOVE,
  ACROSS,
  ALONG,
  CELL_MM,
  cellsOf,
  layerOf,
  layersOf,
  UNDER,
  WayFinder,
  xOf,
  yOf,
  type Grid,
  type Terrain,
} from './route-grid';

/** A track as it was found: straight pieces by layer, wires above the board, and holes that join layers. */
export interface Way {
  branch: number;
  nodes: number[];
  copper: (Piece & { layer: Layer })[];
  wires: Piece[];
  holes: { x: number; y: number }[];
  /** Points along it, close enough together that nothing slips between. */
  points: readonly { x: number; y: number; layer: Layer | 'wire' }[];
}

/** Every way of every branch, and what found none. */
export interface Routed {
  ways: Way[];
  left: { branch: number; why: string }[];
}

export interface Ground {
  wMm: number;
  hMm: number;
  sides: 1 | 2;
  apartMm: number;
  parts: readonly OnBoard[];
  branches: readonly Branch[];
  screws: readonly { xMm: number; yMm: number }[];
}

/** Tracks are laid at this width and widened where there is room, mm. */
export const TRACK_MM = 0.8;
/** Between bare wires above the board, mm. */
const WIRE_GAP_MM = 1.4;
/** A grid's cells are told by their middles: what that can miss, mm. */
const SLACK_MM = 0.08;
/** What it costs to be closer to a neighbouring leg than the volts ask, a cell; to lie where a wide track finds no room. */
const CLOSE_COST = 25;
const NARROW_COST = 0.7;
/** What it costs to cross another track, a cell, at first, and how it grows until nothing crosses. */
const PRESSURE = 3;
const GROWTH = 1.5;
/** Rounds in which what crosses is laid again, and searches altogether. */
const MOST_ROUNDS = 40;
const MOST_SEARCHES = 900;

/** Ways for all branches of a board: each the cheapest, then what crosses is laid again, ever dearer, until nothing does. */
export function* routing(ground: Ground): Generator<{ searches: number }, Routed> {
  const grid: Grid = {
    columns: Math.floor(ground.wMm / CELL_MM) + 1,
    rows: Math.floor(ground.hMm / CELL_MM) + 1,
    sides: ground.sides,
  };
  const finder = new WayFinder(grid);
  const nodes = cellsOf(grid) * layersOf(grid);
  const history = new Float32Array(nodes);
  const always = anyway(ground, grid);
  const still = ground.branches.map((_, n) => standing(ground, grid, n, always));
  const left: Routed['left'] = [];
  let ways: Way[] = [];
  let searches = 0;
  const apart = (a: number, b: number) => apartBetween(ground.branches[a]!, ground.branches[b]!, ground.apartMm);

  const terrainFor = (branch: number, pressure: number): Terrain => {
    const base = still[branch]!;
    const dear = Float32Array.from(base.dear);
    for (let n = 0; n < nodes; n++) dear[n]! += history[n]!;
    const dearForHole = Float32Array.from(base.dearForHole);
    const { star, net } = ground.branches[branch]!;
    const hole = holeMm(ground.sides) / 2;
    for (const way of ways) {
      if (way.branch === branch) continue;
      const gap = apart(branch, way.branch) + SLACK_MM;
      const shared = net === ground.branches[way.branch]!.net ? star : null;
      const inStar = (x: number, y: number) =>
        shared !== null && Math.hypot(x - shared.xMm, y - shared.yMm) < shared.padMm / 2 + STAR_MM;
      for (const { x, y, layer } of way.points) {
        if (inStar(x, y)) continue;
        if (layer === 'wire') {
          for (const above of [ACROSS, ALONG]) press(grid, dear, above, x, y, WIRE_GAP_MM, pressure);
          continue;
        }
        const under = layer === 'under' ? UNDER : ABOVE;
        press(grid, dear, under, x, y, TRACK_MM + gap, pressure);
        press(grid, dearForHole, 0, x, y, TRACK_MM / 2 + hole + gap, pressure);
      }
      for (const { x, y } of way.holes) {
        for (let l = 0; l < (ground.sides === 2 ? 2 : 1); l++)
          press(grid, dear, l, x, y, hole + TRACK_MM / 2 + gap, pressure);
        press(grid, dearForHole, 0, x, y, 2 * hole + gap, pressure);
      }
    }
    return { shut: base.shut, shutForHole: base.shutForHole, dear, dearForHole };
  };

  /** Joins what is apart of a branch. */
  function* connect(branch: number, pressure: number): Generator<{ searches: number }, boolean> {
    for (;;) {
      const groups = groupsOf(branch);
      if (groups.length < 2 || searches >= MOST_SEARCHES) return groups.length < 2;
      groups.sort((a, b) => a.length - b.length);
      const [from, ...others] = groups as [number[], ...number[][]];
      searches++;
      const found = finder.way(from, new Set(others.flat()), terrainFor(branch, pressure));
      if (!found) return false;
      ways.push(wayOf(branch, found, grid));
      yield { searches };
    }
  }

  /** Pads of a branch with what is laid to them: nodes that are one piece. Pieces without a pad are taken up. */
  const groupsOf = (branch: number): number[][] => {
    const pads = ground.parts.flatMap((p) =>
      p.pads.filter((pad) => isOn(ground, pad, branch)).map((pad) => nodesAt(grid, pad.xMm, pad.yMm)),
    );
    const groups: number[][] = pads;
    let open = ways.filter((w) => w.branch === branch);
    for (let grown = true; grown;) {
      grown = false;
      for (const way of open) {
        const ends = [way.nodes[0]!, way.nodes.at(-1)!];
        const touched = groups.filter((g) => ends.some((e) => g.includes(e)));
        if (touched.length === 0) continue;
        const [first, ...rest] = touched as [number[], ...number[][]];
        // A link is joined at its ends only, not in the air.
        const copper = ground.sides === 2 ? way.nodes : way.nodes.filter((n) => layerOf(grid, n) === UNDER);
        first.push(...copper, ...rest.flat());
        for (const g of rest) groups.splice(groups.indexOf(g), 1);
        open = open.filter((w) => w !== way);
        grown = true;
        break;
      }
    }
    if (open.length > 0) ways = ways.filter((w) => !open.includes(w));
    return groups;
  };

  const order = ground.branches
    .map((_, n) => n)
    .sort((a, b) => weight(ground.branches[a]!) - weight(ground.branches[b]!));
  const lost = new Set<number>();
  let pressure = PRESSURE;
  for (const branch of order) if (!(yield* connect(branch, pressure))) lost.add(branch);
  for (let round = 0; round < MOST_ROUNDS && searches < MOST_SEARCHES; round++) {
    const clashing = clashes(ways, ground);
    if (clashing.length === 0) break;
    pressure *= GROWTH;
    const again = new Set(clashing.flat());
    for (const [a, b] of clashing) remember(history, [a, b], grid);
    for (const way of again) {
      if (!ways.includes(way)) continue;
      ways = ways.filter((w) => w !== way);
      if (!(yield* connect(way.branch, pressure))) lost.add(way.branch);
    }
  }
  // What still crosses gives way, the one that crosses most first.
  for (let clashing = clashes(ways, ground); clashing.length > 0; clashing = clashes(ways, ground)) {
    const count = new Map<Way, number>();
    for (const way of clashing.flat()) count.set(way, (count.get(way) ?? 0) + 1);
    const [worst] = [...count].sort((a, b) => b[1] - a[1])[0]!;
    ways = ways.filter((w) => w !== worst);
    lost.add(worst.branch);
  }
  // Each once more with everything else where it is: what was pushed aside for nothing comes back.
  for (const way of [...ways]) {
    if (!ways.includes(way) || searches >= MOST_SEARCHES) continue;
    const before = ways;
    history.fill(0);
    ways = ways.filter((w) => w !== way);
    if (!(yield* connect(way.branch, 1000)) || clashes(ways, ground).length > 0) ways = before;
  }
  for (const branch of lost)
    if (groupsOf(branch).length > 1) left.push({ branch, why: 'finds no way between all its legs' });
  return { ways, left };
}

/** Pulses first, then what carries most, then the rest. */
const weight = ({ carries, rmsA }: Branch) => (carries === 'pulses' ? -100 : 0) - (rmsA ?? 0);

/** Whether a pad belongs to a branch: to its own, and a star's to both. */
export function isOn({ branches }: Pick<Ground, 'branches'>, pad: OnBoard['pads'][number], branch: number): boolean {
  if (pad.branch === branch) return true;
  const { star, net } = branches[branch]!;
  return star !== null && pad.net === net && star.xMm === pad.xMm && star.yMm === pad.yMm;
}

/** The nodes of a leg: it goes through all copper. */
const nodesAt = (grid: Grid, xMm: number, yMm: number): number[] => {
  const cell = Math.round(yMm / CELL_MM) * grid.columns + Math.round(xMm / CELL_MM);
  return grid.sides === 2 ? [cell, cellsOf(grid) + cell] : [cell];
};

/** What stands in every branch's way: the edge, and bodies under wires. */
function anyway({ wMm, hMm, sides, parts }: Ground, grid: Grid): Terrain {
  const cells = cellsOf(grid);
  const terrain: Terrain = {
    shut: new Uint8Array(cells * layersOf(grid)),
    dear: new Float32Array(cells * layersOf(grid)),
    shutForHole: new Uint8Array(cells),
    dearForHole: new Float32Array(cells),
  };
  const { shut, shutForHole } = terrain;
  const hole = holeMm(sides) / 2;
  for (let cell = 0; cell < cells; cell++) {
    const [x, y] = [xOf(grid, cell), yOf(grid, cell)];
    const edge = Math.min(x, y, wMm - x, hMm - y);
    if (edge < EDGE_MM + TRACK_MM / 2) for (const layer of copperOf(sides)) shut[layer * cells + cell] = 1;
    if (edge < EDGE_MM + hole) shutForHole[cell] = 1;
  }
  for (const { body, pads } of parts) {
    // A wire above the board goes around bodies; a link's end is soldered beside them.
    if (sides === 1) for (const wire of [ACROSS, ALONG]) closeRect(grid, shut, wire, body, 0.6);
    closeRect(grid, shutForHole, 0, body, sides === 1 ? hole : 0);
    for (const pad of pads)
      if (sides === 1)
        for (const wire of [ACROSS, ALONG]) close(grid, shut, wire, pad.xMm, pad.yMm, pad.padMm / 2 + 0.5);
  }
  return terrain;
}

/** What stands in the way of one branch whatever else is laid. */
function standing(ground: Ground, grid: Grid, branch: number, always: Terrain): Terrain {
  const { sides, parts, branches, screws } = ground;
  const shut = Uint8Array.from(always.shut);
  const dear = Float32Array.from(always.dear);
  const shutForHole = Uint8Array.from(always.shutForHole);
  const hole = holeMm(sides) / 2;
  const { wantedMm, net } = branches[branch]!;
  const screwMm = SCREW.headMm / 2 + fromScrew(branches[branch]!, ground.apartMm);
  for (const { xMm, yMm } of screws) {
    for (const layer of copperOf(sides)) close(grid, shut, layer, xMm, yMm, screwMm + TRACK_MM / 2);
    close(grid, shutForHole, 0, xMm, yMm, screwMm + hole);
  }
  for (const part of parts) {
    const ours = part.pads.some((p) => isOn(ground, p, branch));
    for (const pad of part.pads) {
      const [x, y, r] = [pad.xMm, pad.yMm, pad.padMm / 2];
      const own = isOn(ground, pad, branch);
      const apartMm = apartBetween(branches[branch]!, branches[pad.branch]!, ground.apartMm);
      // A hole of any branch keeps off every leg.
      close(grid, shutForHole, 0, x, y, r + hole + (own ? 0.2 : apartMm));
      if (own) continue;
      const least = ours ? LEAST_MM : apartMm;
      for (const layer of copperOf(sides)) {
        close(grid, shut, layer, x, y, r + least + TRACK_MM / 2 + SLACK_MM);
        if (least < apartMm && pad.net !== net)
          press(grid, dear, layer, x, y, r + apartMm + TRACK_MM / 2 + SLACK_MM, CLOSE_COST);
        press(grid, dear, layer, x, y, r + least + wantedMm / 2, NARROW_COST);
      }
    }
  }
  // A track starts at its own legs, whatever is beside them.
  for (const pad of parts.flatMap((p) => p.pads))
    if (isOn(ground, pad, branch)) for (const node of nodesAt(grid, pad.xMm, pad.yMm)) shut[node] = 0;
  return { shut, dear, shutForHole, dearForHole: always.dearForHole };
}

const copperOf = (sides: 1 | 2): readonly number[] => (sides === 2 ? [UNDER, ABOVE] : [UNDER]);
const holeMm = (sides: 1 | 2): number => (sides === 2 ? VIA_PAD : LINK_PAD).padMm;

/** Every cell whose middle is nearer to a point than r. */
function disc(grid: Grid, x: number, y: number, r: number, at: (cell: number) => void): void {
  const { columns, rows } = grid;
  const [left, right] = [
    Math.max(0, Math.ceil((x - r) / CELL_MM)),
    Math.min(columns - 1, Math.floor((x + r) / CELL_MM)),
  ];
  const [top, bottom] = [Math.max(0, Math.ceil((y - r) / CELL_MM)), Math.min(rows - 1, Math.floor((y + r) / CELL_MM))];
  for (let row = top; row <= bottom; row++)
    for (let column = left; column <= right; column++) {
      const [dx, dy] = [column * CELL_MM - x, row * CELL_MM - y];
      if (dx * dx + dy * dy < r * r) at(row * columns + column);
    }
}

function close(grid: Grid, into: Uint8Array, layer: number, x: number, y: number, r: number): void {
  const from = layer * cellsOf(grid);
  disc(grid, x, y, r, (cell) => (into[from + cell] = 1));
}

function closeRect(grid: Grid, into: Uint8Array, layer: number, { x0, y0, x1, y1 }: Rect, beyond: number): void {
  const from = layer * cellsOf(grid);
  const first = (mm: number) => Math.max(0, Math.ceil((mm - beyond) / CELL_MM));
  for (let row = first(y0); row < Math.min(grid.rows, (y1 + beyond) / CELL_MM); row++)
    for (let column = first(x0); column < Math.min(grid.columns, (x1 + beyond) / CELL_MM); column++)
      into[from + row * grid.columns + column] = 1;
}

function press(grid: Grid, into: Float32Array, layer: number, x: number, y: number, r: number, by: number): void {
  const from = layer * cellsOf(grid);
  disc(grid, x, y, r, (cell) => (into[from + cell]! += by));
}

function pointsOf(nodes: readonly number[], grid: Grid): Way['points'] {
  return nodes.flatMap((node, n) => {
    const layer = nameOf(grid, node);
    const at = { x: xOf(grid, node), y: yOf(grid, node), layer };
    const next = nodes[n + 1];
    if (next === undefined || layerOf(grid, next) !== layerOf(grid, node)) return [at];
    const [nx, ny] = [xOf(grid, next), yOf(grid, next)];
    return nx !== at.x && ny !== at.y ? [at, { x: (at.x + nx) / 2, y: (at.y + ny) / 2, layer }] : [at];
  });
}

const nameOf = (grid: Grid, node: number): Layer | 'wire' => {
  const layer = layerOf(grid, node);
  return layer === UNDER ? 'under' : grid.sides === 2 ? 'above' : 'wire';
};

/** Straight pieces of a row of nodes. */
function wayOf(branch: number, nodes: number[], grid: Grid): Way {
  const way: Way = { branch, nodes, copper: [], wires: [], holes: [], points: pointsOf(nodes, grid) };
  let start = 0;
  for (let n = 1; n <= nodes.length; n++) {
    const [from, last] = [nodes[start]!, nodes[n - 1]!];
    const next = nodes[n];
    const same = next !== undefined && layerOf(grid, next) === layerOf(grid, from);
    const straight = same && (n - 1 === start || next - last === last - nodes[n - 2]!);
    if (straight) continue;
    if (n - 1 > start) {
      const piece = { x1: xOf(grid, from), y1: yOf(grid, from), x2: xOf(grid, last), y2: yOf(grid, last) };
      const layer = nameOf(grid, from);
      if (layer === 'wire') way.wires.push(piece);
      else way.copper.push({ ...piece, layer });
    }
    if (next === undefined) break;
    if (same) start = n - 1;
    else {
      way.holes.push({ x: xOf(grid, last), y: yOf(grid, last) });
      start = n;
    }
  }
  return way;
}

/** Ways of different branches that come too close. */
function clashes(ways: readonly Way[], { branches, apartMm, sides }: Ground): [Way, Way][] {
  const found: [Way, Way][] = [];
  const hole = holeMm(sides) / 2;
  const boxes = ways.map(boundsOf);
  for (let i = 0; i < ways.length; i++)
    for (let j = i + 1; j < ways.length; j++) {
      const [a, b] = [ways[i]!, ways[j]!];
      if (a.branch === b.branch) continue;
      const [p, q] = [boxes[i]!, boxes[j]!];
      const apart = apartBetween(branches[a.branch]!, branches[b.branch]!, apartMm);
      const most = apart + 2.5;
      if (p[0]! > q[2]! + most || q[0]! > p[2]! + most || p[1]! > q[3]! + most || q[1]! > p[3]! + most) continue;
      const { star, net } = branches[a.branch]!;
      const shared = net === branches[b.branch]!.net ? star : null;
      const gap = apart - 1e-6;
      const outside = (piece: Piece) => (shared ? clipped(piece, shared) : [piece]);
      const copperClash = a.copper.some((s) =>
        b.copper.some(
          (t) =>
            s.layer === t.layer && outside(s).some((u) => outside(t).some((v) => closerThan(TRACK_MM + gap, u, v))),
        ),
      );
      const holeClash =
        a.holes.some((h) => b.copper.some((t) => toPiece(h.x, h.y, t) < hole + TRACK_MM / 2 + gap)) ||
        b.holes.some((h) => a.copper.some((t) => toPiece(h.x, h.y, t) < hole + TRACK_MM / 2 + gap)) ||
        a.holes.some((h) => b.holes.some((k) => Math.hypot(h.x - k.x, h.y - k.y) < 2 * hole + gap));
      const wireClash = a.wires.some((s) => b.wires.some((t) => closerThan(WIRE_GAP_MM - SLACK_MM, s, t)));
      if (copperClash || holeClash || wireClash) found.push([a, b]);
    }
  return found;
}

/** What of a piece lies outside the star, where its net's halves may not touch. */
export function clipped(piece: Piece, star: NonNullable<Branch['star']>): Piece[] {
  const r = star.padMm / 2 + STAR_MM;
  const steps = Math.max(1, Math.ceil(Math.hypot(piece.x2 - piece.x1, piece.y2 - piece.y1) / 0.1));
  const at = (n: number) => ({
    x: piece.x1 + ((piece.x2 - piece.x1) * n) / steps,
    y: piece.y1 + ((piece.y2 - piece.y1) * n) / steps,
  });
  const out = (n: number) => Math.hypot(at(n).x - star.xMm, at(n).y - star.yMm) >= r;
  const pieces: Piece[] = [];
  let from = -1;
  for (let n = 0; n <= steps + 1; n++) {
    const is = n <= steps && out(n);
    if (is && from < 0) from = n;
    if (!is && from >= 0) {
      pieces.push({ x1: at(from).x, y1: at(from).y, x2: at(n - 1).x, y2: at(n - 1).y });
      from = -1;
    }
  }
  return pieces;
}

function boundsOf({ copper, wires, holes }: Way): [number, number, number, number] {
  const all = [...copper, ...wires, ...holes.map((h) => ({ x1: h.x, y1: h.y, x2: h.x, y2: h.y }))];
  return [
    Math.min(...all.flatMap((p) => [p.x1, p.x2])),
    Math.min(...all.flatMap((p) => [p.y1, p.y2])),
    Math.max(...all.flatMap((p) => [p.x1, p.x2])),
    Math.max(...all.flatMap((p) => [p.y1, p.y2])),
  ];
}

/** Where two ways came too close is dearer from now on. */
function remember(history: Float32Array, [a, b]: readonly [Way, Way], grid: Grid): void {
  const near = (way: Way, other: Way) => {
    for (const node of way.nodes) {
      const [x, y] = [xOf(grid, node), yOf(grid, node)];
      if (other.points.some((s) => Math.hypot(s.x - x, s.y - y) < 2)) history[node]! += 1;
    }
  };
  near(a, b);
  near(b, a);
}
