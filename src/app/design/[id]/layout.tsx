import type { Metadata } from 'next';
import { notFound } from 'next/navigation';
import { cache, type ReactNode } from 'react';
import { databaseTrouble } from '@/server/database';
import { firstPicture } from '@/server/solving';
import { store } from '@/server/store';
import { DesignFrame } from '@/ui/design-frame';
import { FileTrouble } from '@/ui/file-trouble';
import { SessionProvider } from '@/ui/session';
import { Unreadable } from '@/ui/unreadable';

/** One read for the page and its title. */
const openDesign = cache((id: string) => store().open(id));

type Props = { params: Promise<{ id: string }> };

export async function generateMetadata({ params }: Props): Promise<Metadata> {
  if (closed()) return { title: 'The file cannot be used' };
  const found = openDesign((await params).id);
  const name = !found ? 'Not on the shelf' : found.ok ? found.stored.design.name : found.unreadable.name;
  // Each room puts its own name in front; Supply has none of its own, it is where a design opens.
  return { title: { default: found?.ok ? `Supply · ${name}` : name, template: `%s · ${name} · Ember Rail` } };
}

export default async function DesignLayout({ params, children }: Props & { children: ReactNode }) {
  const trouble = closed();
  if (trouble) return <FileTrouble {...trouble} />;
  const found = openDesign((await params).id);
  if (!found) notFound();
  if (!found.ok) return <Unreadable {...found.unreadable} />;
  const { stored } = found;
  return (
    <SessionProvider stored={stored} solved={await firstPicture(stored.design)}>
      <DesignFrame>{children}</DesignFrame>
    </SessionProvider>
  );
}

/** What keeps the file from being read at all. */
function closed() {
  const trouble = databaseTrouble();
  return trouble && trouble.kind !== 'newer'
    ? { kind: trouble.kind, sentence: trouble.message, file: trouble.file, copy: trouble.copy }
    : null;
}
