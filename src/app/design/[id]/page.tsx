import type { Metadata } from 'next';
import { Supply } from '@/places/supply/supply';

export const metadata: Metadata = { title: 'Supply' };

export default function SupplyPage() {
  return <Supply />;
}
