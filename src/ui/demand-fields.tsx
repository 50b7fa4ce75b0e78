'use client';

import { allowedWords, readAllowed, readRange, spanWords } from '@/core/design/allowed';
import type { OutputDemand, Span } from '@/core/design/design';
import { parseLoad } from '@/core/quantity/load';
import { E12 } from '@/core/quantity/preferred';
import { inDecades } from '@/ui/stepping';
import { QuantityField } from '@/ui/quantity-field';
import { ReadField } from '@/ui/read-field';

/** A current that may be typed as a resistor or as watts too. */
export function LoadField({
  path,
  label,
  volts,
  value,
  placeholder,
  onCommit,
}: {
  path: 'demand.outputA' | 'demand.typicalA' | 'demand.leastA' | 'demand.negativeA';
  label?: string;
  volts: number;
  value: number | null;
  placeholder?: string;
  onCommit(value: number | null): void;
}) {
  return (
    <QuantityField
      path={path}
      value={value}
      step={inDecades(E12)}
      read={(text) => parseLoad(text, volts)}
      onCommit={onCommit}
      {...(label === undefined ? {} : { label })}
      {...(placeholder === undefined ? {} : { placeholder })}
    />
  );
}

/** What an output may deviate by: per cent either way, or two ends. */
export function AllowedField({
  demand,
  onCommit,
}: {
  demand: OutputDemand;
  onCommit(part: Partial<OutputDemand>): void;
}) {
  return (
    <ReadField
      label="Allowed, ±, or from … to"
      shown={allowedWords(demand)}
      read={(text) => readAllowed(text, demand)}
      onCommit={onCommit}
    />
  );
}

/** Volts an output has to be set between; empty for all its knob reaches. */
export function RangeField({ range, onCommit }: { range: Span | null; onCommit(range: Span | null): void }) {
  return (
    <ReadField<Span | null>
      label="To be set between"
      shown={range ? spanWords(range) : ''}
      placeholder="all its knob reaches"
      read={(text) => (text.trim() === '' ? { ok: true, value: null } : readRange(text))}
      onCommit={onCommit}
    />
  );
}
