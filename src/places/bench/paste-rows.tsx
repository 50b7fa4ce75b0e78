'use client';

import { useState } from 'react';
import { mainsToday } from '@/core/bench/readings';
import { readRows } from '@/core/bench/rows-csv';
import type { LoadRow } from '@/core/design/design';
import { PasteCells } from '@/ui/paste-cells';
import { useDesign } from '@/ui/session';

/** Rows out of a spreadsheet, a logger's file or another design. */
export function PasteRows({
  room,
  onClose,
  onTake,
}: {
  /** How many more rows the load line holds. */
  room: number;
  onClose(): void;
  onTake(rows: LoadRow[]): void;
}) {
  const design = useDesign();
  const [at] = useState(() => new Date().toISOString());
  return (
    <PasteCells
      label="Cells or a CSV: load, reservoir, ripple, mains; or with a first row of load, mains, reservoir, ripple, output, metal, minutes, fed, note"
      fileLabel="File with a load line"
      noun={['row', 'rows']}
      read={(text) => {
        const { rows, errors } = readRows(text, at, mainsToday(design), design.demand.outputV, room);
        return { items: rows, errors };
      }}
      onTake={onTake}
      onClose={onClose}
    />
  );
}
