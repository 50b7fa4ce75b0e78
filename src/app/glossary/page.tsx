import type { Metadata } from 'next';
import { Glossary } from '@/places/glossary/glossary';

export const metadata: Metadata = { title: 'Words' };

export default function Page() {
  return <Glossary />;
}
