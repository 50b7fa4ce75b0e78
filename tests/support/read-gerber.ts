import gerberParser from 'gerber-parser';
import gerberPlotter from 'gerber-plotter';

/** A field of small squares, 1 where there is copper, and which piece it belongs to. */
export interface Picture {
  columns: number;
  rows: number;
  /** Squares of so many mm. */
  mm: number;
  dark: Uint8Array;
}

/** A reader of its own turns a file into dots and strokes. */
export async function plotted(text: string): Promise<Record<string, unknown>[]> {
  const parser = gerberParser({});
  const plotter = gerberPlotter({});
  const seen: Record<string, unknown>[] = [];
  return new Promise((resolve, reject) => {
    parser.on('error', reject);
    plotter.on('error', reject);
    plotter.on('warning', (w: { message: string }) => reject(new Error(w.message)));
    // This reader is older than attributes and says so; anything else it does not know is a fault.
    parser.on('warning', (w: { message: string }) => {
      if (!/^block "%T[FAOD]/.test(w.message)) reject(new Error(w.message));
    });
    plotter.on('data', (d: unknown) => seen.push(d as Record<string, unknown>));
    plotter.on('end', () => resolve(seen));
    parser.pipe(plotter);
    parser.write(text);
    parser.end();
  });
}

/** Dots and strokes as squares. */
export async function rasterised(text: string, wMm: number, hMm: number, mm = 0.1): Promise<Picture> {
  const [columns, rows] = [Math.ceil(wMm / mm) + 1, Math.ceil(hMm / mm) + 1];
  const dark = new Uint8Array(columns * rows);
  const sizes = new Map<string, number>();
  const fill = (x1: number, y1: number, x2: number, y2: number, r: number) => {
    const [dx, dy] = [x2 - x1, y2 - y1];
    const along = dx * dx + dy * dy;
    for (let row = Math.max(0, Math.floor((Math.min(y1, y2) - r) / mm)); row < rows; row++) {
      const y = row * mm;
      if (y > Math.max(y1, y2) + r) break;
      for (let column = Math.max(0, Math.floor((Math.min(x1, x2) - r) / mm)); column < columns; column++) {
        const x = column * mm;
        if (x > Math.max(x1, x2) + r) break;
        const t = along === 0 ? 0 : Math.max(0, Math.min(1, ((x - x1) * dx + (y - y1) * dy) / along));
        if ((x - x1 - t * dx) ** 2 + (y - y1 - t * dy) ** 2 <= r * r) dark[row * columns + column] = 1;
      }
    }
  };
  for (const object of await plotted(text)) {
    if (object.type === 'shape') sizes.set(String(object.tool), (object.shape as { r: number }[])[0]!.r);
    if (object.type === 'pad') {
      const { x, y, tool } = object as { x: number; y: number; tool: string };
      fill(x, y, x, y, sizes.get(String(tool))!);
    }
    if (object.type === 'stroke')
      for (const { start, end } of object.path as { start: [number, number]; end: [number, number] }[])
        fill(start[0], start[1], end[0], end[1], (object.width as number) / 2);
  }
  return { columns, rows, mm, dark };
}

/** Floods several layers: squares beside each other are one piece, and layers where a joint goes through. Answers which piece is at a place. */
export function flooded(
  layers: readonly Picture[],
  joints: readonly (readonly [x: number, y: number])[],
): (x: number, y: number) => number {
  const { columns, rows, mm } = layers[0]!;
  const cells = columns * rows;
  const piece = new Int32Array(cells * layers.length);
  const at = (x: number, y: number) => Math.round(y / mm) * columns + Math.round(x / mm);
  const through = new Set(joints.map(([x, y]) => at(x, y)));
  let pieces = 0;
  for (let first = 0; first < piece.length; first++) {
    if (piece[first] !== 0 || layers[Math.floor(first / cells)]!.dark[first % cells] === 0) continue;
    pieces++;
    const waiting = [first];
    while (waiting.length > 0) {
      const node = waiting.pop()!;
      const [layer, cell] = [Math.floor(node / cells), node % cells];
      if (piece[node] !== 0 || layers[layer]!.dark[cell] === 0) continue;
      piece[node] = pieces;
      const column = cell % columns;
      if (column > 0) waiting.push(node - 1);
      if (column < columns - 1) waiting.push(node + 1);
      if (cell >= columns) waiting.push(node - columns);
      if (cell < cells - columns) waiting.push(node + columns);
      if (through.has(cell)) layers.forEach((_, other) => waiting.push(other * cells + cell));
    }
  }
  return (x, y) => piece[at(x, y)]!;
}

/** The legs a copper file names, with where they are: read from its own attributes. */
export function legsIn(text: string): { ref: string; name: string; x: number; y: number }[] {
  let leg: { ref: string; name: string } | null = null;
  return text.split('\n').flatMap((line) => {
    const named = /^%TO\.P,([^,]*),(.*)\*%$/.exec(line);
    if (named) leg = { ref: word(named[1]!), name: word(named[2]!) };
    if (line === '%TD*%') leg = null;
    const flash = /^X(-?\d+)Y(-?\d+)D03\*$/.exec(line);
    return flash && leg ? [{ ...leg, x: Number(flash[1]) / 1e6, y: Number(flash[2]) / 1e6 }] : [];
  });
}

const word = (text: string) =>
  text.replace(/\\u([0-9A-F]{4})/g, (_, code: string) => String.fromCharCode(parseInt(code, 16)));
