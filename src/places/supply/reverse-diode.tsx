'use client';

import dynamic from 'next/dynamic';
import { ofDiodeClass } from '@/core/design/diode-edit';

import type { DcSource } from '@/core/parts/dc-source';
import { JUNCTION_CLASSES } from '@/core/parts/diode';
import { ChoiceField } from '@/ui/choice-field';
import { DialogButton } from '@/ui/dialog-button';
import { useDesign, useEdit } from '@/ui/session';
import { Loading, orSay } from '@/ui/loading';

const load = () => import('./reverse-diode-list').then((m) => m.Side);
const Side = dynamic(orSay(load), { ssr: false, loading: Loading });

/** The diode in the lead of a DC source: which one, or none, and what each costs. */
export function ReverseDiodeFields({ source }: { source: DcSource }) {
  const { rectifier } = useDesign();
  const edit = useEdit();
  return (
    <>
      <ChoiceField
        label="Against swapped leads"
        value={source.reverseDiode ? rectifier.diode : 'none'}
        options={[
          { value: 'none', label: 'no diode' },
          ...JUNCTION_CLASSES.map((d) => ({ value: d.id, label: d.name })),
        ]}
        onChange={(id: string) =>
          edit(
            id === 'none'
              ? { source: { ...source, reverseDiode: false } }
              : { source: { ...source, reverseDiode: true }, rectifier: ofDiodeClass(id) },
          )
        }
      />
      <div className="self-end">
        <DialogButton
          ready={load}
          label="What it costs"
          title="A diode against swapped leads, and what it costs"
          description="This supply’s own source, load and regulator, solved with each. Nothing changes until you take one."
          wide
        >
          {(close) => <Side onTaken={close} />}
        </DialogButton>
      </div>
    </>
  );
}
