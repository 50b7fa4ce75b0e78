'use client';

import type { KeyboardEvent } from 'react';
import type { Band, Picture } from '@/core/picture/picture';
import type { StationId } from '@/core/judge/verdict';
import { useDesign, useEdit, useSession, useView } from '@/ui/session';
import { StateSign } from '@/ui/state-sign';
import { STATION_CONTROLS } from './station-controls';

interface Props {
  station: StationId;
  picture: Picture;
  band: Band;
  left: number;
  width: number;
  height: number;
}

/**
 * A station's head: one tab stop. Arrows step its main value through the preferred series, Shift tenfold, Enter goes
 * to its fields, W opens its working.
 */
export function StationHead({ station, picture, band, left, width, height }: Props) {
  const { view } = useSession();
  const design = useDesign();
  const edit = useEdit();
  const selected = useView((s) => s.station) === station;
  const control = STATION_CONTROLS[station];
  const worst = picture.verdicts.find((v) => v.station === station && v.state !== 'holds');
  const value = control.value(design);

  function onKeyDown(event: KeyboardEvent) {
    if (event.ctrlKey || event.metaKey || event.altKey) return;
    const up = event.key === 'ArrowUp' || event.key === 'ArrowRight';
    const down = event.key === 'ArrowDown' || event.key === 'ArrowLeft';
    if (up || down) {
      event.preventDefault();
      const patch = control.step(design, (up ? 1 : -1) * (event.shiftKey ? 10 : 1));
      if (patch) edit(patch);
      view.setState({ station });
    } else if (event.key === 'Enter' || event.key === ' ') {
      event.preventDefault();
      view.setState({ station });
      requestAnimationFrame(() =>
        (document.querySelector(`[data-first-field] input, [data-first-field] select`) as HTMLElement | null)?.focus(),
      );
    } else if (event.key === 'w' || event.key === 'W') {
      event.preventDefault();
      view.setState({ station });
      void import('@/core/picture/station-figures').then(({ stationFigures }) =>
        view.setState({ station, opened: stationFigures(picture, station, band)[0]?.id ?? null }),
      );
    }
  }

  return (
    <div
      role="slider"
      tabIndex={0}
      aria-label={control.name(design)}
      aria-orientation="vertical"
      aria-valuenow={numeric(value)}
      aria-valuetext={`${value}. ${control.reading(picture, band)}`}
      data-station={station}
      className={`absolute top-0 overflow-hidden rounded-b border-t-[3px] px-2 pt-1 ${selected ? 'border-volt bg-raised' : 'border-transparent hover:bg-raised'}`}
      style={{ left, width, height }}
      onFocus={() => view.setState({ station })}
      onClick={() => view.setState({ station })}
      onKeyDown={onKeyDown}
    >
      <div className="flex items-center gap-1 text-[13px] leading-4 text-quiet">
        <span className="truncate">{control.name(design)}</span>
        {worst && <StateSign state={worst.state} size={12} />}
      </div>
      <div
        className={`truncate font-semibold leading-5 ${9.2 * value.length > width - 16 ? 'text-[13.5px]' : 'text-[17px]'}`}
      >
        {value}
      </div>
      <div className="truncate text-[12.5px] leading-4 text-quiet">{control.reading(picture, band)}</div>
    </div>
  );
}

function numeric(text: string): number {
  return Number.parseFloat(text.replace(/^[^\d]*/, '')) || 0;
}
