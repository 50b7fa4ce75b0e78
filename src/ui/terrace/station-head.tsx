'use client';

import dynamic from 'next/dynamic';
import { useRef, useState, type KeyboardEvent } from 'react';
import type { Band, Picture } from '@/core/picture/picture';
import type { StationId } from '@/core/judge/verdict';
import { useDesign, useEdit, useSession, useView } from '@/ui/session';
import { StateSign } from '@/ui/state-sign';
import { letterKeys } from '@/ui/letter-keys';
import { orSay } from '@/ui/loading';
import { STATION_CONTROLS } from './station-controls';

const loadTypeOver = () => import('./type-over').then((m) => m.TypeOver);
const TypeOver = dynamic(orSay(loadTypeOver), { ssr: false });

interface Props {
  station: StationId;
  picture: Picture;
  band: Band;
  /** Where it stands over the drawing, px; left out where it stands in a row of its own. */
  at?: { left: number; width: number; height: number };
}

/**
 * A station's head: one tab stop. Arrows step its main value through the preferred series, Shift tenfold, Enter goes
 * to its fields, W opens its working.
 */
export function StationHead({ station, picture, band, at }: Props) {
  const { view } = useSession();
  const design = useDesign();
  const edit = useEdit();
  const selected = useView((s) => s.station) === station;
  const control = STATION_CONTROLS[station];
  const worst = picture.verdicts.find((v) => v.station === station && v.state !== 'holds');
  const value = control.value(design);
  const reading = control.reading(picture, band);
  const typed = control.typed?.(design) ?? null;
  const [over, setOver] = useState(false);
  const slider = useRef<HTMLDivElement>(null);
  const fails = picture.verdicts.filter((v) => v.station === station && v.state === 'fails');

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
    } else if ((event.key === 'w' || event.key === 'W') && letterKeys()) {
      event.preventDefault();
      view.setState({ station });
      void import('@/core/picture/station-figures').then(({ stationFigures }) =>
        view.setState({ station, opened: stationFigures(picture, station, band)[0]?.id ?? null }),
      );
    }
  }

  return (
    <div
      className={`${at ? 'absolute top-0' : 'relative min-h-[58px]'} overflow-auto [scrollbar-width:thin] rounded-b border-t-[3px] has-[[role=slider]:focus-visible]:outline-2 has-[[role=slider]:focus-visible]:outline-volt ${selected ? 'border-volt bg-raised' : 'border-transparent hover:bg-raised'}`}
      style={at}
      title={`${control.name(design)}: ${value}${reading ? `, ${reading}` : ''}`}
    >
      <div
        ref={slider}
        role="slider"
        tabIndex={0}
        aria-label={control.name(design)}
        aria-orientation="vertical"
        aria-valuenow={numeric(value)}
        aria-valuetext={[`${value}. ${reading}`, ...fails.map((v) => `${v.title} fails`)].join('. ')}
        data-station={station}
        className="h-full px-2 pt-1 outline-none"
        onFocus={() => view.setState({ station })}
        onClick={() => view.setState({ station })}
        onKeyDown={onKeyDown}
      >
        <div className="flex items-center gap-1 text-[13px] leading-4 text-quiet">
          <span className="truncate">{control.name(design)}</span>
          {worst && <StateSign state={worst.state} size={12} />}
        </div>
        <div
          className={`truncate font-semibold leading-5 ${at && 9.2 * value.length > at.width - 16 ? 'text-[13.5px]' : 'text-[17px]'}`}
        >
          <span
            className={typed ? 'cursor-text border-b border-dotted border-transparent hover:border-edge' : ''}
            title={typed ? 'Type over it' : undefined}
            onPointerEnter={() => void loadTypeOver()}
            onClick={() => typed && setOver(true)}
          >
            {value}
          </span>
        </div>
        <div className="truncate text-[12.5px] leading-4 text-quiet">{reading}</div>
      </div>
      {over && typed && (
        <div className="absolute inset-x-1 top-[17px]">
          <TypeOver
            typed={typed}
            onCommit={(patch) => {
              view.setState({ station });
              edit(patch);
            }}
            onDone={(back) => {
              setOver(false);
              if (back) slider.current?.focus();
            }}
          />
        </div>
      )}
    </div>
  );
}

function numeric(text: string): number {
  return Number.parseFloat(text.replace(/^[^\d]*/, '')) || 0;
}
