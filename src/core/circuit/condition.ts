import type { Design } from '@/core/design/design';
import { termsOf } from '@/core/design/source';

/** One set of circumstances a design may find itself in. */
export interface Condition {
  id: ConditionId;
  /** What it is besides its input, in words. */
  state: string;
  mains: 'low' | 'nominal' | 'high';
  /** 'full' is the most the load ever draws, 'lasting' what it draws on the average, 'none' a plug pulled. */
  load: LoadLevel;
  copper: 'hot' | 'cold';
  capacitor: 'new' | 'aged' | 'large';
  /** What the output is set to: its usual setting where left out, the bottom of its knob, or a short across it. */
  output?: 'lowest' | 'shorted';
  /** Which further output that is said of; the main one where left out. */
  further?: number;
}

export type LoadLevel = 'full' | 'lasting' | 'none';

export type ConditionId = 'low' | 'nominal' | 'high' | 'idle' | 'nominalIdle' | 'surge' | 'lowest' | 'shorted';

export const CONDITIONS: Readonly<Record<ConditionId, Condition>> = {
  low: {
    id: 'low',
    state: 'full load, aged reservoir',
    mains: 'low',
    load: 'full',
    copper: 'hot',
    capacitor: 'aged',
  },
  nominal: {
    id: 'nominal',
    state: 'full load',
    mains: 'nominal',
    load: 'full',
    copper: 'hot',
    capacitor: 'new',
  },
  high: {
    id: 'high',
    state: 'lasting load',
    mains: 'high',
    load: 'lasting',
    copper: 'hot',
    capacitor: 'new',
  },
  idle: { id: 'idle', state: 'no load', mains: 'high', load: 'none', copper: 'cold', capacitor: 'new' },
  nominalIdle: {
    id: 'nominalIdle',
    state: 'no load',
    mains: 'nominal',
    load: 'none',
    copper: 'cold',
    capacitor: 'new',
  },
  lowest: {
    id: 'lowest',
    state: 'lowest output, full current',
    mains: 'high',
    load: 'full',
    copper: 'hot',
    capacitor: 'new',
    output: 'lowest',
  },
  shorted: {
    id: 'shorted',
    state: 'output shorted',
    mains: 'high',
    load: 'full',
    copper: 'hot',
    capacitor: 'new',
    output: 'shorted',
  },
  surge: {
    id: 'surge',
    state: 'switched on at a voltage peak, cold copper',
    mains: 'high',
    load: 'full',
    copper: 'cold',
    capacitor: 'large',
  },
};

/** A condition in words, as a verdict says it: 'low line, full load, aged reservoir'. */
export function wordsOf(design: Pick<Design, 'source'>, at: ConditionId | Condition): string {
  const condition = typeof at === 'string' ? CONDITIONS[at] : at;
  const joined = condition.id === 'surge' && design.source.kind !== 'mains';
  return `${termsOf(design)[condition.mains]}, ${joined ? 'joined to an empty reservoir' : condition.state}`;
}
