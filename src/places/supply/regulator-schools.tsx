'use client';

import dynamic from 'next/dynamic';
import { DialogButton } from '@/ui/dialog-button';
import { Loading, orSay } from '@/ui/loading';

const load = () => import('./regulator-schools-list').then((m) => m.Side);
const Side = dynamic(orSay(load), { ssr: false, loading: Loading });

/** Ready-made against discrete, fan against passive, linear against switching: on this design's own values. */
export function RegulatorSchools() {
  return (
    <DialogButton
      ready={load}
      label="Ways"
      hint="Ready-made or discrete, fan or passive, linear or switching"
      title="What builders argue about, on this supply"
      description="This supply’s own rail, load and output, solved with each. Nothing changes until you take one."
      wide
    >
      {(close) => <Side onTaken={close} />}
    </DialogButton>
  );
}
