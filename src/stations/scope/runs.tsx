'use client';

import type { Design } from '@/core/design/design';
import { dcSourceOf, hasDiodes, termsOf } from '@/core/design/source';
import { capitalised, formatQuantity } from '@/core/quantity/format';
import type { ScopeRun } from '@/core/study/traces';
import { ChoiceField } from '@/ui/choice-field';
import { useDesign } from '@/ui/session';

/** What can be run. Without a diode nothing keeps a reservoir from the source that is gone, so nothing is told of it. */
export const runsOf = (design: Design): { value: ScopeRun['kind']; label: string; first: ScopeRun }[] => [
  { value: 'steady', label: 'Steady', first: { kind: 'steady' } },
  { value: 'start', label: 'Switch-on', first: { kind: 'start', phaseDeg: 90, cycles: 10 } },
  { value: 'step', label: 'Load step', first: { kind: 'step', fromShare: 0.2, toShare: 1, cycles: 8 } },
  { value: 'removal', label: 'Load taken away', first: { kind: 'removal', cycles: 10 } },
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
    case 'removal':
      return <div />;
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
        <ChoiceField
          label="Load"
          value={`${run.fromShare}-${run.toShare}`}
          options={[
            { value: '0.2-1', label: '20 % to full' },
            { value: '0.5-1', label: 'half to full' },
            { value: '1-0.2', label: 'full to 20 %' },
            { value: '1-1.5', label: 'full to 150 %' },
          ]}
          onChange={(v) => {
            const [from, to] = v.split('-').map(Number);
            onRun({ ...run, fromShare: from!, toShare: to! });
          }}
        />
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
        <ChoiceField
          label="Missing"
          value={String(run.missingCycles)}
          options={[
            { value: '0.5', label: dcSourceOf(design) ? ms(0.5) : 'half a cycle' },
            { value: '1', label: dcSourceOf(design) ? ms(1) : 'one cycle' },
            { value: '2', label: dcSourceOf(design) ? ms(2) : 'two cycles' },
          ]}
          onChange={(v) => onRun({ ...run, missingCycles: Number(v) })}
        />
      );
  }
}
