import { placedParts } from '@/core/circuit/filter-of';
import { heatersOf } from '@/core/design/heaters';
import { outputsOf, type Output } from '@/core/design/outputs';
import { dcSourceOf } from '@/core/design/source';
import type { MainsReport } from '@/core/mains-side/report';
import { GROUND, type Netlist, type NetPart } from '@/core/netlist/netlist';
import { feedingWindings } from '@/core/study/feeding';
import type { Figure } from '@/core/study/figure';
import { LASTING } from '@/core/study/occasion';
import type { Study } from '@/core/study/study';

/** What flows somewhere, and how that is known. */
export interface Flow {
  /** A RMS, and at its highest; null where nobody computes that. */
  rmsA: number;
  peakA: number | null;
  origin: Figure['origin'];
  from: string;
  /** Whether it charges a reservoir, in pulses. */
  pulses: boolean;
}

/** Pins of what carries a load that the load flows through; the others only steer it. */
const BEARING: ReadonlySet<string> = new Set(['in', 'out', 'collector', 'emitter', 'a', 'b']);

/** What flows on each net; through what hangs on one by its reference; back to a winding by both. */
export function flowsOf(study: Study, { nets, parts }: Netlist, mains: MainsReport): Map<string, Flow> {
  const { design } = study;
  const points = study.conditions.filter(LASTING).map((c) => study.at(c));
  const most = (of: (p: (typeof points)[number]) => number) => Math.max(...points.map(of));
  const flows = new Map<string, Flow>();
  const dc = dcSourceOf(design);
  const windings = feedingWindings(design, points[0]!.solution).map((_, n) => ({
    rmsA: most((p) => feedingWindings(design, p.solution)[n]!.rmsA),
    peakA: most((p) => feedingWindings(design, p.solution)[n]!.peakA),
  }));
  const hardest = { rmsA: Math.max(...windings.map((w) => w.rmsA)), peakA: Math.max(...windings.map((w) => w.peakA)) };
  const primary = mains.figures.find((f) => f.id === 'primary-full');
  for (const net of nets) {
    if (net.role === 'mains' && primary)
      flows.set(net.name, {
        rmsA: primary.value,
        peakA: null,
        origin: 'simulated',
        from: 'primary at full load, magnetising current included',
        pulses: false,
      });
    if (net.role === 'winding' || net.role === 'charging')
      flows.set(net.name, {
        ...hardest,
        origin: 'simulated',
        from: dc ? 'what the source gives' : 'winding current over the cycle',
        pulses: !dc,
      });
  }
  for (const part of parts.filter((p) => p.kind === 'heater')) {
    const amps = heatersOf(design)[Number(part.line.slice('heater-'.length))]!.currentA;
    for (const pin of part.pins)
      flows.set(pin.net, { rmsA: amps, peakA: null, origin: 'chosen', from: 'what the heaters take', pulses: false });
  }
  const core = parts.find((p) => p.kind === 'transformer' || p.kind === 'source');
  if (core)
    flows.set(`${core.ref} ${GROUND}`, {
      ...hardest,
      origin: 'simulated',
      from: dc ? 'what the source gives' : 'winding current over the cycle',
      pulses: !dc,
    });
  // A can beside the board: its pulses go to both its ends. A choke carries what its element does.
  const placed = placedParts(design);
  const beside = placed.filter((p) => p.side === 'before').length;
  for (const part of parts.filter((p) => p.kind === 'electrolytic' || p.kind === 'choke')) {
    const [, side, nth] = /^(before|after)-(\d+)$/.exec(part.line) ?? [];
    const step = placed[Number(nth) + (side === 'after' ? beside : 0)];
    if (part.line === 'reservoir')
      flows.set(part.ref, { ...hardest, origin: 'simulated', from: 'pulses of the winding, at most', pulses: true });
    else if (step)
      flows.set(part.ref, {
        rmsA: most((p) => Math.max(...p.solution.elements.map((rail) => rail[step.at]!.rmsA))),
        peakA: null,
        origin: 'simulated',
        from: 'what flows in it over the cycle',
        pulses: false,
      });
  }
  const outs = outputsOf(design);
  for (const output of outs) {
    const terminal = parts.find((p) => p.kind === 'terminal' && p.output === output.id)!;
    flows.set(terminal.ref, {
      rmsA: output.demand.outputA,
      peakA: null,
      origin: 'chosen',
      from: 'the output’s full load',
      pulses: false,
    });
  }
  // Between the filter and the outputs flows what they give; with it a regulator's own pins are bearing.
  const given = (of: (output: Output) => boolean) =>
    outs.filter(of).reduce((sum, { demand }) => sum + demand.outputA, 0);
  for (const net of nets.filter((n) => n.role === 'rail'))
    flows.set(net.name, {
      rmsA: given((o) => o.rail === net.rail),
      peakA: null,
      origin: 'chosen',
      from: 'the full load of all outputs of its rail',
      pulses: false,
    });
  for (const { ref, pins, output, carriesLoad } of parts)
    for (const { name, net } of carriesLoad ? pins : [])
      if (BEARING.has(name))
        flows.set(`${ref} ${net}`, {
          rmsA: given((o) => o.id === output),
          peakA: null,
          origin: 'chosen',
          from: 'the output’s full load, at most',
          pulses: false,
        });
  // Through a pot flows what sets the output and no more: its leads are as thin as can be handled.
  for (const part of parts.filter((p) => p.kind === 'led' || p.kind === 'fan')) {
    const amps = part.kind === 'led' ? (design.indicator?.currentA ?? 0) : (design.heat.fanA ?? 0);
    flows.set(part.ref, { rmsA: amps, peakA: null, origin: 'chosen', from: 'what it takes', pulses: false });
  }
  return flows;
}

