'use client';

import dynamic from 'next/dynamic';
import { DialogButton } from '@/ui/dialog-button';
import { Loading, orSay } from '@/ui/loading';

const load = () => import('./load-line-view').then((m) => m.Line);
const Line = dynamic(orSay(load), { ssr: false, loading: Loading });

/** Volts against load from none to a quarter over full, in all three mains bands. */
export function LoadLine() {
  return (
    <DialogButton
      ready={load}
      label="Load line"
      title="Load line"
      description="What a meter on the rail reads as the load grows, every point solved. The few per cent next to no load tell nothing: judge at a small real load."
      wide
    >
      {() => <Line />}
    </DialogButton>
  );
}
