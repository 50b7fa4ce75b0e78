import type { Design, OutputId } from '@/core/design/design';
import { outputModel, outputsOf } from '@/core/design/outputs';
import { termsOf } from '@/core/design/source';

/** One set of circumstances a design may find itself in. */
export interface Condition {
  id: ConditionId;
  /** What it is besides its input, in words. */
  state: string;
  mains: 'low' | 'nominal' | 'high';
  /** Volts read at the outlet, or at the source, in place of those; V. */
  mainsV?: number | undefined;
  load: LoadLevel;
  copper: 'hot' | 'cold';
  capacitor: 'new' | 'aged' | 'large';
  /** What one output is set to: its usual setting where left out, the bottom of its range, or a short across it. */
  output?: 'lowest' | 'shorted';
  /** Which output that is said of, or which one alone draws. */
  of?: OutputId;
  /** Whether only that one draws. */
  alone?: boolean;
}

/**
 * How much is drawn: the most ever; what it comes to on the average of minutes; what stands by; the least there ever is;
 * nothing at all, a plug pulled.
 */
export type LoadLevel = 'full' | 'lasting' | 'standing' | 'least' | 'none';

/** The circumstances that have a name of their own everywhere; the others carry the output they speak of in theirs. */
export type BaseConditionId =
  | 'low'
  | 'lowLasting'
  | 'nominal'
  | 'high'
  | 'highFull'
  | 'standing'
  | 'least'
  | 'idle'
  | 'nominalIdle'
  | 'surge'
  | 'today'
  | 'todayIdle';
export type ConditionId = BaseConditionId | `${'lowest' | 'shorted' | 'alone'}:${OutputId}`;

/** Circumstances laid out alike, member by member: all that reads thousands of them is compiled for how they lie in memory. */
const given = (of: Condition): Condition => ({
  id: of.id,
  state: of.state,
  mains: of.mains,
  mainsV: of.mainsV,
  load: of.load,
  copper: of.copper,
  capacitor: of.capacitor,
  output: of.output,
  of: of.of,
  alone: of.alone,
});

/** The same circumstance but for some of it. */
export const butFor = (of: Condition, other: Partial<Condition>): Condition => given({ ...of, ...other });

const NEW_AND_WARM = { copper: 'hot', capacitor: 'new' } as const;
const NEW_AND_COLD = { copper: 'cold', capacitor: 'new' } as const;
const AGED = { copper: 'hot', capacitor: 'aged' } as const;

export const CONDITIONS: Readonly<Record<Exclude<BaseConditionId, 'today' | 'todayIdle'>, Condition>> = {
  low: given({ id: 'low', state: 'full load, aged reservoir', mains: 'low', load: 'full', ...AGED }),
  lowLasting: given({ id: 'lowLasting', state: 'lasting load', mains: 'low', load: 'lasting', ...NEW_AND_WARM }),
  nominal: given({ id: 'nominal', state: 'full load', mains: 'nominal', load: 'full', ...NEW_AND_WARM }),
  high: given({ id: 'high', state: 'lasting load', mains: 'high', load: 'lasting', ...NEW_AND_WARM }),
  highFull: given({ id: 'highFull', state: 'full load, aged reservoir', mains: 'high', load: 'full', ...AGED }),
  standing: given({ id: 'standing', state: 'standing load', mains: 'high', load: 'standing', ...NEW_AND_WARM }),
  least: given({ id: 'least', state: 'least load', mains: 'high', load: 'least', ...NEW_AND_COLD }),
  idle: given({ id: 'idle', state: 'no load', mains: 'high', load: 'none', ...NEW_AND_COLD }),
  nominalIdle: given({ id: 'nominalIdle', state: 'no load', mains: 'nominal', load: 'none', ...NEW_AND_COLD }),
  surge: given({
    id: 'surge',
    state: 'switched on at a voltage peak, cold copper',
    mains: 'high',
    load: 'full',
    copper: 'cold',
    capacitor: 'large',
  }),
};

