import type { Metadata } from 'next';
import { notFound } from 'next/navigation';
import type { ReactNode } from 'react';
import { solveNow } from '@/server/solve-now';
import { store } from '@/server/store';
import { DesignFrame } from '@/ui/design-frame';
import { SessionProvider } from '@/ui/session';

type Props = { params: Promise<{ id: string }> };

export async function generateMetadata({ params }: Props): Promise<Metadata> {
  return { title: store().get((await params).id)?.design.name ?? 'Not on the shelf' };
}

export default async function DesignLayout({ params, children }: Props & { children: ReactNode }) {
  const stored = store().get((await params).id);
  if (!stored) notFound();
  return (
    <SessionProvider stored={stored} solved={solveNow(stored.design)}>
      <DesignFrame>{children}</DesignFrame>
    </SessionProvider>
  );
}
