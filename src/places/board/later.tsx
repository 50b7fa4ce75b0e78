'use client';

import { roomLater } from '@/ui/room-later';

export const BoardRoom = roomLater('Board', () => import('./board').then((m) => m.Board));
