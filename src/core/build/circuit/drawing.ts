import type { NetPart, PartKind } from '@/core/netlist/netlist';

/** A point of the drawing, px of a drawing at its natural size; y grows downwards. */
export interface Point {
  x: number;
  y: number;
}

export interface Box extends Point {
  width: number;
  height: number;
}

/** What is drawn: parts as the netlist has them, and marks of their own. */
export type SymbolKind =
  Exclude<PartKind, 'bridge' | 'transformer'> | 'coil' | 'primary' | 'core' | 'test-point' | 'flag' | 'earth';

export interface DrawnPin extends Point {
  name: string;
  net: string;
}

/** One symbol. It is drawn about its middle, its first pin to the left, and turned from there. */
export interface DrawnSymbol extends Point {
  kind: SymbolKind;
  /** Every part it stands for: several alike side by side are drawn once. Empty for a mark. */
  refs: readonly string[];
  /** Quarter turns clockwise. */
  turn: 0 | 1 | 2 | 3;
  /** Turned over about its own length: a base, a wiper on the other side. */
  mirrored: boolean;
  /** Along and across it, before it is turned, px. */
  length: number;
  breadth: number;
  pins: readonly DrawnPin[];
  negative: boolean;
  /** Told apart: where the charging pulses go. */
  charging: boolean;
}

export interface Wire {
  net: string;
  from: Point;
  to: Point;
}

export interface DrawnLabel extends Box {
  /** Lines from the top: a reference first. */
  lines: readonly string[];
  align: 'start' | 'middle' | 'end';
  refs: readonly string[];
  net: string | null;
}

export interface CircuitDrawing {
  width: number;
  height: number;
  symbols: readonly DrawnSymbol[];
  wires: readonly Wire[];
  /** The ways the charging pulses take, from winding to reservoir and back. */
  loop: readonly Wire[];
  /** Where three wires or more of one net meet. */
  dots: readonly Point[];
  /** Where a wire passes over another net's. */
  hops: readonly Point[];
  labels: readonly DrawnLabel[];
}

export const LINE_PX = 14;
/** Mean width of a letter of the drawing's type at its size, px: labels are given this much room. */
export const LETTER_PX = 6.7;

/** The area a symbol takes, its leads left out. */
export function bodyOf({ x, y, turn, length, breadth }: DrawnSymbol): Box {
  const [width, height] = turn % 2 === 0 ? [length, breadth] : [breadth, length];
  return { x: x - width / 2, y: y - height / 2, width, height };
}

/** Words in lines of so many letters at most; a longer word stands alone. */
export function wrapped(text: string, letters = 15): string[] {
  const lines: string[] = [];
  for (const word of text.split(' ').filter(Boolean)) {
    const last = lines.at(-1);
    if (last !== undefined && last.length + 1 + word.length <= letters) lines[lines.length - 1] = `${last} ${word}`;
    else lines.push(word);
  }
  return lines;
}

export const widthOf = (lines: readonly string[]): number => LETTER_PX * Math.max(0, ...lines.map((l) => l.length));

/** Several alike parts that stand side by side, drawn as one. */
export type Group = readonly [NetPart, ...NetPart[]];
