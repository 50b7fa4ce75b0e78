import type { Metadata } from 'next';
import { Practice } from '@/places/practice/practice';

export const metadata: Metadata = { title: 'Practice' };

export default function PracticePage() {
  return <Practice />;
}
