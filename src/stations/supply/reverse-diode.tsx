'use client';

import { ofDiodeClass } from '@/core/design/diode-edit';

import { termsOf } from '@/core/design/source';
import type { DcSource } from '@/core/parts/dc-source';
import { JUNCTION_CLASSES } from '@/core/parts/diode';
import { formatQuantity } from '@/core/quantity/format';
import { ChoiceField } from '@/ui/choice-field';
import { DialogButton } from '@/ui/dialog-button';
import { useDesign, useEdit } from '@/ui/session';
import type { RemoteSolver } from '@/workers/client';
import { SchoolList, Waiting, type SchoolFigures } from './school-list';
import { useSolved } from '@/ui/use-solved';
import type { Design } from '@/core/design/design';

const askDiodes = (solver: RemoteSolver, design: Design) => solver.reverseDiodes(design);

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

function Side({ onTaken }: { onTaken(): void }) {
  const design = useDesign();
  const edit = useEdit();
  const { value: reports, trouble } = useSolved(askDiodes);
  if (!reports) return <Waiting trouble={trouble} />;
  const say = termsOf(design);
  const rows = (v: SchoolFigures): [string, string][] => [
    ...(v.headroomV === null
      ? ([['Output', formatQuantity(v.outputV, 'V')]] as [string, string][])
      : ([[`Headroom, ${say.low}`, formatQuantity(v.headroomV, 'V', 2)]] as [string, string][])),
    ...(v.hours === null ? [] : ([['Lasts', formatQuantity(v.hours, 'h')]] as [string, string][])),
    ['Burns in the diode', formatQuantity(v.diodesW, 'W')],
    ['Parts, typical', `${v.costEur.toFixed(2)} EUR`],
    ['Verdicts that fail', String(v.fails)],
  ];
  return (
    <SchoolList
      reports={reports}
      rows={rows}
      onTake={(patch) => {
        edit(patch);
        onTaken();
      }}
    />
  );
}
