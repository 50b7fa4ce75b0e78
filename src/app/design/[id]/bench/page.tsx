import type { Metadata } from 'next';
import { Bench } from '@/places/bench/bench';

export const metadata: Metadata = { title: 'Power-up' };

export default function PowerUpPage() {
  return <Bench />;
}
