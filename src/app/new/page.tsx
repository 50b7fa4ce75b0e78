import type { Metadata } from 'next';
import { NewFromLoad } from '@/places/new/new-from-load';

export const metadata: Metadata = { title: 'New from a load' };
export const dynamic = 'force-dynamic';

export default function Page() {
  return <NewFromLoad />;
}
