'use client';

import dynamic from 'next/dynamic';
import { Tabs } from 'radix-ui';
import { useDesign } from '@/ui/session';
import { PickParts } from './pick';
import { Loading, orSay } from '@/ui/loading';

const Drawer = dynamic(
  orSay(() => import('@/ui/drawer/drawer').then((m) => m.Drawer)),
  { ssr: false, loading: Loading },
);
const Bill = dynamic(
  orSay(() => import('./bill').then((m) => m.Bill)),
  { ssr: false, loading: Loading },
);
const Cans = dynamic(
  orSay(() => import('./cans').then((m) => m.Cans)),
  { ssr: false, loading: Loading },
);
const SizeSets = dynamic(
  orSay(() => import('./size').then((m) => m.SizeSets)),
  { ssr: false, loading: Loading },
);
const TransformerWays = dynamic(
  orSay(() => import('./transformer-ways').then((m) => m.TransformerWays)),
  {
    ssr: false,
    loading: Loading,
  },
);

const TABS = [
  { id: 'pick', name: 'Pick', body: PickParts },
  { id: 'size', name: 'Size whole sets', body: SizeSets },
  { id: 'transformer', name: 'Transformer', body: TransformerWays },
  { id: 'cans', name: 'Reservoir', body: Cans },
  { id: 'bill', name: 'Bill', body: Bill },
  { id: 'drawer', name: 'Drawer', body: Drawer },
] as const;

/** Tabs that are about a transformer, which a DC source has none of. */
const OF_TRANSFORMERS: ReadonlySet<string> = new Set(['size', 'transformer']);

/** Parts: what do I have, what do I buy? */
export function Parts() {
  const dc = useDesign().source.kind !== 'mains';
  const tabs = TABS.filter((t) => !dc || !OF_TRANSFORMERS.has(t.id));
  return (
    <main className="flex min-h-0 flex-1 flex-col">
      <Tabs.Root defaultValue="pick" className="flex min-h-0 flex-1 flex-col">
        <Tabs.List aria-label="Parts" className="flex gap-1 border-b border-rule px-4">
          {tabs.map((t) => (
            <Tabs.Trigger
              key={t.id}
              value={t.id}
              className="border-b-[3px] border-transparent px-3 py-2 text-[15px] data-[state=active]:border-volt data-[state=active]:font-semibold"
            >
              {t.name}
            </Tabs.Trigger>
          ))}
        </Tabs.List>
        {tabs.map(({ id, body: Body }) => (
          <Tabs.Content
            key={id}
            value={id}
            className="flex min-h-0 flex-1 flex-col overflow-auto px-4 py-3 outline-offset-[-2px]"
          >
            <Body />
          </Tabs.Content>
        ))}
      </Tabs.Root>
    </main>
  );
}
