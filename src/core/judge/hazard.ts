import { arrangementOf, dcSourceOf } from '@/core/design/source';
import { TOUCH_AC_V, TOUCH_DC_V } from '@/core/parts/touch-limits';
import { formatQuantity } from '@/core/quantity/format';
import type { Study } from '@/core/study/study';

/** Why a design is marked 'hazardous voltage', or null: over 60 V DC or 25 V AC between any two points of the secondary side. */
export function hazard(study: Study): string | null {
  const { design, idle } = study;
  const rails = idle.rails.map((p) => Math.max(p.reservoir.maxV, p.rail.maxV, p.rail.inputMaxV));
  const cans = idle.solution.elements.flat().map((e) => (e.kind === 'capacitor' ? e.maxV : 0));
  const across = Math.max(...rails, ...cans);
  // A plus and a minus rail stand apart by both of their volts.
  const between = rails.reduce((sum, v) => sum + v, 0);
  const { ratios } = arrangementOf(design);
  const tapped = ratios.includes(-1);
  const ac = dcSourceOf(design) ? 0 : idle.winding.voltageRms * (tapped ? ratios.length : 1);
  if (across > TOUCH_DC_V)
    return `Hazardous voltage: ${formatQuantity(across, 'V')} DC on the reservoir, also after switching off.`;
  if (between > TOUCH_DC_V)
    return `Hazardous voltage: ${formatQuantity(between, 'V')} DC from rail to rail, also after switching off.`;
  if (ac > TOUCH_AC_V) return `Hazardous voltage: ${formatQuantity(ac, 'V')} AC across the winding.`;
  return null;
}
