'use client';

import type { Part, PartDraft, PartKind } from '@/core/drawer/part';
import type { PartPage } from '@/server/parts';

export interface DrawerPage extends PartPage {
  counts: Partial<Record<PartKind, number>>;
  /** In how many designs each part is, by its id. */
  uses: Record<string, number>;
}

export type Outcome<T> =
  { ok: true; value: T } | { ok: false; sentence: string; users?: { id: string; name: string }[] };

const SILENT = 'The program behind this page does not answer. Start it again; nothing was changed.';

async function ask<T>(url: string, init?: RequestInit): Promise<Outcome<T>> {
  let response: Response;
  try {
    response = await fetch(url, init);
  } catch {
    return { ok: false, sentence: SILENT };
  }
  if (response.status === 204) return { ok: true, value: undefined as T };
  const body = (await response.json().catch(() => ({}))) as { detail?: string; users?: { id: string; name: string }[] };
  if (response.ok) return { ok: true, value: body as T };
  return {
    ok: false,
    sentence: body.detail ?? `The program answered ${response.status}.`,
    ...(body.users ? { users: body.users } : {}),
  };
}

const json = (method: string, body: unknown): RequestInit => ({
  method,
  headers: { 'content-type': 'application/json' },
  body: JSON.stringify(body),
});

export const fetchPage = (query: URLSearchParams) => ask<DrawerPage>(`/api/parts?${query}`);
export const fetchParts = (kinds: readonly PartKind[]) => ask<{ parts: Part[] }>(`/api/parts?kinds=${kinds.join(',')}`);
export const addPart = (part: PartDraft) => ask<Part>('/api/parts', json('POST', part));
export const changePart = ({ id, ...part }: Part) => ask<Part>(`/api/parts/${id}`, json('PUT', part));
export const removePart = (id: string, sure: boolean) =>
  ask<void>(`/api/parts/${id}${sure ? '?sure=1' : ''}`, { method: 'DELETE' });
export const restorePart = ({ id, ...part }: Part) => ask<void>(`/api/parts/${id}`, json('POST', part));
export const importParts = (text: string, refused: number) =>
  ask<{ taken: number }>('/api/parts/import', json('POST', { text, refused }));
