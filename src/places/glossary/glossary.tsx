'use client';

import { useDeferredValue, useState } from 'react';
import { GLOSSARY } from '@/core/design/glossary';
import { PageHead } from '@/ui/page-head';
import { TermList } from '@/ui/term-list';
import { ThemeSwitch } from '@/ui/theme-switch';

/** Words: every term of the program, and what it means. */
export function Glossary() {
  const [search, setSearch] = useState('');
  const wanted = useDeferredValue(search.trim().toLowerCase());
  const found = GLOSSARY.filter((t) => [t.term, ...t.also, t.says].join(' ').toLowerCase().includes(wanted));
  return (
    <div className="mx-auto max-w-[860px] px-5 pb-12">
      <PageHead title="Words">
        <ThemeSwitch />
      </PageHead>
      <main>
        <label className="flex max-w-[360px] items-center gap-2">
          Find
          <input type="search" className="field" value={search} onChange={(e) => setSearch(e.target.value)} />
        </label>
        <p role="status" className="mt-1 min-h-[22px] text-[14px] text-quiet">
          {wanted === '' ? '' : `${found.length} of ${GLOSSARY.length}`}
        </p>
        <TermList terms={found} />
      </main>
    </div>
  );
}
