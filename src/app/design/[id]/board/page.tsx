import type { Metadata } from 'next';
import { BoardRoom } from '@/places/board/later';

export const metadata: Metadata = { title: 'Board' };

export default function BoardPage() {
  return <BoardRoom />;
}
