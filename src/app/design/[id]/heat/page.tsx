import type { Metadata } from 'next';
import { HeatPlace } from '@/places/heat/heat';

export const metadata: Metadata = { title: 'Heat' };

export default function HeatPage() {
  return <HeatPlace />;
}
