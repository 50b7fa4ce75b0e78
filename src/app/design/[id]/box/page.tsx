import type { Metadata } from 'next';
import { BoxRoom } from '@/places/box/later';

export const metadata: Metadata = { title: 'Box' };

export default function BoxPage() {
  return <BoxRoom />;
}
