'use client';

import type { Part, PartDraft, PartKind } from '@/core/drawer/part';
import type { PartPage } from '@/server/parts';
import { askServer, json } from '../api';

export interface DrawerPage extends PartPage {
  counts: Partial<Record<PartKind, number>>;
  /** In how many designs each part is, by its id. */
  uses: Record<string, number>;
}

export type Outcome<T> =
  { ok: true; value: T } | { ok: false; sentence: string; users?: { id: string; name: string }[] };

async function ask<T>(path: string, init?: RequestInit): Promise<Outcome<T>> {
  const answer = await askServer<T>(path, init);
  if (answer.ok) return answer;
  const { users } = answer.said as { users?: { id: string; name: string }[] };
  return { ok: false, sentence: answer.refusal.sentence, ...(users ? { users } : {}) };
}

export const fetchPage = (query: URLSearchParams) => ask<DrawerPage>(`/api/parts?${query}`);
export const fetchParts = (kinds: readonly PartKind[]) => ask<{ parts: Part[] }>(`/api/parts?kinds=${kinds.join(',')}`);
export const addPart = (part: PartDraft) => ask<Part>('/api/parts', json('POST', part));
export const changePart = ({ id, ...part }: Part) => ask<Part>(`/api/parts/${id}`, json('PUT', part));
export const removePart = (id: string, sure: boolean) =>
  ask<void>(`/api/parts/${id}${sure ? '?sure=1' : ''}`, { method: 'DELETE' });
export const restorePart = ({ id, ...part }: Part) => ask<void>(`/api/parts/${id}`, json('POST', part));
export const importParts = (text: string, refused: number) =>
  ask<{ taken: number }>('/api/parts/import', json('POST', { text, refused }));
