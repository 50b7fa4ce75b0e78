import { apartBetween, type Branch } from './etched';
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
import { holeMm, isOn, nodesAt, SLACK_MM, TRACK_MM, WIRE_GAP_MM, type Ground } from './route-ground';
import { anyway, press, standing } from './route-terrain';
import { clashes, wayOf, type Way } from './route-way';
import { inStar } from './star';

/** Every way of every branch, and what found none. */
export interface Routed {
  ways: Way[];
  left: { branch: number; why: string }[];
}

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
      for (const { x, y, layer } of way.points) {
        if (shared && inStar(x, y, shared)) continue;
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
    for (const [a, b] of clashing) remember(history, [a, b], grid, apart(a.branch, b.branch) + 2 * TRACK_MM);
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

/** Pulses first, then what wants most room, then the rest. */
const weight = ({ carries, wantedMm }: Branch) => (carries === 'pulses' ? -100 : 0) - wantedMm;

/** Where two ways came too close is dearer from now on. */
function remember(history: Float32Array, [a, b]: readonly [Way, Way], grid: Grid, nearMm: number): void {
  const near = (way: Way, other: Way) => {
    for (const node of way.nodes) {
      const [x, y] = [xOf(grid, node), yOf(grid, node)];
      if (other.points.some((s) => Math.hypot(s.x - x, s.y - y) < nearMm)) history[node]! += 1;
    }
  };
  near(a, b);
  near(b, a);
}
