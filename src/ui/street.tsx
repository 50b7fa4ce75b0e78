'use client';

import Link from 'next/link';
import { usePathname } from 'next/navigation';
import { nextStep } from '@/core/bench/next-step';
import { placesOf, roomAt, roomPath } from './places';
import { useDesign, useView } from './session';
import { useSolved } from './use-solved';
import type { Design } from '@/core/design/design';
import type { RemoteSolver } from '@/workers/client';

const askUnderWay = (solver: RemoteSolver, design: Design) => solver.underWay(design);

/** The places of the work along one rail, the one you are in open with its rooms; at its end, what comes next. */
export function Street() {
  const id = useView((s) => s.id);
  const picture = useView((s) => s.picture);
  const design = useDesign();
  const room = roomAt(usePathname(), id);
  const asks = design.build.kit.length > 0 || design.build.placed.length > 0;
  const { value: underWay } = useSolved(asks ? askUnderWay : null, { waitMs: 300 });
  const next = picture && (!asks || underWay) && nextStep(design, picture, asks ? underWay : null);
  return (
    <div className="flex items-stretch gap-x-4 border-b border-rule px-3 max-[999px]:flex-wrap">
      <nav aria-label="Places of this design" className="shrink-0 max-[999px]:shrink">
        <ul className="flex flex-wrap items-stretch">
          {placesOf(design).map((place) => {
            const here = place.rooms.some((r) => r.id === room);
            const single = place.rooms.length === 1;
            return (
              <li
                key={place.name}
                className={`flex items-stretch max-[639px]:contents ${here && !single ? 'bg-sunk' : ''}`}
              >
                <Link
                  href={roomPath(id, place.rooms[0]!.id)}
                  aria-current={here ? (single ? 'page' : 'true') : undefined}
                  title={single ? undefined : place.rooms.map((r) => r.name).join(', ')}
                  className={`grid min-h-[32px] place-items-center border-b-[3px] px-2.5 max-[900px]:px-2 ${here ? 'font-semibold' : 'text-quiet hover:border-rule hover:text-ink'} ${here && single ? 'border-volt' : 'border-transparent'}`}
                >
                  {place.name}
                </Link>
                {here && !single && (
                  <ul
                    aria-label={`Rooms of ${place.name}`}
                    className="flex flex-wrap items-stretch bg-sunk pr-1 max-[639px]:order-last max-[639px]:w-full max-[639px]:px-1"
                  >
                    {place.rooms.map((r) => (
                      <li key={r.id} className="flex">
                        <Link
                          href={roomPath(id, r.id)}
                          aria-current={r.id === room ? 'page' : undefined}
                          className="grid min-h-[32px] place-items-center border-b-[3px] border-transparent px-2.5 hover:border-rule aria-[current]:border-volt aria-[current]:font-semibold max-[900px]:px-1.5"
                        >
                          {r.name}
                        </Link>
                      </li>
                    ))}
                  </ul>
                )}
              </li>
            );
          })}
        </ul>
      </nav>
      <p
        className="ml-auto flex min-h-[28px] min-w-0 items-center text-[14px] max-[999px]:ml-2 max-[999px]:w-full"
        data-testid="next-step"
      >
        {next && (
          <Link href={roomPath(id, next.room)} className="truncate hover:underline" title={`Next: ${next.text}`}>
            <span className="text-quiet">Next:</span> {next.text} →
          </Link>
        )}
      </p>
    </div>
  );
}
