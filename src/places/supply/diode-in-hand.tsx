'use client';

import dynamic from 'next/dynamic';
import { DialogButton } from '@/ui/dialog-button';
import { useDesign } from '@/ui/session';
import { Loading, orSay } from '@/ui/loading';

const load = () => import('./diode-in-hand-fields').then((m) => m.Fields);
const Fields = dynamic(orSay(load), { ssr: false, loading: Loading });

/** What is known of the very diodes at hand: ratings, thermal resistances, and two points of their forward curve. */
export function DiodeInHand() {
  const { rectifier } = useDesign();
  return (
    <DialogButton
      ready={load}
      label={rectifier.rated || rectifier.sheet ? 'In hand, by its sheet' : 'In hand'}
      hint="What is known of the diodes at hand"
      title="The diodes in hand"
      description="The class speaks where nothing is typed. What you type from a data sheet wins wherever it is used; another class begins anew."
    >
      {() => <Fields />}
    </DialogButton>
  );
}
