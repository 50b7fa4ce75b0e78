import type { Metadata } from 'next';
import { Checklist } from '@/places/mains/checklist';

export const metadata: Metadata = { title: 'Checklist' };

export default function ChecklistPage() {
  return <Checklist />;
}