/**
 * The most that flows where some parts meet on a net; null where only protection hangs on it. What several outputs and a fan
 * take adds up; of the parts of one output each carries at most all of it.
 * @param counts which of it is asked for, where pulses and what is taken have ways of their own
 */
export function flowWhere(
  net: string,
  parts: readonly Pick<NetPart, 'ref' | 'output'>[],
  flows: ReadonlyMap<string, Flow>,
  counts: (flow: Flow) => boolean = () => true,
): Flow | null {
  const known = (key: string): Flow[] => [flows.get(key)].filter((f) => f !== undefined).filter(counts);
  const found = known(net);
  const taken = new Map<string, Flow>();
  for (const { ref, output } of parts)
    for (const flow of [...known(`${ref} ${net}`), ...known(ref)]) {
      const by = output ?? ref;
      if (flow.origin !== 'chosen') found.push(flow);
      else if (flow.rmsA > (taken.get(by)?.rmsA ?? 0)) taken.set(by, flow);
    }
  const together = [...taken.values()];
  if (together.length > 1)
    found.push({
      rmsA: together.reduce((sum, f) => sum + f.rmsA, 0),
      peakA: null,
      origin: 'chosen',
      from: together.map((f) => f.from).join(' + '),
      pulses: false,
    });
  return [...found, ...together].reduce<Flow | null>((most, f) => (f.rmsA > (most?.rmsA ?? 0) ? f : most), null);
}

/** The most that flows anywhere on a net. */
export const mostOn = (net: string, { parts }: Netlist, flows: ReadonlyMap<string, Flow>): Flow | null =>
  flowWhere(
    net,
    parts.filter((p) => p.pins.some((pin) => pin.net === net)),
    flows,
  );

const figureOf = (id: string, label: string, value: number, { origin, from }: Flow): Figure => ({
  id,
  label,
  value,
  unit: 'A',
  origin,
  expression: from,
  inputs: [],
  source: 'The design’s own operating points, the hardest of those that last.',
  assumes: [],
});

/** What flows, RMS, with its working. */
export const rmsFigure = (id: string, flow: Flow): Figure => figureOf(`${id}-rms`, 'RMS', flow.rmsA, flow);
/** What flows at its highest; null where nobody computes that. */
export const peakFigure = (id: string, flow: Flow): Figure | null =>
  flow.peakA === null ? null : figureOf(`${id}-peak`, 'Peak', flow.peakA, flow);
