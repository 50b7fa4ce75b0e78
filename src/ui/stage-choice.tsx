'use client';

import { STAGES, type StageOfLife } from '@/core/design/kinds';
import { STAGE_WORDS } from '@/core/design/stage-words';

/** How far a supply is, and the choice of it. */
export function StageChoice({
  of,
  value,
  onChoose,
  className = '',
}: {
  /** The supply's name. */
  of: string;
  value: StageOfLife;
  onChoose(stage: StageOfLife): void;
  className?: string;
}) {
  return (
    <select
      className={className}
      aria-label={`How far ${of} is`}
      value={value}
      onChange={(e) => onChoose(e.target.value as StageOfLife)}
    >
      {STAGES.map((s) => (
        <option key={s} value={s}>
          {STAGE_WORDS[s]}
        </option>
      ))}
    </select>
  );
}
