import type { Metadata } from 'next';
import { Box } from '@/places/box/box';

export const metadata: Metadata = { title: 'Box' };

export default function BoxPage() {
  return <Box />;
}
