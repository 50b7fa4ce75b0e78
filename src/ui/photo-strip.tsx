'use client';

import { X } from 'lucide-react';
import type { Picture } from '@/core/sheet/log-mentions';
import { photoPath } from './photos';

/** Pictures of a log side by side, each opening at its full size. */
export function PhotoStrip({
  pictures,
  onRemove,
}: {
  pictures: readonly Picture[];
  /** Where one may be taken away. */
  onRemove?(id: string): void;
}) {
  if (pictures.length === 0) return null;
  return (
    <ul aria-label="Pictures" className="mt-1.5 flex flex-wrap gap-2">
      {pictures.map(({ id, day, what }, n) => (
        <li key={`${id} ${n}`} className="relative">
          <a href={photoPath(id)} target="_blank" rel="noreferrer" className="block border border-rule bg-sunk">
            <img
              src={photoPath(id)}
              alt={`Picture of ${day}: ${what}`}
              loading="lazy"
              className="h-[110px] w-[150px] object-cover"
            />
          </a>
          {onRemove && (
            <button
              type="button"
              className="btn absolute right-1 top-1 !min-h-[26px] !px-1.5"
              aria-label={`Take away picture ${n + 1}: ${what || 'of this entry'}`}
              onClick={() => onRemove(id)}
            >
              <X size={14} />
            </button>
          )}
        </li>
      ))}
    </ul>
  );
}
