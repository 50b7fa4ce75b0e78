'use client';

import { useRouter } from 'next/navigation';
import { stationFigures } from '@/core/picture/station-figures';
import type { Picture } from '@/core/picture/picture';
import { figureText } from '@/core/study/figure';
import { roomPath } from './places';
import { togglePin } from './pins';
import { useSession, useView } from './session';

/** The pinned figures, in sight in every room; each leads to its working. */
export function PinnedStrip({ picture }: { picture: Picture }) {
  const { view } = useSession();
  const id = useView((s) => s.id);
  const band = useView((s) => s.band);
  const pins = useView((s) => s.pins);
  const router = useRouter();
  return (
    <ul aria-label="Pinned figures" className="flex flex-wrap items-center gap-x-4 border-b border-rule bg-sunk px-3">
      {pins.map((pin) => {
        const figure =
          picture.verdicts.find((v) => `verdict:${v.id}` === pin.figure)?.figure ??
          stationFigures(picture, pin.station, band).find((f) => f.id === pin.figure);
        return (
          <li key={pin.figure} className="flex min-h-[28px] items-center gap-1 text-[14px]">
            {figure ? (
              <button
                type="button"
                className="num"
                onClick={() => {
                  view.setState({ station: pin.station, opened: pin.figure });
                  router.push(roomPath(id, 'supply'));
                }}
              >
                <span className="text-quiet">{figure.label}</span>{' '}
                <span className="font-semibold">{figureText(figure)}</span>
              </button>
            ) : (
              <span className="text-quiet">no longer there</span>
            )}
            <button
              type="button"
              className="grid h-6 w-6 place-items-center rounded text-quiet hover:bg-paper"
              aria-label={`Unpin ${figure?.label ?? 'it'}`}
              title="Unpin"
              onClick={() => togglePin(view, pin)}
            >
              ×
            </button>
          </li>
        );
      })}
    </ul>
  );
}
