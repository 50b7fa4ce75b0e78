/** What a layer of a finished board is drawn with, mm from its upper left corner, seen from the side of the parts. */
export type BoardShape =
  | { kind: 'flash'; x: number; y: number; d: number; net: string | null; pin: { ref: string; name: string } | null }
  | { kind: 'stroke'; x1: number; y1: number; x2: number; y2: number; w: number; net: string | null };
