import { butFor, conditionsOf, CONDITIONS, wordsOf, type Condition, type ConditionId } from '@/core/circuit/condition';
import { networkOf, type Adjust } from '@/core/circuit/network-of';
import type { Network } from '@/core/circuit/network';
import { applyPatch, type Design, type OutputId } from '@/core/design/design';
import { mainModel } from '@/core/design/outputs';
import { dcSourceOf, termsOf } from '@/core/design/source';
import { solveDip } from '@/core/solve/dip';
import { solveChange, solveStart } from '@/core/solve/transient';
import { atCondition, operatingPoint, restingOf } from './operating-point';
import type { OperatingPoint } from './point';
import { warmed } from './point-heat';

/** First charge of the empty reservoir: peak and I2t of the hardest-hit diode, over the first cycle from a voltage peak. */
export interface Surge {
  peakA: number;
  i2t: number;
  network: Network;
  /** Where the source's own limit holds the peak, A; null where nothing does. */
  limitedA: number | null;
}

export function firstSurge(design: Design): Surge {
  const condition = CONDITIONS.surge;
  const network = networkOf(design, condition);
  const { start } = atCondition(wordsOf(design, condition), () => solveStart(network, 1, 90));
  const dc = dcSourceOf(design);
  const limitA = dc?.kind === 'adapter' ? dc.limitA : null;
  if (limitA === null || start!.peakDiodeA <= limitA)
    return { peakA: start!.peakDiodeA, i2t: start!.i2tDiode, network, limitedA: null };
  // The start rides on the limit: for the same charge the heat in the diode falls as the current does.
  return { peakA: limitA, i2t: (start!.i2tDiode * limitA) / start!.peakDiodeA, network, limitedA: limitA };
}

/** From where an event goes out: the point solved before it, of the design's own values or as it was drawn. */
interface Before {
  point: OperatingPoint;
  own: boolean;
}

/** What is known of a network's steady cycle from a point. */
const fromPoint = ({ point, own }: Before) => (own ? { standing: point.solution } : { warm: point.solution.state });

/** How the supply rides through half a cycle of missing mains, full load, nominal line. */
function missedHalfCycle(design: Design, nominal: Before): { minV: number; beforeMinV: number } {
  const network = networkOf(design, CONDITIONS.nominal, restingOf(design, nominal.point));
  const { dip } = atCondition('half a cycle of missing mains', () =>
    solveDip(network, { missingCycles: 0.5, cycles: 1, atCycle: 0 }, fromPoint(nominal)),
  );
  return { minV: dip!.minV, beforeMinV: dip!.beforeMinV };
}

/** Cycles in which a filter's swing has passed its crest: half a period of its slowest resonance, ten at most. */
function swingCycles(design: Design): number {
  const parts = [...design.filter.before, ...design.filter.after];
  const henry = parts.reduce((sum, s) => sum + (s.kind === 'choke' ? s.inductanceH : 0), 0);
  const farad =
    design.reservoir.capacitanceF + parts.reduce((sum, s) => sum + (s.kind === 'capacitor' ? s.capacitanceF : 0), 0);
  const half = Math.PI * Math.sqrt(henry * farad);
  return Math.min(10, Math.max(2, Math.ceil(1.2 * half * design.mains.frequencyHz)));
}

/** What the rail rises to in the first cycles after the load is taken away at high line. */
function lostLoad(design: Design, high: Before): { beforeV: number; maxV: number } {
  const resting = restingOf(design, high.point);
  const loaded = networkOf(design, CONDITIONS.high, resting);
  const unloaded = networkOf(design, butFor(CONDITIONS.high, { load: 'none' }), resting);
  const { step } = atCondition(`the load taken away at ${termsOf(design).high}`, () =>
    solveChange(loaded, unloaded, swingCycles(design), fromPoint(high)),
  );
  return { beforeV: step!.beforeMeanV, maxV: step!.maxV };
}

/** All that the terrace and the verdicts of one design rest on. Each point is solved when it is first asked for. */
export interface Study {
  readonly design: Design;
  /** What was drawn aside from the design's own values, for a build; nothing otherwise. */
  readonly adjust: Adjust;
  /** Every lasting circumstance the design is judged in. */
  readonly conditions: readonly Condition[];
  /** One of them, solved. @throws SolveError naming the circumstance when it does not converge */
  at(condition: Condition): OperatingPoint;
  readonly low: OperatingPoint;
  readonly nominal: OperatingPoint;
  readonly high: OperatingPoint;
  readonly idle: OperatingPoint;
  /** An output at the bottom of its range or shorted; null where it has no such circumstance. */
  held(output: 'lowest' | 'shorted', of?: OutputId): OperatingPoint | null;
  readonly surge: Surge;
  readonly missed: ReturnType<typeof missedHalfCycle>;
  readonly lost: ReturnType<typeof lostLoad>;
}

