'use client';

import { figureText } from '@/core/study/figure';
import dynamic from 'next/dynamic';
import { useRef, useState } from 'react';
import { orSay } from '@/ui/loading';
import type { Picture } from '@/core/picture/picture';
import type { Effect, Fix, Verdict } from '@/core/judge/verdict';
import { capitalised, formatNominal, formatQuantity } from '@/core/quantity/format';
import { Explained } from '@/ui/explained';
import { useEdit, useSession, useView } from '@/ui/session';
import { STATE_WORDS, stateInWords } from '@/ui/state-in-words';
import { StateSign, stateColour } from '@/ui/state-sign';
import { MarginBar } from './margin-bar';

/** Verdicts this near their limit, in wanted margins, deserve to be told how sure they are. */
const NEAR = 1.5;

const HowSure = dynamic(
  orSay(() => import('./how-sure').then((m) => m.HowSure)),
  { ssr: false, loading: () => <p className="mt-1 min-h-[36px]" /> },
);

/** The list of judgements, least left first: the open one with its reason and simulated fixes, the rest a line each. */
export function VerdictRail({ picture }: { picture: Picture }) {
  const { verdicts, fails } = picture;
  const count = useRef<HTMLHeadingElement>(null);
  const [chosen, setChosen] = useState<string | null>(null);
  const current = useView((s) => s.current);
  const worst = verdicts[0];
  const open = verdicts.find((v) => v.id === chosen) ?? worst;

  return (
    <section
      aria-label="Verdicts"
      id="verdicts"
      tabIndex={-1}
      className="flex min-h-0 flex-col border-rule bg-raised border-t outline-none full:border-l full:border-t-0 max-[639px]:order-first"
      data-testid="verdict-rail"
    >
      <header className="border-b border-rule px-4 pb-2 pt-2.5">
        <h2
          ref={count}
          tabIndex={-1}
          className={`text-[21px] outline-none font-semibold leading-tight ${current && fails ? 'text-fail' : ''}`}
          data-testid="verdict-count"
        >
          {stateInWords(picture, current).words}
        </h2>
        {!current && (
          <p className="text-[13px] leading-tight text-tight">
            The design has moved on; what stands here is of its last solved state.
          </p>
        )}
        {picture.hazard && (
          <p className="mt-0.5 text-[13px] font-semibold leading-tight text-fail">⚠ {picture.hazard}</p>
        )}
      </header>
      <ul className="min-h-0 flex-1 full:overflow-y-auto">
        {verdicts.map((v) =>
          v === open ? (
            <OpenVerdict
              key={v.id}
              verdict={v}
              failsNow={fails}
              onApplied={() => {
                setChosen(null);
                // The button that was pressed is gone with its verdict.
                count.current?.focus();
              }}
            />
          ) : (
            <VerdictLine key={v.id} verdict={v} onOpen={() => setChosen(v.id)} />
          ),
        )}
      </ul>
    </section>
  );
}

function VerdictLine({ verdict, onOpen }: { verdict: Verdict; onOpen(): void }) {
  return (
    <li className="border-b border-rule/60">
      <button
        type="button"
        className="flex w-full items-center gap-2 px-4 py-[5px] text-left hover:bg-paper"
        aria-expanded={false}
        title={verdict.title}
        onClick={onOpen}
        data-verdict={verdict.id}
        data-state={verdict.state}
      >
        <StateSign state={verdict.state} size={13} />
        <span className={`min-w-0 flex-1 truncate ${verdict.state === 'holds' ? '' : 'font-semibold'}`}>
          {verdict.title}
        </span>
        <span className="whitespace-nowrap text-[13px] text-quiet">{limitWords(verdict)}</span>
      </button>
    </li>
  );
}

