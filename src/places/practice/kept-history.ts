'use client';

import type { PracticeScore } from '@/core/bench/practice-puzzles';

/** How one puzzle went. */
export interface PracticeRecord extends PracticeScore {
  id: string;
  title: string;
  /** As 2026-01-31. */
  day: string;
}

const KEY = 'ember-rail-practice';
const MOST = 200;

/** What was practised in this browser, the newest first. */
export function keptHistory(): PracticeRecord[] {
  try {
    const found: unknown = JSON.parse(localStorage.getItem(KEY) ?? '[]');
    return Array.isArray(found) ? found.filter(isRecord).slice(0, MOST) : [];
  } catch {
    return [];
  }
}

export function keepRecord(record: PracticeRecord): PracticeRecord[] {
  const next = [record, ...keptHistory()].slice(0, MOST);
  try {
    localStorage.setItem(KEY, JSON.stringify(next));
  } catch {
    // A browser that keeps nothing keeps it while the page is open.
  }
  return next;
}

function isRecord(value: unknown): value is PracticeRecord {
  const r = value as PracticeRecord | null;
  return (
    typeof r === 'object' &&
    r !== null &&
    typeof r.id === 'string' &&
    typeof r.title === 'string' &&
    typeof r.readings === 'number'
  );
}
