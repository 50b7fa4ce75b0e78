'use client';

import type { Design } from '@/core/design/design';
import type { Summary } from '@/core/judge/picture';
import type { StoredDesign } from '@/server/designs';

/** A refusal in words: what is wrong, and where. */
export interface Refusal {
  sentence: string;
  path: string;
}

export type Created = { ok: true; stored: StoredDesign } | { ok: false; refusal: Refusal };

/** Puts a design on the shelf. The server validates it again. */
export async function createDesign(design: unknown): Promise<Created> {
  let response: Response;
  try {
    response = await fetch('/api/designs', {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify(design),
    });
  } catch {
    return {
      ok: false,
      refusal: {
        sentence: 'The program behind this page does not answer. Start it again; nothing was changed.',
        path: '',
      },
    };
  }
  if (response.ok) return { ok: true, stored: (await response.json()) as StoredDesign };
  const problem = (await response.json().catch(() => ({}))) as { detail?: string; path?: string };
  return {
    ok: false,
    refusal: { sentence: problem.detail ?? `The program answered ${response.status}.`, path: problem.path ?? '' },
  };
}

export async function removeDesign(id: string): Promise<boolean> {
  return (await fetch(`/api/designs/${id}`, { method: 'DELETE' })).ok;
}

export async function restoreDesign(id: string): Promise<boolean> {
  return (await fetch(`/api/designs/${id}`, { method: 'POST' })).ok;
}

export async function fetchDesign(id: string): Promise<Design | null> {
  const response = await fetch(`/api/designs/${id}`);
  return response.ok ? ((await response.json()) as StoredDesign).design : null;
}

/** Drawings of designs by comma-separated ids; empty when they cannot be had. */
export async function fetchSummaries(ids: string): Promise<Record<string, Summary>> {
  const response = await fetch(`/api/summaries?ids=${ids}`).catch(() => null);
  return response?.ok ? ((await response.json()) as Record<string, Summary>) : {};
}
