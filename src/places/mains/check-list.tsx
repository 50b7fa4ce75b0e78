'use client';

import type { CheckPoint, MainsReport } from '@/core/mains-side/report';
import type { MainsSide } from '@/core/design/design';
import { Explained } from '@/ui/explained';
import { formatNominal } from '@/core/quantity/format';
import { E12, nearestInDecades } from '@/core/quantity/preferred';
import { useDesign, useEdit } from '@/ui/session';

const SIGNS = { wrong: '✕', done: '●', look: '○' } as const;

/** Points of the checklist; what contradicts the design has its cure beside it, what a person has to look at its tick. */
export function CheckList({ points, report }: { points: readonly CheckPoint[]; report: MainsReport }) {
  const { mainsSide: side } = useDesign();
  const edit = useEdit();
  return (
    <ul className="mt-2">
      {points.map((p) => {
        const cure = p.state === 'wrong' ? cureOf(p, report) : null;
        return (
          <li key={p.id} className="flex items-start gap-2.5 border-t border-rule/60 py-1.5">
            {p.state === 'look' ? (
              <input
                type="checkbox"
                className="mt-0.5 h-[18px] w-[18px] shrink-0 accent-volt"
                aria-label={p.text}
                checked={side.ticked.includes(p.id)}
                onChange={(e) =>
                  edit({
                    mainsSide: {
                      ticked: e.target.checked ? [...side.ticked, p.id] : side.ticked.filter((t) => t !== p.id),
                    },
                  })
                }
              />
            ) : (
              <span
                className={`w-[18px] shrink-0 text-center font-bold ${p.state === 'wrong' ? 'text-fail' : 'text-volt'}`}
                role="img"
                aria-label={p.state === 'wrong' ? 'wrong' : 'done'}
              >
                {SIGNS[p.state]}
              </span>
            )}
            <span className={`min-w-0 flex-1 ${p.state === 'wrong' ? 'font-medium' : ''}`}>
              {p.text}
              <span className="block text-[13px] font-normal text-quiet">
                <Explained text={p.why} />
              </span>
            </span>
            {cure && (
              <button type="button" className="btn" onClick={() => edit(cure.patch)}>
                {cure.label}
              </button>
            )}
          </li>
        );
      })}
    </ul>
  );
}

/** The one step that takes a point off the list, where there is one. */
function cureOf(point: CheckPoint, report: MainsReport) {
  const side = (part: Partial<MainsSide>) => ({ mainsSide: part });
  if (point.id === 'fuse' && report.primaryFuseA !== null)
    return { label: formatNominal(report.primaryFuseA, 'A'), patch: side({ primaryFuseA: report.primaryFuseA }) };
  if ((point.id === 'secondary-fuse' || point.id === 'lead-fuse') && report.secondaryFuseA !== null)
    return { label: formatNominal(report.secondaryFuseA, 'A'), patch: side({ secondaryFuseA: report.secondaryFuseA }) };
  if (point.id === 'switch') return { label: 'Both poles', patch: side({ switchPoles: 2 }) };
  if (point.id === 'bleeder' && report.bleederOhm !== null)
    return {
      label: 'Fit one',
      patch: { filter: { bleederOhm: nearestInDecades(0.9 * report.bleederOhm, E12) } },
    };
  return null;
}
