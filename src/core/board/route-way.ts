import { once } from '@/core/quantity/once';
import { closerThan, toPiece, type Piece } from './copper-geometry';
import { outsideStar } from './star';
import { apartBetween, type Layer } from './etched';
import { layerOf, UNDER, xOf, yOf, type Grid } from './route-grid';
import { holeMm, SLACK_MM, TRACK_MM, WIRE_GAP_MM, type Ground } from './route-ground';

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

/** Points along a row of nodes. */
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
export function wayOf(branch: number, nodes: number[], grid: Grid): Way {
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
export function clashes(ways: readonly Way[], { branches, apartMm, sides }: Ground): [Way, Way][] {
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
      const outside = (piece: Piece) => (shared ? outsideStar(piece, shared) : [piece]);
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

const boundsOf = once(({ copper, wires, holes }: Way): [number, number, number, number] => {
  const all = [...copper, ...wires, ...holes.map((h) => ({ x1: h.x, y1: h.y, x2: h.x, y2: h.y }))];
  return [
    Math.min(...all.flatMap((p) => [p.x1, p.x2])),
    Math.min(...all.flatMap((p) => [p.y1, p.y2])),
    Math.max(...all.flatMap((p) => [p.x1, p.x2])),
    Math.max(...all.flatMap((p) => [p.y1, p.y2])),
  ];
});