/** An output at the bottom of its range, lasting current; or with a short across it; or drawing while no other does. */
export function heldAt(output: 'lowest' | 'shorted' | 'alone', of: OutputId, name: string | null): Condition {
  const who = name === null ? '' : `${name} `;
  const common = { id: `${output}:${of}` as const, mains: 'high', of, ...NEW_AND_WARM } as const;
  switch (output) {
    case 'lowest':
      return given({
        ...common,
        state: `${who === '' ? '' : `${who}at its `}lowest output, lasting current`,
        load: 'lasting',
        output,
      });
    case 'shorted':
      return given({ ...common, state: `${who === '' ? 'output ' : who}shorted`, load: 'lasting', output });
    case 'alone':
      return given({
        ...common,
        state: `${who === '' ? 'the main output ' : who}alone, lasting load`,
        load: 'lasting',
        alone: true,
      });
  }
}

/**
 * Every lasting circumstance a design is judged in: this list is the only one. What happens once (switch-on, a lost half
 * cycle, a load taken away) belongs to the study.
 */
export function conditionsOf(design: Design): Condition[] {
  const outputs = outputsOf(design);
  const several = outputs.length > 1;
  const unlike = design.outputs.length > 0 || design.demand.negativeA !== null;
  const name = (of: OutputId) => (of === 'main' && !several ? null : outputs.find((o) => o.id === of)!.name);
  const stands = design.load.consumers.some((c) => c.standingA > 0);
  const readV = mainsReadV(design);
  // The twin of a split supply does what the main output does, unless their loads differ.
  const own = outputs.filter((o) => o.id !== 'minus' || unlike);
  const settable = own.filter((o) => {
    const model = outputModel(o);
    return model !== null && model.lowestV < model.outputV - 0.01;
  });
  return [
    CONDITIONS.low,
    CONDITIONS.lowLasting,
    CONDITIONS.nominal,
    CONDITIONS.high,
    CONDITIONS.highFull,
    ...(stands ? [CONDITIONS.standing] : []),
    ...(outputs.some((o) => o.demand.leastA > 0) ? [CONDITIONS.least] : []),
    CONDITIONS.idle,
    ...(readV === undefined ? [] : todayOf(design, readV)),
    ...settable.map((o) => heldAt('lowest', o.id, name(o.id))),
    ...own.filter((o) => o.regulator.kind !== 'none').map((o) => heldAt('shorted', o.id, name(o.id))),
    ...(several && unlike ? own.map((o) => heldAt('alone', o.id, name(o.id))) : []),
  ];
}

/** What the mains, or the source, was last read at, V: every design is judged at it as well. */
export function mainsReadV({ bench }: Design): number | undefined {
  return bench.readings
    .filter((r) => r.point === 'mains')
    .sort((a, b) => a.at.localeCompare(b.at))
    .pop()?.value;
}

/** Whether volts were read at the source a design has now, and not at the mains it was fed from before. */
export const ofThisSource = (volts: number, nominalV: number): boolean =>
  volts > 0.4 * nominalV && volts < 2 * nominalV;

/** The mains, or the source, as it was last read; nothing where the reading belongs to another source. */
function todayOf(design: Design, mainsV: number): Condition[] {
  const { source, mains } = design;
  const nominalV =
    source.kind === 'mains' ? mains.voltageRms : source.kind === 'battery' ? source.freshV : source.ratedV;
  if (!ofThisSource(mainsV, nominalV)) return [];
  return [
    butFor(CONDITIONS.nominal, { id: 'today', state: 'as read today, full load', mainsV }),
    butFor(CONDITIONS.idle, { id: 'todayIdle', state: 'as read today, no load', mainsV }),
  ];
}

/** One of a design's circumstances. @throws RangeError for one it does not have */
export function conditionOf(design: Design, id: ConditionId): Condition {
  const base = CONDITIONS[id as keyof typeof CONDITIONS] as Condition | undefined;
  const found = base ?? conditionsOf(design).find((c) => c.id === id);
  if (!found) throw new RangeError(`no circumstance '${id}' for this design`);
  return found;
}

/** A condition in words, as a verdict says it: 'low line, full load, aged reservoir'. */
export function wordsOf(design: Design, at: ConditionId | Condition): string {
  const condition = typeof at === 'string' ? conditionOf(design, at) : at;
  const joined = condition.id === 'surge' && design.source.kind !== 'mains';
  const input = condition.mainsV === undefined ? termsOf(design)[condition.mains] : termsOf(design).source;
  return `${input}, ${joined ? 'joined to an empty reservoir' : condition.state}`;
}
