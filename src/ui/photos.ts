'use client';

import { askServer } from './api';

/** Where a picture of a log is to be had. */
export const photoPath = (id: string) => `/api/photos/${id}`;

/** Has a picture kept; answers with the name it is kept under. */
export const keepPhoto = (file: Blob) =>
  askServer<{ id: string; width: number; height: number }>('/api/photos', {
    method: 'POST',
    headers: { 'content-type': 'application/octet-stream' },
    body: file,
  });
