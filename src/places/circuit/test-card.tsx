import Link from 'next/link';
import type { TestPoint } from '@/core/bench/test-point';
import type { Netlist } from '@/core/netlist/netlist';
import type { Picture } from '@/core/sheet/log-mentions';
import { PhotoStrip } from '@/ui/photo-strip';
import { FigureList } from '@/ui/figure-list';

/** A test point of the circuit: what a probe should read there, each with its working. */
export function TestCard({
  test,
  points,
  benchPath,
  pictures,
}: {
  test: Netlist['tests'][number];
  points: readonly TestPoint[];
  benchPath: string;
  /** Pictures of the log that name it. */
  pictures: readonly Picture[];
}) {
  return (
    <section className="border-l-[3px] border-volt pl-3" aria-label={test.ref} data-testid="test-card">
      <h2 className="text-[19px] font-semibold leading-6">
        {test.ref} <span className="font-normal">on {test.net}</span>
      </h2>
      <FigureList
        label={`${test.ref}: what it should read`}
        figures={points.map((p) => ({ ...p.expected, id: p.id }))}
      />
      <p className="mt-1 text-[14.5px]">
        The window your own meter should show, stage by stage, stands on the{' '}
        <Link className="font-semibold underline" href={benchPath}>
          power-up
        </Link>
        .
      </p>
      <PhotoStrip pictures={pictures} />
    </section>
  );
}
