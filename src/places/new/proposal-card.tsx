'use client';

import { useState } from 'react';
import type { Design } from '@/core/design/design';
import { arrangementWords, ratingWords, sourceWords, windingWords } from '@/core/design/words';
import type { Verdict } from '@/core/judge/verdict';
import type { Summary } from '@/core/picture/summary';
import { formatNominal } from '@/core/quantity/format';
import { unbroken } from '@/core/quantity/unbroken';
import type { Reason } from '@/core/size/proposal';
import { figureText } from '@/core/study/figure';
import { StateSign } from '@/ui/state-sign';
import { MiniTerrace } from '@/ui/terrace/mini-terrace';
import { Working } from '@/ui/working';

const STATION_NAMES: Readonly<Record<Reason['station'], string>> = {
  mains: 'Mains',
  winding: 'Transformer',
  rectifier: 'Rectifier',
  before: 'Input filter',
  after: 'Filter',
  reservoir: 'Reservoir',
  regulator: 'Regulator',
  load: 'Load',
};

interface Props {
  design: Design;
  summary: Summary;
  verdicts: readonly Verdict[];
  /** What it is, beside how it stands. */
  lead: string;
  /** Why it falls short of what was asked. */
  trouble?: string | null;
  reasons?: readonly Reason[];
  leftOut?: readonly string[];
  costEur: number;
  /** Whether its button has the focus as it comes: where Enter asked for it. */
  focus?: boolean;
  busy: boolean;
  onTake(): void;
}

/** A supply before it is made: how it stands, drawn, with its verdicts, each with its working. */
export function ProposalCard({
  design,
  summary,
  verdicts,
  lead,
  trouble = null,
  reasons = [],
  leftOut = [],
  costEur,
  focus = false,
  busy,
  onTake,
}: Props) {
  const [opened, setOpened] = useState<string | null>(null);
  const cautions = verdicts.filter((v) => v.state === 'caution').length;
  const fails = verdicts.filter((v) => v.state === 'fails');
  const heading =
    design.source.kind === 'mains'
      ? `${windingWords(design)}, ${formatNominal(design.transformer.ratedVA, 'VA')}`
      : sourceWords(design);
  return (
    <div className="rounded border border-rule bg-raised p-5" data-testid="proposal">
      <div className="mb-3 grid gap-5 min-[640px]:grid-cols-[minmax(0,1fr)_minmax(0,400px)]">
        <div>
          <h2 className="text-[24px] font-semibold leading-tight">{heading}</h2>
          <p className="text-[14px] text-quiet">
            {arrangementWords(design)}, {ratingWords(design)}
          </p>
          {trouble && (
            <p role="alert" className="mt-2 rounded border-2 border-fail bg-fail-soft px-3 py-2">
              {trouble}
            </p>
          )}
          {!trouble && (
            <p className="mt-2 flex gap-2">
              <span className="pt-1">
                <StateSign state={fails.length > 0 ? 'fails' : 'holds'} />
              </span>
              <span>
                {fails.length > 0
                  ? `${fails.length} of its ${verdicts.length - cautions} verdicts ${fails.length === 1 ? 'fails' : 'fail'}; ${fails[0]!.title.toLowerCase()} first. Each has its fixes once it is open.`
                  : `Passes all ${verdicts.length - cautions} of its verdicts${cautions > 0 ? `, with ${cautions} ${cautions === 1 ? 'caution' : 'cautions'}` : ''}.`}
              </span>
            </p>
          )}
          <p className="mt-1 text-quiet">
            {lead} Parts cost about {costEur.toFixed(0)} EUR, by rule of thumb.
          </p>
          <button
            type="button"
            className="btn btn-main mt-4 !min-h-[36px] text-[16px]"
            autoFocus={focus}
            disabled={busy}
            onClick={onTake}
          >
            {trouble ? 'Open it all the same' : 'Take it and open'}
          </button>
        </div>
        <MiniTerrace summary={summary} id="proposal" />
      </div>
      <dl className="mt-2 space-y-2">
        {reasons.map((r) => (
          <div key={r.station} className="grid grid-cols-[104px_1fr] gap-3">
            <dt className="font-semibold">{STATION_NAMES[r.station]}</dt>
            <dd>{unbroken(r.text)}</dd>
          </div>
        ))}
      </dl>
      {leftOut.length > 0 && (
        <details className="mt-3 text-[14px] text-quiet">
          <summary className="cursor-pointer">What was left out, and why</summary>
          <ul className="list-disc pl-5">
            {leftOut.map((line) => (
              <li key={line}>{line}</li>
            ))}
          </ul>
        </details>
      )}
      <ul className="mt-4 flex flex-wrap gap-x-4 gap-y-1 border-t border-rule pt-3 text-[14px]">
        {verdicts.map((v) => (
          <li key={v.id} className="flex items-center gap-1.5">
            <StateSign state={v.state} size={12} />
            <button
              type="button"
              className="num"
              aria-expanded={opened === v.id}
              onClick={() => setOpened(opened === v.id ? null : v.id)}
            >
              {v.title} <strong>{figureText(v.figure)}</strong>
            </button>
          </li>
        ))}
      </ul>
      {verdicts
        .filter((v) => v.id === opened)
        .map((v) => (
          <div key={v.id} className="mt-3 border-l-2 border-volt pl-3">
            <Working figure={v.figure} />
          </div>
        ))}
    </div>
  );
}
