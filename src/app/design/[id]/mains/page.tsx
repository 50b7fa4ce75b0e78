import type { Metadata } from 'next';
import { MainsSide } from '@/places/mains/mains-side';

export const metadata: Metadata = { title: 'Mains side' };

export default function MainsSidePage() {
  return <MainsSide />;
}
