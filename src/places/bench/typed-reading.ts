'use client';

import { useState } from 'react';
import type { TestPoint } from '@/core/bench/test-point';
import type { Reading } from '@/core/design/design';
import { formatQuantity } from '@/core/quantity/format';
import { parseQuantity } from '@/core/quantity/parse';

/** A reading being typed over the last one: what cannot be one stays with its sentence. */
export function useTypedReading(point: TestPoint, reading: Reading | undefined, onKeep: (value: number) => void) {
  const [draft, setDraft] = useState<string | null>(null);
  const [fault, setFault] = useState<string | null>(null);
  const shown = draft ?? (reading ? String(Number(reading.value.toPrecision(5))) : '');

  function commit(text: string): boolean {
    if (text.trim() === '' || (draft === null && reading)) {
      setDraft(null);
      setFault(null);
      return true;
    }
    const parsed = parseQuantity(text, point.unit);
    if (!parsed.ok) {
      setFault(parsed.error);
      return false;
    }
    if (Math.abs(parsed.value) > 5000) {
      setFault(
        `${formatQuantity(parsed.value, point.unit)} is no reading of this point: look at the range of the meter.`,
      );
      return false;
    }
    setFault(null);
    setDraft(null);
    onKeep(parsed.value);
    return true;
  }
  return { draft, setDraft, fault, setFault, shown, commit };
}