/** Opens a study. Asking for a member throws SolveError, naming the circumstance, when that one does not converge. */
export function studyDesign(design: Design, adjustFor?: (c: Condition) => Adjust): Study {
  return new OpenedStudy(design, adjustFor?.(CONDITIONS.nominal) ?? {}, conditionsOf(design), {
    point: (condition) => operatingPoint(design, condition, adjustFor?.(condition)),
    surge: () => firstSurge(design),
    missed: (point) => missedHalfCycle(design, { point, own: adjustFor === undefined }),
    lost: (point) => lostLoad(design, { point, own: adjustFor === undefined }),
  });
}

/** Whether no temperature reaches back into what is solved: none is found with it, and no regulator lets go. */
export function circuitStays(study: Study): boolean {
  return !study.design.heat.together && study.conditions.every((c) => study.at(c).junctionC === null);
}

/**
 * The same study on another heatsink, interface or air. Heat changes what the circuit does only where temperatures are
 * found with it, and where a regulator lets go (its dropout follows its junction): there alone it is solved anew.
 * @param study with nothing drawn, or the same in every circumstance
 * @param heat what is other than the study's own
 */
export function studyWithHeat(study: Study, heat: Partial<Design['heat']>): Study {
  const design = applyPatch(study.design, { heat });
  const together = design.heat.together || study.design.heat.together;
  const stays = (p: OperatingPoint) => !together && p.junctionC === null;
  return new OpenedStudy(design, study.adjust, study.conditions, {
    point(condition) {
      const before = study.at(condition);
      return stays(before)
        ? warmed(design, before)
        : operatingPoint(design, condition, study.adjust, before.solution.state);
    },
    surge: () => study.surge,
    missed: (nominal) =>
      stays(nominal) ? study.missed : missedHalfCycle(design, { point: nominal, own: isOwn(study) }),
    lost: (high) => (stays(high) ? study.lost : lostLoad(design, { point: high, own: isOwn(study) })),
  });
}

const isOwn = ({ adjust }: Study): boolean => Object.keys(adjust).length === 0;

/** How the members of a study are found, each when it is first asked for. */
interface Ways {
  point(condition: Condition): OperatingPoint;
  surge(): Surge;
  missed(nominal: OperatingPoint): Study['missed'];
  lost(high: OperatingPoint): Study['lost'];
}

/**
 * Each member solved when it is first asked for. A class, so that its getters stand once for all studies: those of an object
 * written out belong to a shape of its own, which keeps all it ever solved until the next large collection of garbage.
 */
class OpenedStudy implements Study {
  private readonly points = new Map<ConditionId, OperatingPoint>();
  private knownSurge: Surge | undefined;
  private knownMissed: Study['missed'] | undefined;
  private knownLost: Study['lost'] | undefined;

  constructor(
    readonly design: Design,
    readonly adjust: Adjust,
    readonly conditions: readonly Condition[],
    private readonly ways: Ways,
  ) {}

  at(condition: Condition): OperatingPoint {
    let point = this.points.get(condition.id);
    if (!point) this.points.set(condition.id, (point = this.ways.point(condition)));
    return point;
  }
  get low(): OperatingPoint {
    return this.at(CONDITIONS.low);
  }
  get nominal(): OperatingPoint {
    return this.at(CONDITIONS.nominal);
  }
  get high(): OperatingPoint {
    return this.at(CONDITIONS.high);
  }
  get idle(): OperatingPoint {
    return this.at(CONDITIONS.idle);
  }
  held(output: 'lowest' | 'shorted', of: OutputId = 'main'): OperatingPoint | null {
    const condition = this.conditions.find((c) => c.id === `${output}:${of}`);
    return condition ? this.at(condition) : null;
  }
  get surge(): Surge {
    return (this.knownSurge ??= this.ways.surge());
  }
  get missed(): Study['missed'] {
    return (this.knownMissed ??= this.ways.missed(this.nominal));
  }
  get lost(): Study['lost'] {
    return (this.knownLost ??= this.ways.lost(this.high));
  }
}

/** Everything the main load may see over all circumstances it is drawn in, V, the regulator's spread included. */
export function outputSpan(study: Study): { minV: number; maxV: number } {
  const spread = mainModel(study.design)?.spread ?? 0;
  const least = study.design.demand.leastA > 0;
  const points = study.conditions
    .filter((c) => c.output === undefined && !c.alone && !(least && c.load === 'none'))
    .map((c) => study.at(c));
  return {
    minV: Math.min(...points.map((p) => p.outputMinV)) * (1 - spread),
    maxV: Math.max(...points.map((p) => p.outputMaxV)) * (1 + spread),
  };
}
