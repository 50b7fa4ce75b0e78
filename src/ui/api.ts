'use client';

import type { Summary } from '@/core/picture/summary';
import type { ShelfEntry, StoredDesign } from '@/server/designs';

/** A refusal in words: what is wrong, and where. */
export interface Refusal {
  sentence: string;
  path: string;
}

export type Asked<T> =
  | { ok: true; value: T }
  /** `said` is the problem as the server told it. */
  | { ok: false; status: number; refusal: Refusal; said: Record<string, unknown> };
export type Created = Asked<StoredDesign>;

/** The server gave no answer at all. */
const SILENT = 0;

/**
 * Asks the server, and says in words what came of it when it refuses, fails or does not answer. Never throws.
 * @returns status 0 where nothing answered
 */
export async function askServer<T = null>(path: string, init: RequestInit = {}): Promise<Asked<T>> {
  let response: Response;
  try {
    response = await fetch(path, init);
  } catch {
    const sentence = 'The program behind this page does not answer. Start it again; nothing was changed.';
    return { ok: false, status: SILENT, refusal: { sentence, path: '' }, said: {} };
  }
  const { status } = response;
  if (response.ok) return { ok: true, value: (status === 204 ? null : await response.json()) as T };
  const said = (await response.json().catch(() => ({}))) as { detail?: string; path?: string };
  return {
    ok: false,
    status,
    refusal: { sentence: said.detail ?? `The program answered ${status}.`, path: said.path ?? '' },
    said,
  };
}

/** A request that carries JSON. */
export const json = (method: string, body: unknown): RequestInit => ({
  method,
  headers: { 'content-type': 'application/json' },
  body: JSON.stringify(body),
});

/** Puts a design on the shelf. The server validates it again. */
export const createDesign = (design: unknown) => askServer<StoredDesign>('/api/designs', json('POST', design));
export const removeDesign = (id: string) => askServer(`/api/designs/${id}`, { method: 'DELETE' });
export const restoreDesign = (id: string) => askServer(`/api/designs/${id}`, { method: 'POST' });
export const fetchDesign = (id: string) => askServer<StoredDesign>(`/api/designs/${id}`);
/** Saves a design over the revision it was opened at. */
export const saveDesign = ({ id, design, revision }: Pick<StoredDesign, 'id' | 'design' | 'revision'>) =>
  askServer<{ revision: number; updatedAt: string }>(
    `/api/designs/${id}`,
    json('PUT', { revision, save: crypto.randomUUID(), design }),
  );
/** What stands on the shelf now. */
export const fetchShelf = () => askServer<ShelfEntry[]>('/api/designs');

/** Drawings of designs by comma-separated ids; empty when they cannot be had. */
export async function fetchSummaries(ids: string): Promise<Record<string, Summary>> {
  const response = await fetch(`/api/summaries?ids=${ids}`).catch(() => null);
  return response?.ok ? ((await response.json()) as Record<string, Summary>) : {};
}
