'use client';

import { roomLater } from '@/ui/room-later';

export const CircuitRoom = roomLater('Circuit', () => import('./circuit').then((m) => m.Circuit));
