'use client';

import { cautions } from '@/core/sheet/cautions';
import { useDesign, useView } from '@/ui/session';

/** The cautions that stand wherever mains, or a source that burns, is chosen or looked at. */
export function MainsCaution() {
  const design = useDesign();
  const hazard = useView((s) => s.picture?.hazard ?? null);
  return (
    <div className="mb-3 max-w-[1320px] rounded border-2 border-fail bg-fail-soft px-4 py-2 text-[14px]">
      <p className="font-semibold text-fail">
        {design.source.kind === 'mains' ? 'Mains can kill.' : 'Where direct current comes in.'} This page informs, it
        certifies nothing: local electrical codes and a licensed electrician decide.
      </p>
      <p>
        {cautions(design, hazard, null)
          .filter((line) => !line.includes('certifies nothing'))
          .slice(0, 3)
          .join(' ')}
      </p>
    </div>
  );
}
