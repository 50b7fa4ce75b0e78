'use client';

import { Copy, Download, Trash2 } from 'lucide-react';
import Link from 'next/link';
import type { StageOfLife } from '@/core/design/kinds';
import type { Summary } from '@/core/picture/summary';
import type { ShelfEntry } from '@/server/designs';
import { IconButton } from '@/ui/icon-button';
import { StageChoice } from '@/ui/stage-choice';
import { StateSign } from '@/ui/state-sign';
import { MiniTerrace } from '@/ui/terrace/mini-terrace';

/** A design on the shelf: its small terrace, how far it is, what is tightest, what is next. */
export function Entry({
  entry,
  summary,
  onStage,
  onRemove,
  onDuplicate,
  onExport,
}: {
  entry: ShelfEntry;
  summary: Summary | undefined;
  onStage(stage: StageOfLife): void;
  onRemove(): void;
  onDuplicate(): void;
  onExport(): void;
}) {
  const { headline } = entry;
  const state = headline === null ? null : headline.fails > 0 ? 'fails' : headline.tight > 0 ? 'tight' : 'holds';
  return (
    <li
      className="group relative flex flex-col rounded border border-rule bg-raised focus-within:border-edge hover:border-edge"
      data-testid="shelf-entry"
    >
      <div className="px-3 pt-2.5">
        <h2 dir="auto" className="truncate text-left text-[17px] font-semibold leading-6">
          <Link href={`/design/${entry.id}`} className="after:absolute after:inset-0">
            {entry.name}
          </Link>
        </h2>
        <div className="float-right -mr-1 ml-2">
          {!entry.fault && (
            <StageChoice
              of={entry.name}
              value={entry.stage}
              onChoose={onStage}
              className="relative z-10 min-h-[24px] cursor-pointer rounded border border-transparent bg-transparent text-right text-[13.5px] text-quiet hover:border-edge"
            />
          )}
        </div>
        <p className="text-[14px] text-quiet">
          {headline?.rating ?? (entry.fault ? 'Nothing to show' : 'Being looked at…')}
          {headline?.hazard && <span className="font-semibold text-fail"> ⚠ hazardous voltage</span>}
        </p>
      </div>
      <div className="aspect-[320/172] px-1">{summary && <MiniTerrace summary={summary} id={entry.id} />}</div>
      <div className="mt-auto flex items-start gap-2 border-t border-rule px-3 py-2 text-[14px] leading-snug">
        {state && (
          <span className="pt-0.5">
            <StateSign state={state} size={14} />
          </span>
        )}
        <p className="min-w-0 flex-1">
          {headline === null ? (
            (entry.fault ?? 'Solved in the background; open it at any time.')
          ) : headline.fails > 0 ? (
            <>
              <strong>
                {headline.fails} {headline.fails === 1 ? 'verdict fails' : 'verdicts fail'}.
              </strong>{' '}
              {headline.worst!.title}: {lowerFirst(headline.worst!.sentence)}
            </>
          ) : (
            <>
              <strong>Passes, tightest:</strong>{' '}
              {headline.worst ? `${headline.worst.title.toLowerCase()}, ${lowerFirst(headline.worst.sentence)}` : ''}
              <span className="block">
                <span className="text-quiet">Next:</span> {headline.next}.
              </span>
            </>
          )}
        </p>
        <span className="relative z-10 -mr-1.5 flex opacity-60 focus-within:opacity-100 group-hover:opacity-100">
          <IconButton label={`Export ${entry.name}`} title="Export as JSON" onClick={onExport}>
            <Download size={15} />
          </IconButton>
          <IconButton label={`Duplicate ${entry.name}`} title="Duplicate" onClick={onDuplicate}>
            <Copy size={15} />
          </IconButton>
          <IconButton label={`Delete ${entry.name}`} title="Delete" onClick={onRemove}>
            <Trash2 size={15} />
          </IconButton>
        </span>
      </div>
    </li>
  );
}

function lowerFirst(text: string): string {
  return text[0]!.toLowerCase() + text.slice(1);
}
