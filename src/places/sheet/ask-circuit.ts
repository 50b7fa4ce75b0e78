'use client';

import type { Design } from '@/core/design/design';
import { asked } from '@/workers/asked';

/** The bill of a design, and its circuit as SVG with what its parts bear. @throws Error in words where it cannot be solved */
export async function askCircuit(design: Design) {
  const now = () => true;
  const [bill, points] = await Promise.all([
    asked((solver) => solver.bill(design), 'ask', now),
    asked((solver) => solver.bench(design), 'ask', now),
  ]);
  if (!bill.ok) throw new Error(bill.error);
  if (!points.ok) throw new Error(points.error);
  const [{ circuitDrawing }, { circuitSvg }, { resistorRatings }, { netlistOf }, { saidVolts }] = await Promise.all([
    import('@/core/build/circuit/circuit-drawing'),
    import('@/core/build/circuit/circuit-svg'),
    import('@/core/build/circuit/resistor-ratings'),
    import('@/core/netlist/netlist-of'),
    import('@/core/bench/said-volts'),
  ]);
  const netlist = netlistOf(design);
  const drawing = circuitDrawing(netlist, saidVolts(netlist, points.value), resistorRatings(netlist, bill.value));
  return { bill: bill.value, circuit: circuitSvg(drawing, 'rectangles', design.name) };
}
