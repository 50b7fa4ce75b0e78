import { atLeast, between, toPiece, type Piece } from './copper-geometry';
import { apartBetween, EDGE_MM, fromScrew, LINK_PAD, SCREW, VIA_PAD, type Layer, type Track } from './etched';
import { CELL_MM } from './route-grid';
import { isOn, TRACK_MM, type Ground } from './route-ground';
import type { Way } from './route-way';
import { outsideStar } from './star';

/** Tracks are widened piece by piece, each about so long, mm: short necks stay short. */
const PIECE_MM = 2 * CELL_MM;
/** Where there is room a track is no thinner than is etched without care, mm. */
const EASY_MM = 1.2;

/** Ways as copper: each piece as wide as is wanted where there is room, those that carry most first. */
export function widened(ways: readonly Way[], ground: Ground): Track[] {
  const { branches, apartMm, sides, parts, screws, wMm, hMm } = ground;
  const pieces: Track[] = ways.flatMap((way) =>
    way.copper.flatMap((p) => cut(p).map((c) => ({ ...c, layer: p.layer, branch: way.branch, widthMm: TRACK_MM }))),
  );
  const hole = (sides === 2 ? VIA_PAD.padMm : LINK_PAD.padMm) / 2;
  const pads = parts.flatMap((p) => p.pads);
  const gaps = branches.map((one) => branches.map((other) => apartBetween(one, other, apartMm)));
  const order = [...pieces].sort((a, b) => branches[b.branch]!.wantedMm - branches[a.branch]!.wantedMm);
  for (const piece of order) {
    const own = branches[piece.branch]!;
    const { star, net, wantedMm } = own;
    const apart = gaps[piece.branch]!;
    /** Half a width that still keeps its distance. */
    let half = Math.max(wantedMm, EASY_MM) / 2;
    const keep = (mm: number) => (half = Math.min(half, mm));
    for (const x of [piece.x1, piece.x2]) keep(Math.min(x, wMm - x) - EDGE_MM);
    for (const y of [piece.y1, piece.y2]) keep(Math.min(y, hMm - y) - EDGE_MM);
    for (const s of screws) keep(toPiece(s.xMm, s.yMm, piece) - SCREW.headMm / 2 - fromScrew(own, apartMm));
    for (const pad of pads)
      if (!isOn(ground, pad, piece.branch)) keep(toPiece(pad.xMm, pad.yMm, piece) - pad.padMm / 2 - apart[pad.branch]!);
    for (const other of pieces) {
      if (other.branch === piece.branch || other.layer !== piece.layer) continue;
      const gap = apart[other.branch]!;
      if (atLeast(piece, other) - other.widthMm / 2 - gap >= half) continue;
      const shared = branches[other.branch]!.net === net ? star : null;
      const [mine, theirs] = shared ? [outsideStar(piece, shared), outsideStar(other, shared)] : [[piece], [other]];
      for (const a of mine) for (const b of theirs) keep(between(a, b) - other.widthMm / 2 - gap);
    }
    for (const way of ways)
      if (way.branch !== piece.branch)
        for (const h of way.holes) keep(toPiece(h.x, h.y, piece) - hole - apart[way.branch]!);
    piece.widthMm = Math.max(TRACK_MM, Math.floor(20 * half) / 10);
  }
  return joined(pieces);
}

function cut({ x1, y1, x2, y2, layer }: Piece & { layer: Layer }): (Piece & { layer: Layer })[] {
  const steps = Math.max(1, Math.round(Math.hypot(x2 - x1, y2 - y1) / PIECE_MM));
  const at = (n: number) => ({ x: x1 + ((x2 - x1) * n) / steps, y: y1 + ((y2 - y1) * n) / steps });
  return Array.from({ length: steps }, (_, n) => ({
    x1: at(n).x,
    y1: at(n).y,
    x2: at(n + 1).x,
    y2: at(n + 1).y,
    layer,
  }));
}

/** Neighbours in one line and of one width are one. */
function joined(pieces: readonly Track[]): Track[] {
  const out: Track[] = [];
  for (const p of pieces) {
    const last = out.at(-1);
    const same =
      last &&
      last.branch === p.branch &&
      last.layer === p.layer &&
      last.widthMm === p.widthMm &&
      last.x2 === p.x1 &&
      last.y2 === p.y1 &&
      Math.abs((last.x2 - last.x1) * (p.y2 - p.y1) - (last.y2 - last.y1) * (p.x2 - p.x1)) < 1e-9;
    if (same) out[out.length - 1] = { ...last, x2: p.x2, y2: p.y2 };
    else out.push(p);
  }
  return out;
}
