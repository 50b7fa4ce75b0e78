'use client';

import type { Design } from '@/core/design/design';
import type { Revision } from '@/server/revisions';
import { askServer, json } from './api';

export type { Revision } from '@/server/revisions';

const at = (designId: string) => `/api/designs/${designId}/revisions`;

/** What is kept of a design under a name, the newest first. */
export const fetchRevisions = (designId: string) => askServer<Revision[]>(at(designId));

/** One of them with its design. */
export const fetchRevision = (designId: string, id: string) =>
  askServer<Revision & { design: Design }>(`${at(designId)}/${encodeURIComponent(id)}`);

/**
 * Keeps a state of a design under a name, and answers with all that are kept.
 * @param unlessKept nothing is kept where the newest one is that very state
 * @param revisionId its own name: sent twice it is kept once
 */
export const keepRevision = (
  designId: string,
  { name, why, design }: { name: string; why: string; design: Design },
  unlessKept = false,
  revisionId: string = crypto.randomUUID(),
) =>
  askServer<Revision[]>(
    at(designId),
    json('POST', { id: revisionId, name: name.trim(), why: why.trim(), design, unlessKept }),
  );
