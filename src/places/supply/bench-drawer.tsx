'use client';

import { useState, type FocusEvent, type PointerEvent } from 'react';
import { FIELD_HINTS } from '@/core/design/field-hints';
import { stationFigures } from '@/core/picture/station-figures';
import type { Band, Picture } from '@/core/picture/picture';
import { Explained } from '@/ui/explained';
import { FigureButtons } from '@/ui/figure-buttons';
import { isPinned, togglePin } from '@/ui/pins';
import { useSession, useView } from '@/ui/session';
import { Working } from '@/ui/working';
import { STATION_CONTROLS } from '@/ui/terrace/station-controls';
import { StationFields } from './station-fields';

/** Below the terrace: what the station in focus is made of, its figures, and the working of the one that is open. */
export function BenchDrawer({ picture, band }: { picture: Picture; band: Band }) {
  const { view } = useSession();
  const station = useView((s) => s.station);
  const opened = useView((s) => s.opened);
  const [hinted, setHinted] = useState<string | null>(null);
  const hint = hinted ? FIELD_HINTS[hinted] : undefined;
  function point(event: FocusEvent | PointerEvent) {
    const field = event.target instanceof Element && event.target.closest<HTMLElement>('[data-hint]');
    if (field) setHinted(field.dataset['hint'] ?? null);
  }
  const figures = stationFigures(picture, station, band);
  const fromVerdict = picture.verdicts.find((v) => `verdict:${v.id}` === opened)?.figure;
  const figure = fromVerdict ?? figures.find((f) => f.id === opened) ?? figures[0];
  const pins = useView((s) => s.pins);
  const pinned = fromVerdict && opened ? opened : (figure?.id ?? '');

  return (
    <section
      aria-label={`${STATION_CONTROLS[station].name(picture.design)} in detail`}
      onFocus={point}
      onPointerOver={point}
      className="grid min-h-[206px] content-start gap-x-5 border-t border-rule bg-sunk px-4 pb-2 pt-2 full:min-h-0 full:grid-cols-[minmax(0,5fr)_minmax(0,6fr)] full:overflow-y-auto"
    >
      <div id="fields" tabIndex={-1} className="min-w-0 outline-none" data-first-field>
        <div
          key={station}
          className="grid grid-cols-2 gap-x-3 gap-y-1.5 min-[420px]:grid-cols-3 min-[640px]:grid-cols-5 full:grid-cols-3"
        >
          <StationFields station={station} />
        </div>
      </div>
      <div className="min-w-0">
        <p className="mb-1 min-h-[36px] text-[13px] leading-[18px] text-quiet" data-testid="field-hint">
          <Explained text={hint ?? 'Point at a field, or go to it: what it is, what is usual, what it changes.'} />
        </p>
        {figures.length > 0 && (
          <FigureButtons
            label="Figures here"
            figures={figures}
            open={figure}
            onOpen={(f) => view.setState({ opened: f.id })}
          />
        )}
        {figure ? (
          <div className="mt-1.5 border-l-2 border-volt pl-3">
            <button
              type="button"
              className="float-right ml-2 rounded border border-rule px-2 text-[13px] leading-6 aria-pressed:bg-ink aria-pressed:text-paper"
              aria-pressed={isPinned(pins, pinned)}
              title="Keeps this figure in sight in every room"
              onClick={() => togglePin(view, { station, figure: pinned })}
            >
              Pin
            </button>
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
