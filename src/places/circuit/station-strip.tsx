import type { StationId } from '@/core/picture/station';
import type { Summary } from '@/core/picture/summary';
import { columns } from '@/core/picture/terrace-geometry';
import { MiniTerrace } from '@/ui/terrace/mini-terrace';
import { MINI_SIZE } from '@/core/picture/mini-terrace';

const NAMES: Readonly<Partial<Record<StationId, string>>> = {
  mains: 'Mains',
  winding: 'Winding',
  rectifier: 'Rectifier',
  reservoir: 'Reservoir',
  regulator: 'Regulator',
  load: 'Load',
};

/** The terrace beside the circuit: the station of the part looked at is lit, and a station lights its parts. */
export function StationStrip({
  summary,
  regulated,
  station,
  onStation,
}: {
  summary: Summary;
  regulated: boolean;
  station: StationId | null;
  onStation(station: StationId): void;
}) {
  const cols = columns(0, MINI_SIZE.width, { regulated });
  const lit = station === 'before' || station === 'after' ? 'reservoir' : station;
  return (
    <div className="relative" data-testid="station-strip">
      <MiniTerrace summary={summary} id="circuit" />
      <div className="absolute inset-0 flex" role="group" aria-label="Stations">
        {(Object.keys(NAMES) as StationId[])
          .filter((s) => regulated || s !== 'regulator')
          .map((s) => {
            const [from, to] = cols[s] ?? [0, 0];
            return (
              <button
                key={s}
                type="button"
                aria-label={`Light up: ${NAMES[s]}`}
                aria-pressed={lit === s}
                title={NAMES[s]}
                className={`absolute inset-y-0 ${lit === s ? 'border-x-2 border-volt bg-volt/10' : 'hover:bg-volt/5'}`}
                style={{
                  left: `${(100 * from) / MINI_SIZE.width}%`,
                  width: `${(100 * (to - from)) / MINI_SIZE.width}%`,
                }}
                onClick={() => onStation(s)}
              />
            );
          })}
      </div>
    </div>
  );
}
