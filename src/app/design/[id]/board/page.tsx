import type { Metadata } from 'next';
import { Board } from '@/places/board/board';

export const metadata: Metadata = { title: 'Board' };

export default function BoardPage() {
  return <Board />;
}
