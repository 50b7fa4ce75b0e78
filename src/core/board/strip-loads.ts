import { mostOn, rmsFigure, type Flow } from '@/core/build/flows';
import { sectionFor } from '@/core/build/wire-size';
import type { Netlist } from '@/core/netlist/netlist';
import type { Figure } from '@/core/study/figure';
import type { Study } from '@/core/study/study';
import type { Stripboard } from './on-strips';
import { outlineMm } from './stripboard';

/** What a strip carries for long, A RMS; typical of 35 µm copper 1.9 mm wide between its holes. */
export const STRIP_A = 2;
/** Between two strips beside each other no more than this, V (IPC-2221, outer, uncoated: 0.6 mm, and they lie 0.64 mm apart). */
export const STRIP_V = 150;

/** A net that asks more of its strips than they bear. */
export interface StripLoad {
  net: string;
  flows: Figure;
  /** A wire along it that carries what flows, mm². */
  wire: Figure;
}

/** Nets on a board that carry more than a strip does, the most first. */
export function stripLoads(
  board: Stripboard,
  netlist: Netlist,
  flows: ReadonlyMap<string, Flow>,
  outputV: number,
): StripLoad[] {
  const nets = new Set(board.parts.flatMap((p) => p.legs.map((l) => l.net)));
  const lengthM = (outlineMm(board)?.wMm ?? 0) / 1000;
  return netlist.nets
    .filter((n) => nets.has(n.name))
    .flatMap(({ name, role }) => {
      const flow = mostOn(name, netlist, flows);
      if (!flow || flow.rmsA <= STRIP_A) return [];
      const { figure } = sectionFor(role, flow.rmsA, outputV, lengthM);
      return [{ net: name, flows: rmsFigure(`strip-${name}`, flow), wire: { ...figure, id: `strip-${name}-wire` } }];
    })
    .sort((a, b) => b.flows.value - a.flows.value);
}

/**
 * The highest volts between two nets of a board without load: both rails together, or what a diode blocks where that is more,
 * as between the ends of a tapped winding.
 */
export function stripVolts({ idle }: Pick<Study, 'idle'>): Figure {
  const rails = idle.rails.reduce((sum, r) => sum + r.rail.inputMaxV, 0);
  const blocks = Math.max(0, ...idle.solution.diodes.map((d) => d.peakReverseV));
  return {
    id: 'strip-volts',
    label: 'Volts between two nets',
    value: Math.max(rails, blocks),
    unit: 'V',
    origin: 'simulated',
    expression: 'the greater of the rails together and what a diode blocks; highest input, no load',
    inputs: [
      { label: 'rails together', value: rails, unit: 'V', origin: 'simulated' },
      { label: 'a diode blocks', value: blocks, unit: 'V', origin: 'simulated' },
    ],
    source: 'The design’s own idle point; the limit of 150 V by IPC-2221 for 0.6 mm, outer, uncoated.',
    assumes: [],
  };
}
