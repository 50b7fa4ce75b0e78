import type { Metadata } from 'next';
import { Suspense } from 'react';
import { Begin } from '@/places/new/begin';

export const metadata: Metadata = { title: 'Begin a supply' };

export default function NewPage() {
  return (
    <Suspense>
      <Begin />
    </Suspense>
  );
}
