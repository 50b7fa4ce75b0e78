'use client';

import { roomLater } from '@/ui/room-later';

export const BoxRoom = roomLater('Box', () => import('./box').then((m) => m.Box));
