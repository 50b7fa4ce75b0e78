import { flowWhere, type Flow } from '@/core/build/flows';
import type { Netlist, NetPart } from '@/core/netlist/netlist';
import { RISE_K, trackWidthMm } from './copper-rules';
import type { Branch } from './etched';
import { footprintOf, type Footprint } from './pad-footprint';
import { boardParts, type BoardPart } from './stripboard';

/** Which part, and which of its pads. */
export interface PadAt {
  part: number;
  pad: number;
}

/** A branch before anything is placed. */
export interface BranchPlan extends Omit<Branch, 'star' | 'wantedMm'> {
  pads: PadAt[];
  star: PadAt | null;
}

/** A track that carries next to nothing is as wide as is handled easily, mm; none is wider than is still of use. */
const THIN_MM = 0.8;
const WIDEST_MM = 6;

/**
 * Nets as they are drawn in copper. Where a reservoir stands on a net its pulses and what is taken from it share one pad and
 * no track: the star.
 */
export function branchesOf(
  parts: readonly { part: NetPart; pads: readonly { net: string }[] }[],
  { nets }: Netlist,
): BranchPlan[] {
  return nets.flatMap(({ name: net, role }): BranchPlan[] => {
    const pads = parts.flatMap(({ pads }, part) =>
      pads.flatMap((p, pad): PadAt[] => (p.net === net ? [{ part, pad }] : [])),
    );
    if (pads.length === 0) return [];
    const mains = role === 'mains';
    const isCan = (p: PadAt) => parts[p.part]!.part.line === 'reservoir';
    const pulsing = (p: PadAt) => ['transformer', 'rectifier'].includes(parts[p.part]!.part.block);
    const pulses = pads.filter((p) => isCan(p) || pulsing(p));
    const load = pads.filter((p) => !pulses.includes(p));
    const star = pulses.filter(isCan).at(-1);
    if (!star || load.length === 0 || !pulses.some(pulsing)) return [{ net, carries: 'all', mains, pads, star: null }];
    return [
      { net, carries: 'pulses', mains, pads: pulses, star },
      { net, carries: 'load', mains, pads: [star, ...load], star },
    ];
  });
}

/** What flows in a branch between some parts; null where only protection or control hangs on it. */
export const branchFlow = (
  { net, carries }: Pick<Branch, 'net' | 'carries'>,
  parts: readonly Pick<NetPart, 'ref' | 'output'>[],
  flows: ReadonlyMap<string, Flow>,
): Flow | null => flowWhere(net, parts, flows, (f) => carries === 'all' || f.pulses === (carries === 'pulses'));

/** How wide each branch of a board should be, mm, in tenths: what changes less than that lays no track anew. */
export function wantedWidths(netlist: Netlist, flows: ReadonlyMap<string, Flow>, copperUm: number): number[] {
  const parts = bodiesOf(netlist);
  const plans = branchesOf(
    parts.map((b) => ({ part: b.part, pads: b.footprint.pads })),
    netlist,
  );
  return plans.map((plan) => {
    const own = plan.pads.map((p) => parts[p.part]!);
    const flow = branchFlow(
      plan,
      own.map(({ of, part }) => ({ ref: of, output: part.output })),
      flows,
    );
    const width = flow ? Math.ceil(10 * trackWidthMm(flow.rmsA, RISE_K, copperUm)) / 10 : THIN_MM;
    return Math.min(WIDEST_MM, Math.max(THIN_MM, width));
  });
}

/** Everything that is soldered into a board, with its legs and its body. */
export const bodiesOf = (netlist: Netlist): (BoardPart & { footprint: Footprint })[] =>
  boardParts(netlist).map((p) => ({ ...p, footprint: footprintOf(p.part, p.wire) }));
