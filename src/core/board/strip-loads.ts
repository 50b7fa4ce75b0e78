import type { WireRow } from '@/core/build/wiring';
import type { Stripboard } from './stripboard';

/** What a strip carries for long, A RMS; typical. */
export const STRIP_A = 2;
/** Between two strips no more than this, V: 0.8 mm of bare board (IPC-2221, outer, uncoated, 0.6 mm to 150 V). */
export const STRIP_V = 150;

/** A net that asks more of its strips than they bear. */
export interface StripLoad {
  net: string;
  rmsA: number;
  /** A wire along it that carries what flows, mm². */
  wireMm2: number;
}

/** Nets on a board that carry more than a strip does, by the wires that lead to them. */
export function stripLoads({ parts }: Stripboard, wires: readonly WireRow[]): StripLoad[] {
  const nets = new Set(parts.flatMap((p) => p.legs.map((l) => l.net)));
  const most = new Map<string, StripLoad>();
  for (const { net, rmsA, size } of wires)
    if (rmsA && rmsA.value > STRIP_A && nets.has(net) && rmsA.value > (most.get(net)?.rmsA ?? 0))
      most.set(net, { net, rmsA: rmsA.value, wireMm2: size.mm2 });
  return [...most.values()].sort((a, b) => b.rmsA - a.rmsA);
}

/** The highest volts of one of its nets to ground, V: too many for strips beside each other where above `STRIP_V`. */
export const stripVolts = (wires: readonly WireRow[]): number =>
  wires.filter((w) => w.role !== 'mains').reduce((most, w) => Math.max(most, w.volts.value), 0);
