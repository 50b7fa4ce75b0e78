'use client';

import { roomLater } from '@/ui/room-later';

export const WiringRoom = roomLater('Wiring', () => import('./wiring').then((m) => m.Wiring));
