import type { Metadata } from 'next';
import { Revisions } from '@/places/revisions/revisions';

export const metadata: Metadata = { title: 'Revisions' };

export default function RevisionsPage() {
  return <Revisions />;
}
