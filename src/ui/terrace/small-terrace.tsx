'use client';

import { summaryOf } from '@/core/picture/summary';
import type { Band, Picture } from '@/core/picture/picture';
import type { StationId } from '@/core/picture/station';
import { MiniTerrace } from './mini-terrace';
import { StationHead } from './station-head';

/** The terrace where there is no room for it: the small drawing, and every station with its value below it. */
export function SmallTerrace({ picture, band }: { picture: Picture; band: Band }) {
  const { design } = picture;
  const stations: StationId[] = [
    'mains',
    'winding',
    'rectifier',
    ...(design.filter.before.length > 0 ? (['before'] as const) : []),
    'reservoir',
    ...(design.filter.after.length > 0 ? (['after'] as const) : []),
    'regulator',
    'load',
  ];
  return (
    <div data-testid="small-terrace">
      <MiniTerrace summary={summaryOf(picture)} id="small" />
      <div className="grid grid-cols-2 gap-1 min-[480px]:grid-cols-3">
        {stations.map((s) => (
          <StationHead key={s} station={s} picture={picture} band={band} />
        ))}
      </div>
    </div>
  );
}
