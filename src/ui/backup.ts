'use client';

import type { Copy, Look } from '@/server/backup';
import { askServer, json, type Asked } from './api';

export type { Copy, Look } from '@/server/backup';

/** When the last backup was made, and the copies beside the file. */
export const fetchBackups = () => askServer<{ last: string | null; copies: Copy[] }>('/api/backup');

/** Everything in one file. */
export async function makeBackup(): Promise<{ ok: true; file: Blob } | { ok: false; sentence: string }> {
  const silent = { ok: false as const, sentence: 'The program behind this page does not answer. Start it again.' };
  const response = await fetch('/api/backup', { method: 'POST' }).catch(() => null);
  if (!response) return silent;
  if (response.ok)
    return response.blob().then(
      (file) => ({ ok: true as const, file }),
      () => silent,
    );
  const said = (await response.json().catch(() => ({}))) as { detail?: string };
  return { ok: false, sentence: said.detail ?? `The program answered ${response.status}.` };
}

/** Looks into a backup without replacing anything. */
export const lookInto = (what: Blob | { copy: string }): Promise<Asked<Look>> =>
  'copy' in what
    ? askServer(`/api/backup/look?copy=${encodeURIComponent(what.copy)}`, { method: 'POST' })
    : askServer('/api/backup/look', {
        method: 'POST',
        headers: { 'content-type': 'application/octet-stream' },
        body: what,
      });

/** Puts what was looked into in the place of everything. */
export const putInPlace = (token: string) =>
  askServer<{ before: string }>('/api/backup/restore', json('POST', { token }));