/** Once a fix is taken, the list turns to whatever is worst then. */
function OpenVerdict({ verdict, failsNow, onApplied }: { verdict: Verdict; failsNow: number; onApplied(): void }) {
  const { view } = useSession();
  const fixes = useView((s) => s.fixes)[verdict.id];
  const fixing = useView((s) => s.fixing);
  const colour = stateColour(verdict.state);
  return (
    <li
      className="flex flex-col items-stretch border-b border-rule bg-paper px-4 pb-2.5 pt-2"
      data-verdict={verdict.id}
      data-state={verdict.state}
      data-open
    >
      <div className="flex items-center gap-2">
        <StateSign state={verdict.state} />
        <h3 className="flex-1 text-[16px] font-semibold leading-tight">{verdict.title}</h3>
        <span className="text-[13px] font-semibold" style={{ color: colour }}>
          {STATE_WORDS[verdict.state]}
        </span>
      </div>
      <button
        type="button"
        className="num mt-1 self-start text-left text-[14.5px] leading-snug"
        onClick={() => view.setState({ opened: `verdict:${verdict.id}`, station: verdict.station })}
      >
        {verdict.sentence}
      </button>
      <MarginBar verdict={verdict} />
      {Math.abs(verdict.left) < NEAR && verdict.state !== 'holds' && (
        <div className="order-2">
          <HowSure verdict={verdict} />
        </div>
      )}
      {verdict.state !== 'holds' && (
        // Three fixes have their room before they are found: nothing below them moves when they come.
        <div className="order-3 mt-2 min-h-[264px]" aria-busy={fixing}>
          {fixes && fixes.length > 0 && (
            <ul className={`space-y-1.5 ${fixing ? 'opacity-60' : ''}`}>
              {fixes.map((f) => (
                <FixButton key={f.edit.label} fix={f} failsNow={failsNow} disabled={fixing} onApplied={onApplied} />
              ))}
            </ul>
          )}
          {!fixes && fixing && <p className="text-[13px] text-quiet">Simulating what would cure it…</p>}
          {!fixing && (!fixes || fixes.length === 0) && (
            <p className="text-[13px] text-quiet">
              No single step along standard values cures this one. Look at the failing verdicts around it first.
            </p>
          )}
        </div>
      )}
      {/* Stands above what cures it, and comes after it by keyboard: its words are stops of their own. */}
      <p className="order-1 text-[13px] leading-snug text-quiet">
        <Explained
          text={[
            verdict.figure.condition ? `${capitalised(verdict.figure.condition)}.` : '',
            verdict.limitSource,
            verdict.reason,
          ]
            .join(' ')
            .trim()}
        />
      </p>
    </li>
  );
}

/** Lines a fix has room for beside its own figure, and letters of its name on one of them. */
const ROOM_LINES = 3;
const NAME_LETTERS = 30;

function FixButton({
  fix,
  failsNow,
  disabled,
  onApplied,
}: {
  fix: Fix;
  failsNow: number;
  disabled: boolean;
  onApplied(): void;
}) {
  const edit = useEdit();
  const { document } = useSession();
  const id = useView((s) => s.id);
  const { self, others } = fix;
  // As many lines as its room has beside its own name; all of them stand in the title.
  const shown = Math.min(2, Math.max(0, ROOM_LINES - Math.ceil(fix.edit.label.length / NAME_LETTERS)));
  return (
    <li>
      <button
        type="button"
        disabled={disabled}
        className="flex min-h-[84px] w-full flex-col rounded border border-rule bg-raised px-2.5 py-1 text-left leading-[18px] hover:border-edge"
        title={[fix.edit.label, ...others.map(effectWords)].join('\n')}
        onClick={() => {
          const before = document.getState().design;
          void import('@/ui/kept-moments').then((m) => m.keepMoment(id, before, `Before ‘${fix.edit.label}’`));
          edit(fix.edit.patch);
          onApplied();
        }}
        data-testid="fix"
      >
        <span className="flex items-baseline justify-between gap-2">
          <span className="min-w-0 font-semibold">{fix.edit.label}</span>
          <span className="whitespace-nowrap text-[13px] text-quiet">{price(fix.costChangeEur)}</span>
        </span>
        <span className="flex items-center gap-1.5 text-[13.5px]">
          <StateSign state={self.stateAfter} size={11} />
          {formatQuantity(self.before, self.unit)} → {formatQuantity(self.after, self.unit)}
          {failsNow > 0 && (
            <span className="ml-auto text-[13px] text-quiet">
              {fix.failsAfter === 0 ? 'nothing fails then' : `${fix.failsAfter} fail then`}
            </span>
          )}
        </span>
        {others.slice(0, shown).map((o, n) => (
          <span key={o.verdict} className="flex items-center gap-1.5 text-[13px] text-quiet">
            <StateSign state={o.stateAfter} size={10} />
            <span className="min-w-0 truncate">{effectWords(o)}</span>
            {n === 0 && others.length > shown && (
              <span className="ml-auto whitespace-nowrap">and {others.length - shown} more</span>
            )}
          </span>
        ))}
      </button>
    </li>
  );
}

/** What a fix does to another verdict: 'Reservoir voltage: passes → tight'. */
const effectWords = (effect: Effect) =>
  `${effect.title}: ${STATE_WORDS[effect.stateBefore]} → ${STATE_WORDS[effect.stateAfter]}`;

function limitWords(v: Verdict): string {
  return v.relation === 'at least' && v.limit === 0
    ? figureText(v.figure)
    : v.figure.words
      ? v.figure.words
      : `${figureText(v.figure)} of ${formatNominal(Number(v.limit.toPrecision(3)), v.figure.unit)}`;
}

function price(change: number): string {
  return Math.abs(change) < 0.005
    ? 'same price'
    : `${change < 0 ? '−' : '+'}${Math.abs(change).toFixed(2)} EUR typical`;
}
