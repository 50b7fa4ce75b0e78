'use client';

import dynamic from 'next/dynamic';
import { DialogButton } from '@/ui/dialog-button';
import { Loading, orSay } from '@/ui/loading';
import type { Props } from './part-in-hand-fields';

const load = () => import('./part-in-hand-fields').then((m) => m.Fields);
const Fields = dynamic(orSay(load), { ssr: false, loading: Loading });

/** What is known of the very part at hand: its transistors, references and tolerances, and figures of its own data sheet. */
export function PartInHand(props: Props) {
  const known = props.sheet !== null && Object.values(props.sheet).some((v) => v !== null);
  return (
    <DialogButton
      ready={load}
      label={known ? 'In hand, by its sheet' : 'In hand'}
      hint="What is known of the part at hand"
      title="The part in hand"
      description="The class speaks where nothing is typed. What you type from its data sheet wins, and is marked as yours wherever it is used."
    >
      {() => <Fields {...props} />}
    </DialogButton>
  );
}
