'use client';

import type { PartRole } from '@/core/design/kinds';
import { useDesign, useEdit } from '@/ui/session';

/** Says that a part is as it is: no fix, search or proposal replaces it. */
export function Kept({ role, label = 'This one is fixed' }: { role: PartRole; label?: string }) {
  const { fixed } = useDesign();
  const edit = useEdit();
  const kept = fixed.includes(role);
  return (
    <label
      className="flex items-center gap-1.5 whitespace-nowrap text-[13.5px]"
      title="No fix, cure or search replaces it"
    >
      <input
        type="checkbox"
        className="accent-volt"
        checked={kept}
        onChange={() => edit({ fixed: kept ? fixed.filter((r) => r !== role) : [...fixed, role] })}
      />
      {label}
    </label>
  );
}
