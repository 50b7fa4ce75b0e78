'use client';

import type { Design } from '@/core/design/design';
import { REVISION_NAME_MAX } from '@/core/design/how-many';
import type { DesignStore } from './design-store';
import { keepRevision } from './revisions';

/**
 * Keeps how a design stands at a moment that matters. What cannot be kept just now is no reason to hold up the hand: the
 * document itself is saved as ever, and undo has every step.
 * @param moment a moment that comes only once is kept once, whoever tells of it
 */
export function keepMoment(id: string, design: Design, name: string, why = '', moment?: string): void {
  const naming = { name: name.slice(0, REVISION_NAME_MAX), why, design };
  void keepRevision(id, naming, moment === undefined, moment ? `${moment} ${id}`.slice(0, 60) : undefined);
}

/** Keeps a design as it stood before its first reading: from there on it is measured against the box. */
export function startKeepingMoments(document: DesignStore, id: string): () => void {
  const read = ({ bench }: Design) => bench.readings.length + bench.loadLine.length;
  return document.subscribe(({ design }, { design: before }) => {
    if (read(before) === 0 && read(design) > 0)
      keepMoment(
        id,
        before,
        'Before the first reading',
        'Kept by itself: from here on it is measured.',
        'first reading',
      );
  });
}
