import { dcSourceOf } from '@/core/design/source';
import { TOUCH_AC_V, TOUCH_DC_V } from '@/core/parts/touch-limits';
import { formatQuantity } from '@/core/quantity/format';
import { windingCount } from '@/core/design/words';
import type { Study } from '@/core/study/study';

/** Why a design is marked 'hazardous voltage', or null: over 60 V DC or 25 V AC anywhere on the secondary side. */
export function hazard(study: Study): string | null {
  const dc = Math.max(...study.idle.rails.map((p) => Math.max(p.reservoir.maxV, p.rail.maxV)));
  const ac = dcSourceOf(study.design) ? 0 : study.idle.winding.voltageRms * windingCount(study.design);
  if (dc > TOUCH_DC_V)
    return `Hazardous voltage: ${formatQuantity(dc, 'V')} DC on the reservoir, also after switching off.`;
  if (ac > TOUCH_AC_V) return `Hazardous voltage: ${formatQuantity(ac, 'V')} AC across the winding.`;
  return null;
}
