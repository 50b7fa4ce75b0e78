import type { Metadata } from 'next';
import { Log } from '@/places/log/log';

export const metadata: Metadata = { title: 'Log' };

export default function LogPage() {
  return <Log />;
}
