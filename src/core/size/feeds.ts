import type { Patch } from '@/core/design/design';
import { DC_SOURCES, type DcSource } from '@/core/parts/dc-source';

/** What a supply may be fed from when it is begun: the mains by a transformer still to be found, or a source in hand. */
export const FEEDS = ['mains', 'ac-adapter', 'dc-adapter', 'dc-regulated', 'battery'] as const;
export type Feed = (typeof FEEDS)[number];

export const FEED_NAMES: Readonly<Record<Feed, string>> = {
  mains: 'Mains, its transformer to be found',
  'ac-adapter': 'AC adapter in hand',
  'dc-adapter': 'DC adapter in hand, unregulated',
  'dc-regulated': 'DC adapter in hand, regulated',
  battery: 'Battery in hand',
};

/** What is easily misread on each. */
export const FEED_HINTS: Readonly<Record<Feed, string>> = {
  mains: '',
  'ac-adapter':
    'Its plate says AC or ~ at the output. Where it says DC take one of the next two: a rectifier behind DC costs volts for nothing.',
  'dc-adapter': 'Its plate says DC; idle it stands a third higher. AC adapters look alike: a meter on DC tells.',
  'dc-regulated': 'Its plate says DC; idle it stands where its plate says.',
  battery: 'Volts as printed, ampere-hours in place of amperes.',
};

/**
 * A source in hand as a change of a blank design, held back from every search. @param amount amperes of an adapter, A, or
 * what a battery holds, Ah; @returns null for the mains
 */
export function feedPatch(feed: Feed, volts: number, amount: number): Patch | null {
  switch (feed) {
    case 'mains':
      return null;
    case 'ac-adapter':
      return {
        transformer: { ratedV: volts, ratedVA: Number((volts * amount).toPrecision(4)), sealed: true },
        fixed: ['transformer'],
      };
    case 'dc-adapter':
      return { source: { ...ofClass('plain-12'), ratedV: volts, ratedA: amount } as DcSource };
    case 'dc-regulated':
      return {
        source: { ...ofClass('regulated-12'), ratedV: volts, ratedA: amount, limitA: 1.2 * amount } as DcSource,
      };
    case 'battery': {
      // Fresh and empty volts and resistance of the lead-acid class, by its nominal volts and what it holds.
      const { freshV, emptyV, resistanceOhm } = ofClass('lead-12') as Extract<DcSource, { kind: 'battery' }>;
      const share = volts / 12;
      const tidy = (v: number) => Number(v.toPrecision(3));
      return {
        source: {
          kind: 'battery',
          freshV: tidy(share * freshV),
          emptyV: tidy(share * emptyV),
          resistanceOhm: tidy((resistanceOhm * share * 7) / amount),
          capacityAh: amount,
          reverseDiode: true,
        },
      };
    }
  }
}

function ofClass(id: string): DcSource {
  return DC_SOURCES.find((p) => p.id === id)!.source;
}
