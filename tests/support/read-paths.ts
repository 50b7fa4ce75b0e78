import type { PDFRawStream } from 'pdf-lib';
import { decodePDFRawStream, PDFArray, PDFDocument, type PDFPage } from 'pdf-lib';

/** One outline of a printed page: what it spans, mm from the page's lower left corner, and how it is inked. */
export interface PrintedPath {
  x0: number;
  y0: number;
  x1: number;
  y1: number;
  /** Points the pen went to, mm. */
  spots: [x: number, y: number][];
  curved: boolean;
  filled: boolean;
  /** Width of its line, mm; 0 where it is not drawn round. */
  lineMm: number;
  dashed: boolean;
}

const MM_PER_PT = 25.4 / 72;
type Matrix = [number, number, number, number, number, number];

/** Reads the outlines of every page by its operators alone: what any program that prints the file has to do. */
export async function readPaths(bytes: Uint8Array): Promise<PrintedPath[][]> {
  const pdf = await PDFDocument.load(bytes);
  return pdf.getPages().map((page) => pathsOf(operatorsOf(page)));
}

function operatorsOf(page: PDFPage): string[] {
  const contents = page.node.Contents();
  const streams =
    contents instanceof PDFArray ? contents.asArray().map((ref) => page.doc.context.lookup(ref)) : [contents];
  return streams
    .map((s) => new TextDecoder('latin1').decode(decodePDFRawStream(s as PDFRawStream).decode()))
    .join('\n')
    .replace(/<[^>]*>|\([^)]*\)/g, ' 0 ')
    .split(/\s+/);
}

function pathsOf(tokens: readonly string[]): PrintedPath[] {
  const found: PrintedPath[] = [];
  const stack: { at: Matrix; line: number; dashed: boolean }[] = [];
  let state: (typeof stack)[number] = { at: [1, 0, 0, 1, 0, 0], line: 1, dashed: false };
  let numbers: number[] = [];
  let spots: [number, number][] = [];
  let curved = false;
  const put = (x: number, y: number) => {
    const [a, b, c, d, e, f] = state.at;
    spots.push([(a * x + c * y + e) * MM_PER_PT, (b * x + d * y + f) * MM_PER_PT]);
  };
  const done = (filled: boolean, round: boolean) => {
    const [xs, ys] = [spots.map((s) => s[0]), spots.map((s) => s[1])];
    const span = { x0: Math.min(...xs), y0: Math.min(...ys), x1: Math.max(...xs), y1: Math.max(...ys) };
    found.push({ ...span, spots, curved, filled, lineMm: round ? state.line * MM_PER_PT : 0, dashed: state.dashed });
    spots = [];
    curved = false;
  };
  for (const token of tokens) {
    const number = Number(token.replace(/[[\]]/g, ''));
    if (token !== '' && Number.isFinite(number) && token.replace(/[[\]]/g, '') !== '') {
      numbers.push(number);
      continue;
    }
    const n = numbers;
    switch (token) {
      case 'q':
        stack.push({ ...state });
        break;
      case 'Q':
        state = stack.pop()!;
        break;
      case 'cm': {
        const [a, b, c, d, e, f] = state.at;
        const [p, q, r, s, t, u] = n as unknown as Matrix;
        state.at = [p * a + q * c, p * b + q * d, r * a + s * c, r * b + s * d, t * a + u * c + e, t * b + u * d + f];
        break;
      }
      case 'w':
        state.line = n[0]!;
        break;
      case 'd':
        state.dashed = n.length > 1;
        break;
      case 'm':
      case 'l':
        put(n[0]!, n[1]!);
        break;
      case 'c':
        // Only where it ends: a circle of four such spans its own diameter.
        put(n[4]!, n[5]!);
        curved = true;
        break;
      case 'S':
        done(false, true);
        break;
      case 'f':
        done(true, false);
        break;
      case 'B':
        done(true, true);
        break;
    }
    if (!/^[[\]]+$/.test(token) && token !== '') numbers = [];
  }
  return found;
}
