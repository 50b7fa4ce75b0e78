import type { Arrangement } from '@/core/parts/arrangement';
import { factsOf, type ArrangementFacts } from '@/core/parts/arrangement-facts';
import { ARRANGEMENTS, type ArrangementKind } from '@/core/parts/arrangements';
import type { DcSource } from '@/core/parts/dc-source';
import type { Design } from './design';

/** The DC source a design is fed from, null when it is fed from the mains. */
export function dcSourceOf({ source }: Pick<Design, 'source'>): DcSource | null {
  return source.kind === 'mains' ? null : source;
}

/** How source, diodes and rails connect. What is chosen for the mains waits while a DC source feeds the design. */
export function arrangementKind({ source, rectifier }: Pick<Design, 'source' | 'rectifier'>): ArrangementKind {
  return source.kind === 'mains' ? rectifier.kind : 'direct';
}

export function arrangementOf(design: Pick<Design, 'source' | 'rectifier'>): Arrangement {
  return ARRANGEMENTS[arrangementKind(design)];
}

/** What follows from how they connect. */
export function arrangementFacts(design: Pick<Design, 'source' | 'rectifier'>): ArrangementFacts {
  return factsOf(arrangementOf(design));
}

/** Whether any diode stands between source and reservoir: always, but for a DC source without its reverse diode. */
export function hasDiodes({ source }: Pick<Design, 'source'>): boolean {
  return source.kind === 'mains' || source.reverseDiode;
}

/** What the ends of its input range, and what feeds it, are called in a design. */
export interface Terms {
  low: string;
  nominal: string;
  high: string;
  /** Where the energy comes from, and what the diodes are joined to. */
  source: string;
  winding: string;
}

const TERMS: Record<Design['source']['kind'], Terms> = {
  mains: { low: 'low line', nominal: 'nominal line', high: 'high line', source: 'mains', winding: 'winding' },
  battery: {
    low: 'empty battery',
    nominal: 'half-used battery',
    high: 'fresh battery',
    source: 'battery',
    winding: 'battery',
  },
  adapter: {
    low: 'adapter at its lowest',
    nominal: 'adapter as rated',
    high: 'adapter at its highest',
    source: 'adapter',
    winding: 'adapter',
  },
};

export function termsOf({ source }: Pick<Design, 'source'>): Terms {
  return TERMS[source.kind];
}
