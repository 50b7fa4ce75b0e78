'use client';

import { applyPatch, type Consumer, type Design } from '@/core/design/design';
import { consumersFor } from '@/core/load/offers';
import { railSums } from '@/core/load/sums';
import { formatNominal, formatQuantity } from '@/core/quantity/format';
import { figureText } from '@/core/study/figure';
import { useDesign, useView } from '@/ui/session';
import { StateSign } from '@/ui/state-sign';
import { useSolved } from '@/ui/use-solved';
import type { RemoteSolver } from '@/workers/client';
import type { Answer } from '@/workers/answer';
import type { Picture } from '@/core/picture/picture';
import type { Verdict } from '@/core/judge/verdict';

/** A design with one thing more on its main output. */
function withOne(design: Design, consumer: Consumer): Design {
  const sums = railSums({ consumers: [consumer], togetherPct: 100, reservePct: 0 }, 'main');
  const { outputA, typicalA } = design.demand;
  const tidy = (a: number) => Number(a.toPrecision(4));
  return applyPatch(design, {
    demand: { outputA: tidy(outputA + sums.peakA), typicalA: tidy((typicalA ?? outputA) + sums.lastingA) },
  });
}

/** Every offer simulated on this design, in their order. */
async function askOffers(solver: RemoteSolver, design: Design): Promise<Answer<Picture[]>> {
  const found: Picture[] = [];
  for (const c of consumersFor(design.demand.outputA)) {
    const answer = await solver.evaluate(withOne(design, c));
    if (!answer.ok) return answer;
    found.push(answer.value);
  }
  return { ok: true, value: found };
}

/** The two figures a load moves first: what is left in the valley, and what gets hot. */
const valley = (p: Picture) => p.verdicts.find((v) => v.id === 'headroom' || v.id === 'output-window');
const heat = (p: Picture) => p.verdicts.find((v) => v.id === 'junction' || v.id === 'winding-heat');

/** Of an empty table: what one line does to headroom and heat of this very design, and three to begin with. */
export function FirstConsumers({ onTake }: { onTake(consumer: Consumer): void }) {
  const design = useDesign();
  const now = useView((s) => s.picture);
  const { value, trouble } = useSolved(askOffers, { waitMs: 150 });
  const offers = consumersFor(design.demand.outputA);
  return (
    <section aria-label="What a line does" className="my-3 max-w-[860px]">
      <p className="max-w-[70ch]">
        Nothing is listed yet; the supply is designed for {formatQuantity(design.demand.outputA, 'A')} as it stands.
        List what hangs on it, and its sums can be taken over: the peak decides the valley, the lasting current the
        heat. One thing more on this supply would do this:
      </p>
      <ul className="mt-2">
        {offers.map((c, n) => {
          const then = value?.[n];
          return (
            <li
              key={c.name}
              className="grid min-h-[52px] items-center gap-x-4 border-t border-rule/60 py-1 min-[640px]:grid-cols-[minmax(0,1fr)_minmax(0,1.2fr)_minmax(0,1.2fr)_auto]"
            >
              <span>
                <span className="font-semibold">{c.name}</span>{' '}
                <span className="text-quiet">
                  {formatNominal(c.typicalA, 'A')}
                  {c.peakA > c.typicalA ? `, ${formatNominal(c.peakA, 'A')} at most` : ''}
                </span>
              </span>
              <Moves before={now && valley(now)} after={then && valley(then)} />
              <Moves before={now && heat(now)} after={then && heat(then)} />
              <button type="button" className="btn" onClick={() => onTake(c)} aria-label={`List ${c.name}`}>
                List it
              </button>
            </li>
          );
        })}
      </ul>
      {trouble && <p className="text-[14px] text-quiet">What they do could not be simulated. {trouble}</p>}
    </section>
  );
}

function Moves({ before, after }: { before: Verdict | null | undefined; after: Verdict | null | undefined }) {
  if (!before || !after) return <span />;
  return (
    <span className="flex items-start gap-1.5 text-[14px]">
      <span className="pt-1">
        <StateSign state={after.state} size={12} />
      </span>
      <span>
        <span className="text-quiet">{after.title}:</span> {figureText(before.figure)} → {figureText(after.figure)}
      </span>
    </span>
  );
}
