import type { Block } from '@/core/box/block';
import type { Clearance } from '@/core/box/clearances';
import { Working } from '@/ui/working';

/** How many of those that hold are told: the tightest of each rule. */
const SHOWN = 7;

/** What is too near, and of each rule that holds where least is left. */
export function Distances({
  clearances,
  blocks,
  selected,
  onSelect,
}: {
  clearances: readonly Clearance[];
  blocks: readonly Block[];
  selected: string | null;
  onSelect(id: string): void;
}) {
  const broken = clearances.filter((c) => !c.holds);
  const of = selected === null ? clearances : clearances.filter((c) => c.blocks.includes(selected));
  const tightest = [...new Map([...of].reverse().map((c) => [c.rule, c])).values()]
    .filter((c) => c.holds)
    .sort((a, b) => a.leftMm - b.leftMm)
    .slice(0, SHOWN);
  const label = (id: string) => blocks.find((b) => b.id === id)?.label ?? id;
  const row = (c: Clearance) => (
    <li key={`${c.rule} ${c.blocks.join(' ')}`} className="border-t border-rule/60 py-1.5">
      <details>
        <summary className={`flex cursor-pointer items-baseline gap-2 ${c.holds ? '' : 'font-semibold text-fail'}`}>
          <span className="min-w-0 flex-1">
            {!c.holds && '✕ '}
            {c.name}: {c.blocks.map(label).join(' – ')}
          </span>
          <span className="whitespace-nowrap tabular-nums">
            {said(c.hasMm)} of {c.atMost && 'at most '}
            {said(c.wantsMm)} mm
          </span>
        </summary>
        <p className="pb-1 text-quiet">
          {c.why} {c.source}
        </p>
        {c.working && <Working figure={c.working} />}
        {c.blocks.map((id) => (
          <button key={id} type="button" className="btn btn-bare mr-1" onClick={() => onSelect(id)}>
            {label(id)}
          </button>
        ))}
      </details>
    </li>
  );
  return (
    <section aria-label="Distances">
      <h2 className="text-[15px] font-semibold">
        {broken.length === 0
          ? `All ${clearances.length} distances are kept`
          : `${broken.length} of ${clearances.length} distances ${broken.length === 1 ? 'is' : 'are'} too short`}
      </h2>
      <ul className="mt-1 text-[14px]" aria-live="polite">
        {broken.map(row)}
        {tightest.map(row)}
      </ul>
    </section>
  );
}

/** A distance as a person measures it. */
const said = (mm: number) => {
  const value = Math.abs(mm) < 10 ? Math.round(10 * mm) / 10 : Math.round(mm);
  return String(value).replace('-', '−');
};
