import { formatQuantity } from '@/core/quantity/format';
import { KINDS, type PartDraft } from './part';

/** The ratings of a part in one line, the first ones first. */
export function ratingLine(part: PartDraft): string {
  return KINDS[part.kind].ratings
    .flatMap((f) => {
      const value = part.ratings[f.key];
      if (value === null || value === undefined) return [];
      if (f.unit === '' && f.max === 1) return value ? [f.label.replace(' (1)', '').toLowerCase()] : [];
      if (f.key === 'windings' && value === 1) return [];
      return [f.unit === '' ? `${f.label.toLowerCase()} ${value}` : formatQuantity(value, f.unit)];
    })
    .join(', ');
}
