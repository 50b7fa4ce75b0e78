import type { Design } from '@/core/design/design';
import { outputDemand } from '@/core/design/defaults';
import { demoDesigns } from '@/core/design/demo-designs';

/** The demo designs by a short name, in the order of the shelf. */
export const [clock, dome, pen, drum, tide, physics, first, logger] = demoDesigns() as [
  Design,
  Design,
  Design,
  Design,
  Design,
  Design,
  Design,
  Design,
];

/** A small further output on a sink of its own. */
export const radio = {
  name: '',
  rail: 'plus' as const,
  demand: outputDemand({ outputV: 5, outputA: 0.4, tolerancePct: 5, rippleVpp: 0.05, kind: 'current' }),
  regulator: { kind: 'fixed' as const, size: '78' as const, outputV: 5 },
  regulatorSheet: null,
  sinkKPerW: 5,
};
