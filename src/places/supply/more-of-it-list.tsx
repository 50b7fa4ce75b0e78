'use client';

import { useCallback, useState } from 'react';
import type { Design, OutputId } from '@/core/design/design';
import { outputsOf } from '@/core/design/outputs';
import { termsOf } from '@/core/design/source';
import type { MoreWith } from '@/core/judge/more-of';
import { formatQuantity } from '@/core/quantity/format';
import { mostWords } from '@/core/study/most-words';
import { Alert } from '@/ui/alert';
import { ChoiceField } from '@/ui/choice-field';
import { useDesign, useEdit } from '@/ui/session';
import { useFound } from '@/ui/use-found';
import { moreInPool } from '@/workers/browser-pool';
import type { PoolOptions } from '@/workers/pool';

const SHOWN = 14;

export function List({ onTaken }: { onTaken(): void }) {
  const design = useDesign();
  const edit = useEdit();
  const outputs = outputsOf(design);
  const [chosen, setChosen] = useState<OutputId>('main');
  const output = outputs.some((o) => o.id === chosen) ? chosen : 'main';
  const ask = useCallback(
    (of: Design, options: PoolOptions<MoreWith | null>) => moreInPool(of, output, options),
    [output],
  );
  const { found, running, trouble } = useFound(ask);
  const ranked = [...found].sort((a, b) => b.gainA - a.gainA || a.costEur - b.costEur);
  const say = termsOf(design);
  return (
    <div className="space-y-2 text-[14px]">
      {outputs.length > 1 && (
        <div className="w-64">
          <ChoiceField
            label="Output"
            value={output}
            options={outputs.map((o) => ({ value: o.id, label: o.name }))}
            onChange={(id: OutputId) => setChosen(id)}
          />
        </div>
      )}
      <p aria-live="polite" className="text-quiet">
        {running ? `${found.length} that gain so far…` : `${found.length} changes gain, the most first`}
      </p>
      {trouble && <Alert>{trouble}</Alert>}
      {ranked.length > 0 && (
        <table className="w-full tabular-nums">
          <thead>
            <tr className="text-left text-[13px] text-quiet">
              <th scope="col">Change</th>
              <th scope="col" className="text-right">
                More
              </th>
              <th scope="col" className="pl-4">
                Then the most it gives
              </th>
              <th scope="col" className="text-right">
                Costs
              </th>
              <th scope="col" className="pl-4">
                At today’s load
              </th>
              <td />
            </tr>
          </thead>
          <tbody>
            {ranked.slice(0, SHOWN).map((c) => (
              <tr key={JSON.stringify(c.edit.patch)} className="border-t border-rule/60">
                <th scope="row" className="py-1 text-left font-medium">
                  {c.edit.label}
                </th>
                <td className="text-right font-semibold">+{formatQuantity(c.gainA, 'A')}</td>
                <td className="pl-4">{mostWords(c.most, say.low, (a) => formatQuantity(a, 'A'))}</td>
                <td className="text-right">{euros(c.costEur)}</td>
                <td className={`pl-4 ${c.fails === 0 ? '' : 'text-fail'}`}>{failsWords(c.fails)}</td>
                <td className="text-right">
                  <button
                    type="button"
                    className="btn !min-h-[26px]"
                    aria-label={`Take ${c.edit.label}`}
                    onClick={() => {
                      edit(c.edit.patch);
                      onTaken();
                    }}
                  >
                    Take
                  </button>
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      {ranked.length > SHOWN && <p className="text-quiet">{ranked.length - SHOWN} more gain less than these.</p>}
      {!running && found.length === 0 && (
        <p>
          No change of one part lets it give more: its own limit stands first, or another part of it lets go as early.
        </p>
      )}
    </div>
  );
}

const failsWords = (fails: number | null) =>
  fails === null ? 'no answer found' : fails === 0 ? 'nothing fails' : `${fails} ${fails === 1 ? 'fails' : 'fail'}`;

const euros = (costEur: number) =>
  Math.abs(costEur) < 0.005 ? 'nothing more' : `${costEur > 0 ? '+' : '−'}${formatQuantity(Math.abs(costEur), 'EUR')}`;
