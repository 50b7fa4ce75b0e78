import type { Design } from '@/core/design/design';
import { outputModel, outputsOf } from '@/core/design/outputs';
import { arrangementOf, dcSourceOf } from '@/core/design/source';
import type { Netlist } from '@/core/netlist/netlist';
import { TOUCH_AC_V, TOUCH_DC_V } from '@/core/parts/touch-limits';
import type { OperatingPoint } from '@/core/study/point';

/**
 * Nets that nobody touches: the mains, and what stands above the touch limits without load, by the same volts the design
 * is marked hazardous by.
 * @param idle the supply without load, at the highest input
 */
export function hazardousNets(
  design: Design,
  { nets }: Netlist,
  idle: Pick<OperatingPoint, 'rails' | 'winding'>,
): Set<string> {
  const dc = dcSourceOf(design);
  const rails = idle.rails.map((p) => Math.max(p.reservoir.maxV, p.rail.maxV, p.rail.inputMaxV));
  const railV = Math.max(
    ...rails,
    rails.reduce((sum, v) => sum + v, 0),
  );
  const { ratios } = arrangementOf(design);
  const windingV = dc ? railV : idle.winding.voltageRms * (ratios.includes(-1) ? ratios.length : 1);
  const held = new Map(outputsOf(design).map((o) => [o.name, outputModel(o)?.outputV ?? railV]));
  return new Set(
    nets
      .filter(({ name, role }) => {
        if (role === 'mains') return true;
        if (role === 'winding') return windingV > (dc ? TOUCH_DC_V : TOUCH_AC_V);
        if (role === 'ground' || role === 'earth') return false;
        return (role === 'output' ? (held.get(name) ?? railV) : railV) > TOUCH_DC_V;
      })
      .map((n) => n.name),
  );
}
