import type { Netlist, NetPart } from '@/core/netlist/netlist';
import { bodiesOf, branchesOf } from './branches';
import { GRID_MM, SCREW, type Branch, type EtchedBoard, type Heat, type OnBoard, type Place } from './etched';
import { courtyard, turned } from './pad-footprint';
import { cornerMm, EDGE_STRIP_MM, placing, SIDE_STRIP_MM, type Apart, type ToPlace } from './place-etched';
import { routing } from './route-etched';
import type { Ground } from './route-ground';
import { boardKey } from './stripboard';
import { widened } from './widen-tracks';

/** How a board is to be made. */
export interface Etching {
  sides: 1 | 2;
  copperUm: number;
  /** What is kept between copper of two nets, mm. */
  apartMm: number;
  /** How wide each branch should be, mm. */
  widths: readonly number[];
  /** Where parts were put by hand, by their key. */
  places: readonly (Place & { part: string })[];
}

/** How far a board is. */
export interface EtchProgress {
  at: 'placing' | 'routing';
  /** Ways laid until now. */
  ways: number;
}

/** Parts and wires a board is laid out for. */
const MOST_PARTS = 80;
/** Between two bodies a track fits, mm; where no way is found they stand wider apart by these. */
const GAP_MM = 1.2;
const WIDER = [1, 1.7, 2.8] as const;

/** What heat a part gives or minds. */
function heatOf({ kind, pins, carriesLoad, block }: NetPart): Heat | null {
  if (kind === 'electrolytic') return 'can';
  if (kind === 'resistor' || kind === 'pot') return carriesLoad ? 'shunt' : block === 'regulator' ? 'setting' : null;
  return carriesLoad && pins.length > 2 ? 'sink' : null;
}

const NOTHING = { wMm: 0, hMm: 0, parts: [], branches: [], tracks: [], links: [], vias: [], holes: [] };

/** A board with tracks of its own from a netlist: placed in the order of the street, then routed. Never throws; what it could not do is under `left`. */
export function* etching(
  netlist: Netlist,
  { sides, copperUm, apartMm, widths, places }: Etching,
): Generator<EtchProgress, EtchedBoard> {
  const bodies = bodiesOf(netlist);
  const none = (why: string): EtchedBoard => ({
    ...NOTHING,
    sides,
    copperUm,
    apartMm,
    left: bodies.map(({ part }) => ({ ref: part.ref, why })),
  });
  if (bodies.length === 0) return none('');
  if (bodies.length > MOST_PARTS) return none(`one of ${bodies.length}, more than a board is laid out for`);
  const plans = branchesOf(
    bodies.map((b) => ({ part: b.part, pads: b.footprint.pads })),
    netlist,
  );
  const keyOf = (n: number) => boardKey(bodies[n]!);
  const toPlace = bodies.map(({ part, wire, footprint }, n): ToPlace => ({
    footprint,
    edge: !wire
      ? null
      : part.block === 'output'
        ? 'right'
        : part.block === 'transformer' || part.block === 'mains'
          ? 'left'
          : 'any',
    mains: plans.some((b) => b.mains && b.pads.some((p) => p.part === n)),
    heat: wire ? null : heatOf(part),
    fixed: places.find((p) => p.part === keyOf(n)) ?? null,
  }));
  let best: EtchedBoard | null = null;
  for (const wider of WIDER) {
    const found = yield* placed({ gapMm: Math.max(GAP_MM, apartMm) * wider, apartMm });
    const board: EtchedBoard | null = found && (yield* onTracks(found));
    if (board && board.left.length < (best?.left.length ?? Infinity)) best = board;
    // Parts that were all put by hand stand no wider apart another time.
    if (best?.left.length === 0 || toPlace.every((p) => p.fixed)) break;
  }
  return best ?? none('finds no place');

  function* placed(apart: Apart): Generator<EtchProgress, Place[] | null> {
    const place = placing(toPlace, plans, apart);
    let step = place.next();
    for (; !step.done; step = place.next()) yield { at: 'placing', ways: 0 };
    return step.value;
  }

  function* onTracks(found: readonly Place[]): Generator<EtchProgress, EtchedBoard> {
    const parts = bodies.map(({ part, wire, of, footprint }, n): OnBoard => {
      const { xMm, yMm, turn } = found[n]!;
      const lying = turned(footprint, turn);
      return {
        ref: part.ref,
        of,
        key: keyOf(n),
        value: part.value,
        wire,
        heat: toPlace[n]!.heat,
        polarised: !wire && part.kind === 'electrolytic',
        round: footprint.round,
        turn,
        xMm,
        yMm,
        pads: lying.pads.map((p, pad) => ({
          ...p,
          xMm: p.xMm + xMm,
          yMm: p.yMm + yMm,
          branch: plans.findIndex((b) => b.pads.some((at) => at.part === n && at.pad === pad)),
        })),
        body: { x0: lying.body.x0 + xMm, y0: lying.body.y0 + yMm, x1: lying.body.x1 + xMm, y1: lying.body.y1 + yMm },
      };
    });
    const branches = plans.map(({ net, carries, mains, star }, n): Branch => {
      const pad = star && parts[star.part]!.pads[star.pad]!;
      return {
        net,
        carries,
        mains,
        wantedMm: widths[n]!,
        star: pad && { xMm: pad.xMm, yMm: pad.yMm, padMm: pad.padMm },
      };
    });
    const courts = parts.map((p) => courtyard(p));
    const up = (mm: number) => Math.ceil(mm / GRID_MM) * GRID_MM;
    const corner = (n: number) => cornerMm(toPlace[n]!, apartMm);
    const beyond = (n: number) =>
      parts[n]!.wire ? (toPlace[n]!.edge === 'any' ? corner(n) : 2) : Math.max(SIDE_STRIP_MM, corner(n) - 1);
    const wMm = up(Math.max(...courts.map((c, n) => c.x1 + beyond(n))));
    const below = (n: number) => (!parts[n]!.wire ? EDGE_STRIP_MM - 1 : toPlace[n]!.edge === 'any' ? 1 : corner(n));
    const hMm = up(Math.max(...courts.map((c, n) => c.y1 + below(n))));
    const screws = [4, wMm - 4].flatMap((xMm) => [4, hMm - 4].map((yMm) => ({ xMm, yMm })));
    const ground: Ground = { wMm, hMm, sides, apartMm, parts, branches, screws };
    const route = routing(ground);
    let step = route.next();
    for (; !step.done; step = route.next()) yield { at: 'routing', ways: step.value.searches };
    const { ways, left } = step.value;
    return {
      wMm,
      hMm,
      sides,
      copperUm,
      apartMm,
      parts,
      branches,
      tracks: widened(ways, ground),
      links: ways.flatMap((w) => w.wires.map((p) => ({ branch: w.branch, ...p }))),
      vias: sides === 1 ? [] : ways.flatMap((w) => w.holes.map((h) => ({ branch: w.branch, xMm: h.x, yMm: h.y }))),
      holes: screws.map((s) => ({ ...s, drillMm: SCREW.drillMm })),
      left: left.map(({ branch, why }) => ({ ref: branches[branch]!.net, why })),
    };
  }
}

/** The same without a pause. */
export function etch(...asked: Parameters<typeof etching>): EtchedBoard {
  const steps = etching(...asked);
  let step = steps.next();
  while (!step.done) step = steps.next();
  return step.value;
}
