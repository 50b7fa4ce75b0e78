import type { Metadata } from 'next';
import { Sheet } from '@/places/sheet/sheet';

export const metadata: Metadata = { title: 'Sheet' };

export default function SheetPage() {
  return <Sheet />;
}
