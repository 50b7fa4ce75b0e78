import { apartBetween, EDGE_MM, fromScrew, SCREW, type Rect } from './etched';
import { LEAST_MM } from './copper-rules';
import { ACROSS, ALONG, CELL_MM, cellsOf, layersOf, xOf, yOf, type Grid, type Terrain } from './route-grid';
import { copperOf, holeMm, isOn, nodesAt, SLACK_MM, TRACK_MM, type Ground } from './route-ground';

/** What it costs to be closer to a neighbouring leg than the volts ask, a cell; to lie where a wide track finds no room. */
const CLOSE_COST = 25;
const NARROW_COST = 0.7;

/** What stands in every branch's way: the edge, and bodies under wires. */
export function anyway({ wMm, hMm, sides, parts }: Ground, grid: Grid): Terrain {
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
export function standing(ground: Ground, grid: Grid, branch: number, always: Terrain): Terrain {
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

/** Makes every cell near a point dearer. */
export function press(
  grid: Grid,
  into: Float32Array,
  layer: number,
  x: number,
  y: number,
  r: number,
  by: number,
): void {
  const from = layer * cellsOf(grid);
  disc(grid, x, y, r, (cell) => (into[from + cell]! += by));
}
