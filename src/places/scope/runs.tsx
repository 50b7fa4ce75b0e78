'use client';

import type { Design } from '@/core/design/design';
import { dcSourceOf, hasDiodes, termsOf } from '@/core/design/source';
import { capitalised, formatQuantity } from '@/core/quantity/format';
import type { ScopeRun } from '@/core/study/scope-shapes';
import { parseLoad } from '@/core/quantity/load';
import { parseQuantity } from '@/core/quantity/parse';
import { ChoiceField } from '@/ui/choice-field';
import { ReadField, type Read } from '@/ui/read-field';
import { useDesign } from '@/ui/session';

/** What can be run. Without a diode nothing keeps a reservoir from the source that is gone, so nothing is told of it. */
export const runsOf = (design: Design): { value: ScopeRun['kind']; label: string; first: ScopeRun }[] => [
  { value: 'steady', label: 'Steady', first: { kind: 'steady' } },
  { value: 'start', label: 'Switch-on', first: { kind: 'start', phaseDeg: 90, cycles: 10 } },
  { value: 'step', label: 'Load step', first: { kind: 'step', fromShare: 0.2, toShare: 1, cycles: 8 } },
  { value: 'removal', label: 'Load taken away', first: { kind: 'removal', remainShare: 0, cycles: 10 } },
  ...(hasDiodes(design)
    ? [
        {
          value: 'dip' as const,
          label: `${capitalised(termsOf(design).source)} missing`,
          first: { kind: 'dip' as const, missingCycles: 1, cycles: 8 },
        },
      ]
    : []),
  {
    value: 'drift',
    label: `${capitalised(termsOf(design).source)} drifting`,
    first: { kind: 'drift', to: 'low', cycles: 60 },
  },
];

/** The one setting a run has. */
export function RunSetting({ run, onRun }: { run: ScopeRun; onRun(run: ScopeRun): void }) {
  const design = useDesign();
  const say = termsOf(design);
  const ms = (cycles: number) => formatQuantity(cycles / design.mains.frequencyHz, 's', 2);
  switch (run.kind) {
    case 'steady':
      return <div />;
    case 'removal':
      return (
        <ShareField
          label="What remains"
          share={run.remainShare}
          most={0.99}
          onCommit={(remainShare) => onRun({ ...run, remainShare })}
        />
      );
    case 'start':
      if (dcSourceOf(design)) return <div />;
      return (
        <ChoiceField
          label="Mains phase"
          value={String(run.phaseDeg)}
          options={[0, 30, 60, 90, 120, 150].map((d) => ({ value: String(d), label: `${d}°` }))}
          onChange={(v) => onRun({ ...run, phaseDeg: Number(v) })}
        />
      );
    case 'step':
      return (
        <div className="grid grid-cols-2 gap-2">
          <ShareField label="From" share={run.fromShare} onCommit={(fromShare) => onRun({ ...run, fromShare })} />
          <ShareField label="To" share={run.toShare} onCommit={(toShare) => onRun({ ...run, toShare })} />
        </div>
      );
    case 'drift':
      return (
        <ChoiceField
          label="Direction"
          value={run.to}
          options={[
            { value: 'low', label: dcSourceOf(design) ? `to ${say.low}` : 'high to low line' },
            { value: 'high', label: dcSourceOf(design) ? `to ${say.high}` : 'low to high line' },
          ]}
          onChange={(to) => onRun({ ...run, to })}
        />
      );
    case 'dip':
      return (
        <ReadField
          label="Missing for"
          shown={ms(run.missingCycles)}
          read={(text) => readGap(text, design.mains.frequencyHz)}
          onCommit={(missingCycles) => onRun({ ...run, missingCycles })}
        />
      );
  }
}

/** Longest gap that is followed, s. */
const LONGEST_GAP_S = 1;

function readGap(text: string, hz: number): Read<number> {
  const read = parseQuantity(text, 's');
  if (!read.ok) return read;
  if (read.value < 0.0005 || read.value > LONGEST_GAP_S)
    return {
      ok: false,
      error: `A gap of ${formatQuantity(0.0005, 's')} to ${formatQuantity(LONGEST_GAP_S, 's')} can be looked at.`,
    };
  return { ok: true, value: read.value * hz };
}

/** A share of the full load: per cent, or amperes, ohms and watts of the main output. */
function ShareField({
  label,
  share,
  most = 5,
  onCommit,
}: {
  label: string;
  share: number;
  most?: number;
  onCommit(share: number): void;
}) {
  const { demand } = useDesign();
  return (
    <ReadField
      label={label}
      shown={`${Number((100 * share).toPrecision(4))} %`}
      read={(text): Read<number> => {
        const per = parseQuantity(text, '%');
        const load = per.ok ? null : parseLoad(text, demand.outputV);
        if (load && !load.ok) return load;
        const value = per.ok ? per.value / 100 : (load as { value: number }).value / demand.outputA;
        return value >= 0 && value <= most
          ? { ok: true, value }
          : { ok: false, error: `From 0 to ${Math.round(100 * most)} % of the full load.` };
      }}
      onCommit={onCommit}
    />
  );
}
