import { termsOf } from '@/core/design/source';
import { CONDITIONS, wordsOf } from '@/core/circuit/condition';
import { networkOf } from '@/core/circuit/network-of';
import type { Network } from '@/core/circuit/network';
import type { Design } from '@/core/design/design';
import { regulatorModel } from '@/core/parts/regulators';
import { solveChange, solveDip, solveStart } from '@/core/solve/transient';
import type { Warmth } from './warmth';
import { asMain } from './further-outputs';
import {
  restingAdjust,
  atCondition,
  onRail,
  operatingPoint,
  warmed,
  type OperatingPoint,
  type RailPoint,
} from './operating-point';

/** First charge of the empty reservoir: peak and I2t of the hardest-hit diode, over the first cycle from a voltage peak. */
export function firstSurge(design: Design): { peakA: number; i2t: number; network: Network } {
  const condition = CONDITIONS.surge;
  const network = networkOf(design, condition);
  const { start } = atCondition(wordsOf(design, condition), () => solveStart(network, 1, 90));
  return { peakA: start!.peakDiodeA, i2t: start!.i2tDiode, network };
}

/** How the supply rides through half a cycle of missing mains, full load, nominal line. */
export function missedHalfCycle(
  design: Design,
  warm?: readonly number[],
  resting: Partial<Warmth> = restingAdjust(design, 'nominal'),
): { minV: number; beforeMinV: number } {
  const network = networkOf(design, CONDITIONS.nominal, resting);
  const { dip } = atCondition('half a cycle of missing mains', () =>
    solveDip(network, { missingCycles: 0.5, cycles: 1, atCycle: 0 }, warm ? { warm } : {}),
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
export function lostLoad(
  design: Design,
  warm?: readonly number[],
  resting: Partial<Warmth> = restingAdjust(design, 'high'),
): { beforeV: number; maxV: number } {
  const loaded = networkOf(design, CONDITIONS.high, resting);
  const unloaded = networkOf(design, { ...CONDITIONS.high, load: 'none' }, resting);
  const { step } = atCondition(`the load taken away at ${termsOf(design).high}`, () =>
    solveChange(loaded, unloaded, swingCycles(design), warm ? { warm } : {}),
  );
  return { beforeV: step!.beforeMeanV, maxV: step!.maxV };
}

/** All that the terrace and the verdicts of one design rest on. Each member is solved when it is first asked for. */
export interface Study {
  readonly design: Design;
  readonly low: OperatingPoint;
  readonly nominal: OperatingPoint;
  readonly high: OperatingPoint;
  readonly idle: OperatingPoint;
  /** High line with the output at the bottom of its range, and with a short across it; null without a regulator. */
  readonly lowest: OperatingPoint | null;
  readonly shorted: OperatingPoint | null;
  /** The same two of a further output: what the rail and that regulator then do. */
  further(n: number): { lowest: OperatingPoint | null; shorted: OperatingPoint };
  readonly surge: { peakA: number; i2t: number; network: Network };
  readonly missed: ReturnType<typeof missedHalfCycle>;
  readonly lost: ReturnType<typeof lostLoad>;
  /** States of the conditions asked for so far, for a similar design to start from. */
  solved(): WarmStart;
}

/** Warm starts from an earlier study of a similar design. */
export type WarmStart = Partial<Record<'low' | 'nominal' | 'high' | 'idle', readonly number[]>>;

/**
 * Opens a study. Asking for a member throws SolveError, naming the condition, when that one does not converge.
 */
export function studyDesign(design: Design, warm: WarmStart = {}): Study {
  const points: Partial<Record<'low' | 'nominal' | 'high' | 'idle', OperatingPoint>> = {};
  let lowest: OperatingPoint | undefined;
  let shorted: OperatingPoint | undefined;
  const furthers = new Map<string, OperatingPoint>();
  let surge: Study['surge'] | undefined;
  let missed: Study['missed'] | undefined;
  let lost: Study['lost'] | undefined;
  /** Temperatures a point was solved at, where they were found and not chosen. */
  const restingOf = ({ warmth }: OperatingPoint) => (design.heat.together ? warmth : {});
  const at = (id: keyof WarmStart) => (points[id] ??= operatingPoint(design, id, warm[id]));
  return {
    design,
    get low() {
      return at('low');
    },
    get nominal() {
      return at('nominal');
    },
    get high() {
      return at('high');
    },
    get idle() {
      return at('idle');
    },
    get lowest() {
      const model = regulatorModel(design.regulator);
      if (!model || model.lowestV > model.outputV - 0.01) return null;
      return (lowest ??= operatingPoint(design, 'lowest', at('high').solution.state));
    },
    get shorted() {
      if (design.regulator.kind === 'none') return null;
      return (shorted ??= operatingPoint(design, 'shorted', at('high').solution.state));
    },
    further(n) {
      const { lowestV, outputV } = regulatorModel(design.outputs[n]!.regulator);
      const held = (output: 'lowest' | 'shorted') => {
        const key = `${output} ${n}`;
        const found =
          furthers.get(key) ?? operatingPoint(design, { ...CONDITIONS[output], further: n }, at('high').solution.state);
        furthers.set(key, found);
        return found;
      };
      return {
        get lowest() {
          return lowestV > outputV - 0.01 ? null : held('lowest');
        },
        get shorted() {
          return held('shorted');
        },
      };
    },
    get surge() {
      return (surge ??= firstSurge(design));
    },
    get missed() {
      return (missed ??= missedHalfCycle(design, at('nominal').solution.state, restingOf(at('nominal'))));
    },
    get lost() {
      return (lost ??= lostLoad(design, at('high').solution.state, restingOf(at('high'))));
    },
    solved: () => Object.fromEntries(Object.entries(points).map(([id, p]) => [id, p.solution.state])),
  };
}

/**
 * The same study with each of its lasting circumstances seen differently; what happens once stays as it is.
 * @param held where the lowest setting and the short come from, when not from the main output
 */
export function studySeen(
  study: Study,
  see: (point: OperatingPoint) => OperatingPoint,
  design = study.design,
  held: { readonly lowest: OperatingPoint | null; readonly shorted: OperatingPoint | null } = study,
): Study {
  return {
    design,
    get low() {
      return see(study.low);
    },
    get nominal() {
      return see(study.nominal);
    },
    get high() {
      return see(study.high);
    },
    get idle() {
      return see(study.idle);
    },
    get lowest() {
      return held.lowest && see(held.lowest);
    },
    get shorted() {
      return held.shorted && see(held.shorted);
    },
    further(n) {
      const own = study.further(n);
      return {
        get lowest() {
          return own.lowest && see(own.lowest);
        },
        get shorted() {
          return see(own.shorted);
        },
      };
    },
    get surge() {
      return study.surge;
    },
    get missed() {
      return study.missed;
    },
    get lost() {
      return study.lost;
    },
    solved: () => study.solved(),
  };
}

/** The same study seen from another rail of a split supply. */
export function studyOnRail(study: Study, rail: number): Study {
  return studySeen(study, (point) => onRail(point, rail));
}

/** The same study seen from a further regulator on its rail, as if that were the main one. */
export function studyOnOutput(study: Study, n: number): Study {
  const design = asMain(study.design, study.design.outputs[n]!);
  const see = (point: OperatingPoint) => ({ ...point, ...point.outputs[n]!, ahead: null, outputs: [] });
  return studySeen(study, see, design, study.further(n));
}

/** The same study on another heatsink, interface or air: heat does not change what the circuit does. */
export function studyWithHeat(study: Study, heat: Design['heat']): Study {
  const design = { ...study.design, heat };
  const cooled = (point: OperatingPoint): OperatingPoint => {
    const again = <T extends RailPoint>(p: T): T => {
      if (!p.heat && p.outputs.length === 0) return p;
      const next = { ...p };
      warmed(design, point.watts, next, point.rails.length);
      return next;
    };
    return { ...again(point), rails: point.rails.map(again) };
  };
  return studySeen(study, cooled, design);
}

export function warmStartFrom(study: Study): WarmStart {
  return {
    low: study.low.solution.state,
    nominal: study.nominal.solution.state,
    high: study.high.solution.state,
    idle: study.idle.solution.state,
  };
}

/** Everything the load may see between low line loaded and high line idle, V: from spread for a regulator, from the mains otherwise. */
export function outputSpan(study: Study): { minV: number; maxV: number } {
  const model = regulatorModel(study.design.regulator);
  if (model) {
    return { minV: study.low.outputMinV * (1 - model.spread), maxV: model.outputV * (1 + model.spread) };
  }
  return { minV: study.low.outputMinV, maxV: study.idle.outputMaxV };
}
