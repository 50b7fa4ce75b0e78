'use client';

import { rankChanges } from '@/core/picture/changes';
import { formatQuantity } from '@/core/quantity/format';
import { Alert } from '@/ui/alert';
import { useEdit } from '@/ui/session';
import { useFound } from '@/ui/use-found';
import { changesInPool } from '@/workers/browser-pool';

const SHOWN = 10;

/** What single change helps most: every one any rule knows, simulated, by margin gained per euro. */
export function Changes() {
  const edit = useEdit();
  const { found, running, trouble } = useFound(changesInPool);
  const ranked = rankChanges(found);
  return (
    <aside aria-label="What single change helps most">
      <h2 className="text-[18px] font-semibold">What single change helps most</h2>
      <p aria-live="polite" className="text-[13.5px] text-quiet">
        {running ? `${found.length} simulated so far…` : `${found.length} simulated, by margin gained per euro`}
      </p>
      <p className="mt-1 text-[13px] text-quiet">
        Margins as shares of what a careful builder keeps: below 0 it fails, from 100 % on it passes with all its
        margin. Prices are typical, to compare by.
      </p>
      {/* Ranked once all of them are there: a list that turns round under the pointer is no list to take from. */}
      <ol className={`mt-1 ${running ? 'min-h-[780px]' : ''}`}>
        {(running ? [] : ranked.slice(0, SHOWN)).map((c, n) => (
          <li key={c.edit.label} className="border-t border-rule/60 py-1.5 text-[14px]">
            <div className="flex items-start justify-between gap-2">
              <span className={n === 0 ? 'font-semibold' : 'font-medium'}>{c.edit.label}</span>
              <button
                type="button"
                className="btn !min-h-[26px]"
                aria-label={`Take ${c.edit.label}`}
                onClick={() => edit(c.edit.patch)}
              >
                Take
              </button>
            </div>
            <p className="text-[13.5px]">
              {c.failsAfter === 0 ? 'nothing fails' : `${c.failsAfter} still ${c.failsAfter === 1 ? 'fails' : 'fail'}`},
              then the tightest is {c.worstTitle.toLowerCase()} {share(c.worstBefore)} → {share(c.worstAfter)};{' '}
              {Math.abs(c.costEur) < 0.005
                ? 'costs nothing more'
                : `${c.costEur > 0 ? '+' : '−'}${formatQuantity(Math.abs(c.costEur), 'EUR')}`}
            </p>
          </li>
        ))}
      </ol>
      {trouble && <Alert className="mt-1 text-[14px]">{trouble}</Alert>}
      {!running && !trouble && ranked.length === 0 && (
        <p className="mt-1 text-[14px]">
          No single change gains anything worth having: what is tight here is tight for another reason.
        </p>
      )}
    </aside>
  );
}

const share = (left: number) =>
  left < -9.99 ? 'far below' : `${left < 0 ? '−' : ''}${Math.abs(Math.round(100 * left))} %`;
