'use client';

import { stationFigures } from '@/core/picture/station-figures';
import type { Band, Picture } from '@/core/picture/picture';
import { formatQuantity } from '@/core/quantity/format';
import { useSession, useView } from '@/ui/session';
import { Working } from '@/ui/working';
import { STATION_CONTROLS } from '@/ui/terrace/station-controls';
import { StationFields } from './station-fields';

/** Below the terrace: what the station in focus is made of, its figures, and the working of the one that is open. */
export function BenchDrawer({ picture, band }: { picture: Picture; band: Band }) {
  const { view } = useSession();
  const station = useView((s) => s.station);
  const opened = useView((s) => s.opened);
  const figures = stationFigures(picture, station, band);
  const fromVerdict = picture.verdicts.find((v) => `verdict:${v.id}` === opened)?.figure;
  const figure = fromVerdict ?? figures.find((f) => f.id === opened) ?? figures[0];

  return (
    <section
      aria-label={`${STATION_CONTROLS[station].name(picture.design)} in detail`}
      className="grid min-h-0 grid-cols-[minmax(0,5fr)_minmax(0,6fr)] gap-x-5 overflow-y-auto border-t border-rule bg-sunk px-4 pb-2 pt-2"
    >
      <div className="min-w-0" data-first-field>
        <div key={station} className="grid grid-cols-3 gap-x-3 gap-y-1.5">
          <StationFields station={station} />
        </div>
      </div>
      <div className="min-w-0">
        {figures.length > 0 && (
          <ul className="flex flex-wrap gap-x-4 gap-y-1" aria-label="Figures here">
            {figures.map((f) => (
              <li key={f.id}>
                <button
                  type="button"
                  className={`num text-[14px] ${figure?.id === f.id ? '!border-solid !border-volt' : ''}`}
                  aria-pressed={figure?.id === f.id}
                  onClick={() => view.setState({ opened: f.id })}
                >
                  <span className="text-quiet">{f.label}</span>{' '}
                  <span className="font-semibold">{formatQuantity(f.value, f.unit)}</span>
                </button>
              </li>
            ))}
          </ul>
        )}
        {figure ? (
          <div className="mt-1.5 border-l-2 border-volt pl-3">
            <Working figure={figure} />
          </div>
        ) : (
          <p className="pt-4 text-[14px] text-quiet">
            {station === 'regulator'
              ? 'No regulator: the reservoir feeds the load directly. Choose a kind on the left to hold the output steady.'
              : 'Nothing stands here: swapped leads would reach everything behind it.'}
          </p>
        )}
      </div>
    </section>
  );
}
