import type { Flow } from '@/core/build/flows';
import type { Netlist, NetPart } from '@/core/netlist/netlist';
import { LEAST_MM, RISE_K, trackWidthMm } from './copper-rules';
import type { Branch } from './etched';

/** Which part, and which of its pads. */
export interface PadAt {
  part: number;
  pad: number;
}

/** A branch before anything is placed. */
export interface BranchPlan extends Omit<Branch, 'star'> {
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
  flows: ReadonlyMap<string, Flow>,
  copperUm: number,
): BranchPlan[] {
  return nets.flatMap(({ name: net, role }): BranchPlan[] => {
    const pads = parts.flatMap(({ pads }, part) =>
      pads.flatMap((p, pad): PadAt[] => (p.net === net ? [{ part, pad }] : [])),
    );
    if (pads.length === 0) return [];
    const of = (carries: Branch['carries'], own: PadAt[], star: PadAt | null): BranchPlan => {
      const rmsA = flowOn(net, { carries, parts: own.map((p) => parts[p.part]!.part) }, flows);
      const width = rmsA === null ? THIN_MM : trackWidthMm(rmsA, RISE_K, copperUm);
      return {
        net,
        carries,
        mains: role === 'mains',
        pads: own,
        star,
        rmsA,
        wantedMm: Math.min(WIDEST_MM, Math.max(THIN_MM, LEAST_MM, width)),
      };
    };
    const isCan = (p: PadAt) => parts[p.part]!.part.line === 'reservoir';
    const pulsing = (p: PadAt) => ['transformer', 'rectifier'].includes(parts[p.part]!.part.block);
    const pulses = pads.filter((p) => isCan(p) || pulsing(p));
    const load = pads.filter((p) => !pulses.includes(p));
    const star = pulses.filter(isCan).at(-1);
    if (!star || load.length === 0 || !pulses.some(pulsing)) return [of('all', pads, null)];
    return [of('pulses', pulses, star), of('load', [star, ...load], star)];
  });
}

/**
 * The most that flows in a branch, A RMS; null where only protection or control hangs on it. What several outputs take adds
 * up; of the parts of one output each carries at most all of it.
 */
function flowOn(
  net: string,
  { carries, parts }: { carries: Branch['carries']; parts: readonly NetPart[] },
  flows: ReadonlyMap<string, Flow>,
): number | null {
  const rightly = (f: Flow) => carries === 'all' || f.pulses === (carries === 'pulses');
  const known = (key: string): Flow[] => [flows.get(key)].filter((f) => f !== undefined).filter(rightly);
  const pulsing = known(net).map((f) => f.rmsA);
  const taken = new Map<string, number>();
  for (const part of parts) {
    const ref = part.ref.split(' ')[0]!;
    for (const f of [...known(`${ref} ${net}`), ...known(ref)]) {
      if (f.pulses) pulsing.push(f.rmsA);
      else taken.set(part.output ?? ref, Math.max(taken.get(part.output ?? ref) ?? 0, f.rmsA));
    }
  }
  const sum = [...taken.values()].reduce((all, amps) => all + amps, 0);
  const most = Math.max(0, ...pulsing, sum);
  return pulsing.length + taken.size === 0 ? null : most;
}
