'use client';

import type { Consumer } from '@/core/design/design';
import type { Output } from '@/core/design/outputs';
import { readConsumers } from '@/core/load/consumers-csv';
import { PasteCells } from '@/ui/paste-cells';

/** Consumers out of a spreadsheet or a file. */
export function Paste({
  outputs,
  onClose,
  onTake,
}: {
  outputs: readonly Output[];
  onClose(): void;
  onTake(consumers: Consumer[]): void;
}) {
  return (
    <PasteCells
      label="Cells from a spreadsheet or a CSV: name, count, typical, peak; or with a first row of name, count, on, output, kind, standing, typical, peak, duty, start"
      fileLabel="File with a load table"
      noun={['line', 'lines']}
      read={(text) => {
        const { consumers, errors } = readConsumers(text, outputs);
        return { items: consumers, errors };
      }}
      onTake={onTake}
      onClose={onClose}
    />
  );
}
