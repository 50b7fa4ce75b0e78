import FlatQueue from 'flatqueue';

/** Ways are looked for on a grid of a quarter of a pitch, mm. */
export const CELL_MM = 2.54 / 4;

/** Layers of the grid: copper under the board and above it, or above it wires from left to right and from front to back. */
export const UNDER = 0;
export const ABOVE = 1;
export const ACROSS = 1;
export const ALONG = 2;

/** A field of cells on several layers. A node is a layer's cell: layer times all cells, plus the row times the columns, plus the column. */
export interface Grid {
  columns: number;
  rows: number;
  sides: 1 | 2;
}

export const cellsOf = ({ columns, rows }: Grid): number => columns * rows;
export const layersOf = ({ sides }: Grid): number => (sides === 2 ? 2 : 3);
export const xOf = (grid: Grid, node: number): number => ((node % cellsOf(grid)) % grid.columns) * CELL_MM;
export const yOf = (grid: Grid, node: number): number => Math.floor((node % cellsOf(grid)) / grid.columns) * CELL_MM;
export const layerOf = (grid: Grid, node: number): number => Math.floor(node / cellsOf(grid));

/** What a way costs, in cells: through a hole to the other side, into a link and along it, and for a bend. */
export const COST = { via: 10, link: 14, along: 0.6, bend: 0.2 } as const;

/** What stands in a track's way. */
export interface Terrain {
  /** Each node: 1 where copper of this branch must not be. */
  shut: Uint8Array;
  /** Each node: what it costs more to be there. */
  dear: Float32Array;
  /** Each cell: 1 where no pad of a link or a hole through fits; what one costs more there. */
  shutForHole: Uint8Array;
  dearForHole: Float32Array;
}

const STEPS = [
  [1, 0, 1],
  [-1, 0, 1],
  [0, 1, 1],
  [0, -1, 1],
  [1, 1, Math.SQRT2],
  [1, -1, Math.SQRT2],
  [-1, 1, Math.SQRT2],
  [-1, -1, Math.SQRT2],
] as const;

/**
 * Looks for ways on one grid; keeps its arrays between searches. Searches of well-known packages were measured three times
 * slower here, and know neither bends nor many ends at once: a board of 40 parts would take longer than a hand waits.
 */
export class WayFinder {
  private readonly cost: Float32Array;
  private readonly before: Int32Array;
  private readonly seen: Int32Array;
  private readonly done: Int32Array;
  private readonly queue = new FlatQueue<number>();
  private search = 0;

  constructor(private readonly grid: Grid) {
    const nodes = cellsOf(grid) * layersOf(grid);
    this.cost = new Float32Array(nodes);
    this.before = new Int32Array(nodes);
    this.seen = new Int32Array(nodes);
    this.done = new Int32Array(nodes);
  }

  /** The cheapest way from any of some nodes to any of others, both ends included; null where there is none. */
  way(from: readonly number[], to: ReadonlySet<number>, terrain: Terrain): number[] | null {
    const { grid, queue, cost, before, seen, done } = this;
    const { columns, rows, sides } = grid;
    const cells = cellsOf(grid);
    const search = ++this.search;
    // No way is shorter than straight to the rectangle around all ends.
    let [left, right, top, bottom] = [columns, 0, rows, 0];
    for (const node of to) {
      const [x, y] = [(node % cells) % columns, Math.floor((node % cells) / columns)];
      left = Math.min(left, x);
      right = Math.max(right, x);
      top = Math.min(top, y);
      bottom = Math.max(bottom, y);
    }
    const least = (x: number, y: number) => {
      const dx = x < left ? left - x : x > right ? x - right : 0;
      const dy = y < top ? top - y : y > bottom ? y - bottom : 0;
      const shorter = Math.min(dx, dy);
      const straight = dx + dy + (Math.SQRT2 - 2) * shorter;
      // A link goes along for less.
      return sides === 1 ? COST.along * straight : straight;
    };
    queue.clear();
    const open = (node: number, via: number, price: number) => {
      if (done[node] === search || (seen[node] === search && cost[node]! <= price)) return;
      seen[node] = search;
      cost[node] = price;
      before[node] = via;
      const cell = node % cells;
      queue.push(node, price + least(cell % columns, Math.floor(cell / columns)));
    };
    for (const node of from) open(node, -1, 0);
    while (queue.length > 0) {
      const node = queue.pop()!;
      if (done[node] === search) continue;
      done[node] = search;
      if (to.has(node)) return this.back(node);
      const layer = Math.floor(node / cells);
      const cell = node % cells;
      const [x, y] = [cell % columns, Math.floor(cell / columns)];
      const price = cost[node]!;
      const wire = sides === 1 && layer > 0;
      for (const [dx, dy, length] of STEPS) {
        if (wire && (layer === ACROSS ? dy !== 0 : dx !== 0)) continue;
        const [nx, ny] = [x + dx, y + dy];
        if (nx < 0 || ny < 0 || nx >= columns || ny >= rows) continue;
        const next = layer * cells + ny * columns + nx;
        if (terrain.shut[next]! > 0 && !to.has(next)) continue;
        const came = before[node]!;
        const bend = came >= 0 && next - node !== node - came ? COST.bend : 0;
        open(next, node, price + length * (wire ? COST.along : 1) + bend + terrain.dear[next]!);
      }
      // Through the board: a hole joins both sides, a link's end goes up or comes down.
      if (terrain.shutForHole[cell]! > 0) continue;
      const others = sides === 2 ? [layer === UNDER ? ABOVE : UNDER] : layer === UNDER ? [ACROSS, ALONG] : [UNDER];
      for (const other of others) {
        const next = other * cells + cell;
        if (terrain.shut[next]! > 0) continue;
        const through = sides === 2 ? COST.via : COST.link / 2;
        open(next, node, price + through + terrain.dearForHole[cell]!);
      }
    }
    return null;
  }

  private back(end: number): number[] {
    const way: number[] = [];
    for (let node = end; node >= 0; node = this.before[node]!) way.push(node);
    return way.reverse();
  }
}
