'use client';

import dynamic from 'next/dynamic';
import Link from 'next/link';
import { useSearchParams } from 'next/navigation';
import { Loading, orSay } from '@/ui/loading';
import { PageHead } from '@/ui/page-head';
import { ThemeSwitch } from '@/ui/theme-switch';
import { FromLoad } from './from-load';
import { WayPicture, type Way } from './way-picture';

const FromHave = dynamic(
  orSay(() => import('./from-have').then((m) => m.FromHave)),
  { ssr: false, loading: Loading },
);
const FromBox = dynamic(
  orSay(() => import('./from-box').then((m) => m.FromBox)),
  { ssr: false, loading: Loading },
);
const FromExample = dynamic(
  orSay(() => import('./from-example').then((m) => m.FromExample)),
  { ssr: false, loading: Loading },
);
const FromFile = dynamic(
  orSay(() => import('./from-file').then((m) => m.FromFile)),
  { ssr: false, loading: Loading },
);

const WAYS: readonly { id: Way; question: string; answer: string }[] = [
  { id: 'load', question: 'What must it feed?', answer: 'Volts and amperes; the parts are found.' },
  { id: 'have', question: 'What have I got?', answer: 'A transformer, an adapter, a battery.' },
  { id: 'box', question: 'A box that exists?', answer: 'Five readings of a meter.' },
  { id: 'example', question: 'An example?', answer: 'A supply to take apart.' },
  { id: 'file', question: 'A file?', answer: 'A design exported before.' },
];

/** The ways into a new design, side by side; each shows what it comes to before it is made. */
export function Begin() {
  const asked = useSearchParams().get('way');
  const way = WAYS.find((w) => w.id === asked)?.id ?? 'load';
  return (
    <div className="mx-auto max-w-[1240px] px-5 pb-10">
      <PageHead title="Begin a supply" says="Type as you write it: 15 V, 600m, 0,5 A, 5 mV">
        <ThemeSwitch />
      </PageHead>
      <main>
        <nav aria-label="Ways in">
          <ul className="mb-5 grid grid-cols-2 gap-2 min-[640px]:grid-cols-3 min-[980px]:grid-cols-5">
            {WAYS.map((w) => (
              <li key={w.id}>
                <Link
                  href={w.id === 'load' ? '/new' : `/new?way=${w.id}`}
                  replace
                  scroll={false}
                  aria-current={w.id === way ? 'page' : undefined}
                  className="block h-full border-b-[3px] border-rule bg-raised px-3 pb-2 pt-1.5 hover:border-edge aria-[current]:border-volt"
                >
                  <WayPicture way={w.id} />
                  <span className="serif block text-[16.5px] font-semibold leading-tight">{w.question}</span>
                  <span className="block text-[13px] leading-tight text-quiet">{w.answer}</span>
                </Link>
              </li>
            ))}
          </ul>
        </nav>
        {/* The first way stays while another is looked at: what it proposed is still there on the way back. */}
        <div hidden={way !== 'load'}>
          <FromLoad />
        </div>
        {way === 'have' && <FromHave />}
        {way === 'box' && <FromBox />}
        {way === 'example' && <FromExample />}
        {way === 'file' && <FromFile />}
      </main>
    </div>
  );
}
