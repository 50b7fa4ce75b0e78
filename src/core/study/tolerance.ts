import { dcSourceOf, hasDiodes, termsOf } from '@/core/design/source';
import { uniformFloat64 } from 'pure-rand/distribution/uniformFloat64';
import { xoroshiro128plus } from 'pure-rand/generator/xoroshiro128plus';
import { CONDITIONS, type ConditionId } from '@/core/circuit/condition';
import { modelOf } from '@/core/circuit/feed';
import { networkOf, type Adjust } from '@/core/circuit/network-of';
import { reservoirPlace } from '@/core/circuit/filter-of';
import { applyPatch, type Design } from '@/core/design/design';
import { bankRatedV } from '@/core/design/bank';
import { windingCount } from '@/core/design/words';
import { typicalRippleRating } from '@/core/parts/capacitor';
import { diodeOf } from '@/core/parts/diode';
import { sourceLimitA } from '@/core/parts/dc-source';
import { SOURCE_TRUST } from '@/core/parts/transformer-source';
import { regulatorModel } from '@/core/parts/regulators';
import { aheadDropout, aheadModel } from '@/core/parts/regulators/ahead';
import { dropoutAt } from '@/core/parts/regulators/model';
import type { Solution } from '@/core/solve/solution';
import { restingAdjust, rippleHz } from './operating-point';
import { SolveError } from '@/core/solve/solve-error';
import { solveSteady } from '@/core/solve/steady';
import type { Unit } from '@/core/quantity/parse';
import { regulatorHeat } from './heat';
import { lossesOf } from './losses';

/** Something that differs from one build to the next. */
export interface Spread {
  id: 'open' | 'copper' | 'capacitance' | 'diode' | 'dropout' | 'output' | 'sink' | 'load';
  label: string;
  /** Ends of its range as factors; drawn with the middle likelier than the ends. */
  low: number;
  high: number;
}

/** What is checked in every build, each against its own limit. */
export interface Check {
  id: 'headroom' | 'lowest' | 'highest' | 'ripple' | 'input' | 'can' | 'can-current' | 'junction' | 'diode' | 'winding';
  title: string;
  unit: Unit;
}

export interface Build {
  /** Drawn factors, in the order of the spreads. */
  factors: number[];
  /** Distance to the limit of each check, in its unit, negative beyond; null where a build found no answer. */
  margins: number[] | null;
}

/** The parts' spreads of a design: from what is known of each, typical where nothing is. */
export function spreadsOf(design: Design): Spread[] {
  const { reservoir, transformer, heat } = design;
  const model = regulatorModel(design.regulator);
  const dc = dcSourceOf(design);
  const ohm = dc ? 0.3 : SOURCE_TRUST[transformer.source.kind].ohmPct / 100;
  const around = (id: Spread['id'], label: string, share: number): Spread => ({
    id,
    label,
    low: 1 - share,
    high: 1 + share,
  });
  return [
    around('open', 'open-circuit volts, ±3 %', 0.03),
    around('copper', `${dc ? 'its' : 'copper'} resistance, ±${Math.round(100 * ohm)} %`, ohm),
    around('capacitance', `capacitance, ±${reservoir.tolerancePct} %`, reservoir.tolerancePct / 100),
    ...(hasDiodes(design) ? [{ id: 'diode', label: 'diode drop, ±50 mV', low: 0.35, high: 2.8 } as const] : []),
    around('load', 'load current, ±5 %', 0.05),
    ...(model
      ? [
          around('dropout', 'dropout, ±20 %', 0.2),
          around('output', `output set, ±${(100 * model.spread).toFixed(1)} %`, model.spread),
          ...(model.pass.takesSink && heat.sinkKPerW !== null ? [around('sink', 'sink and contact, ±15 %', 0.15)] : []),
        ]
      : []),
  ];
}

export function checksOf(design: Design): Check[] {
  const regulated = design.regulator.kind !== 'none';
  const dc = dcSourceOf(design);
  const say = termsOf(design);
  return [
    ...(regulated
      ? [{ id: 'headroom', title: dc ? `Headroom, ${say.low}` : 'Headroom at low line', unit: 'V' } as const]
      : [{ id: 'lowest', title: `Output, ${say.low}`, unit: 'V' } as const]),
    { id: 'highest', title: regulated ? 'Output at its highest' : `Output, ${say.high} idle`, unit: 'V' },
    { id: 'ripple', title: 'Output ripple', unit: 'V' },
    ...(regulated ? [{ id: 'input', title: 'Regulator input, idle', unit: 'V' } as const] : []),
    ...(design.reservoir.capacitanceF > 0
      ? ([
          { id: 'can', title: 'Reservoir volts, idle', unit: 'V' },
          { id: 'can-current', title: 'Reservoir ripple current', unit: 'A' },
        ] as const)
      : []),
    ...(regulated ? [{ id: 'junction', title: 'Regulator junction', unit: '°C' } as const] : []),
    ...(hasDiodes(design) ? [{ id: 'diode', title: 'Diode mean current', unit: 'A' } as const] : []),
    ...(!dc
      ? [{ id: 'winding', title: 'Winding current', unit: 'A' } as const]
      : sourceLimitA(dc) === null
        ? []
        : [{ id: 'winding', title: 'Current of the adapter', unit: 'A' } as const]),
  ];
}

/** Factors of one build: the same for the same seed and number, whoever asks and in whatever order. */
export function drawBuild(spreads: readonly Spread[], seed: number, n: number): number[] {
  const random = xoroshiro128plus((seed ^ Math.imul(n + 1, 0x9e3779b1)) | 0);
  const unit = () => uniformFloat64(random);
  // The mean of two draws: triangular, the middle likeliest, the ends still reached.
  return spreads.map(({ low, high }) => {
    const share = (unit() + unit()) / 2;
    return low > 0 && high / low > 4 ? low * (high / low) ** share : low + (high - low) * share;
  });
}

/** Solves a run of builds, numbered from `from` on, in one thread. */
export function solveBuilds(design: Design, seed: number, from: number, count: number): Build[] {
  const spreads = spreadsOf(design);
  const checks = checksOf(design);
  const resting = { low: restingAdjust(design, 'low'), high: restingAdjust(design, 'high') };
  return Array.from({ length: count }, (_, k): Build => {
    const factors = drawBuild(spreads, seed, from + k);
    try {
      return { factors, margins: marginsOf(design, checks, spreads, factors, resting) };
    } catch (error) {
      if (!(error instanceof SolveError)) throw error;
      return { factors, margins: null };
    }
  });
}

/**
 * Distances to the limits of one build, in the order of the checks.
 * @param factors in the order of the spreads
 * @throws SolveError when a corner of it does not converge
 */
export function marginsAt(design: Design, factors: readonly number[]): number[] {
  const resting = { low: restingAdjust(design, 'low'), high: restingAdjust(design, 'high') };
  return marginsOf(design, checksOf(design), spreadsOf(design), factors, resting);
}

function marginsOf(
  base: Design,
  checks: readonly Check[],
  spreads: readonly Spread[],
  factors: readonly number[],
  resting: Record<'low' | 'high', Adjust>,
): number[] {
  const of = (id: Spread['id']) => factors[spreads.findIndex((s) => s.id === id)] ?? 1;
  const adjust: Adjust = {
    openCircuitFactor: of('open'),
    resistanceFactor: of('copper'),
    capacitanceFactor: of('capacitance'),
    diodeSaturationFactor: of('diode'),
    dropoutFactor: of('dropout'),
  };
  const { demand } = base;
  const scaled = (amps: number | null) => (amps === null ? null : amps * of('load'));
  const design = applyPatch(base, {
    demand: {
      outputA: demand.outputA * of('load'),
      typicalA: scaled(demand.typicalA),
      negativeA: scaled(demand.negativeA),
    },
  });
  const model = regulatorModel(design.regulator);
  // Each from its own first guess: the build before stands farther away than that.
  const solve = (id: ConditionId, more: Adjust = adjust): Solution =>
    solveSteady(networkOf(design, CONDITIONS[id], more));
  // The tolerance of the can is drawn here: what the low corner then takes off is its age alone.
  const aged = { ...adjust, capacitanceFactor: of('capacitance') / (1 - base.reservoir.tolerancePct / 100) };
  const low = solve('low', { ...aged, ...resting.low });
  const idle = solve('idle');
  const high = solve('high', { ...adjust, ...resting.high });
  const ahead = model ? aheadModel(design.preRegulator) : null;
  const aheadNeeds = ahead ? aheadDropout(ahead, design.demand.outputA) : 0;
  const halves = windingCount(design);
  const windingA = Math.max(...high.windings.slice(0, halves).map((w) => w.rmsA));
  return checks.map((check): number => {
    switch (check.id) {
      case 'headroom':
        return (
          Math.min(...low.rails.map((r) => r.minV)) -
          model!.outputV * of('output') -
          of('dropout') * dropoutAt(model!, design.demand.outputA) -
          aheadNeeds
        );
      case 'lowest':
        return low.rails[0]!.minV - demand.outputV * (1 - demand.tolerancePct / 100);
      case 'highest':
        return (
          demand.outputV * (1 + demand.tolerancePct / 100) -
          (model ? model.outputV * of('output') : Math.max(...idle.rails.map((r) => r.maxV)))
        );
      case 'ripple': {
        const rail = low.rails[0]!;
        if (!model) return demand.rippleVpp - rail.ripplePeakToPeakV;
        const hz = rippleHz(design);
        const holds = !ahead || rail.minV > ahead.holdsV(model.outputV) + aheadNeeds;
        const left = 10 ** (-(model.rejectionDb(hz) + (ahead && holds ? ahead.rejectionDb(hz) : 0)) / 20);
        return demand.rippleVpp - (rail.outputMaxV! - rail.outputMinV!) - rail.ripplePeakToPeakV * left;
      }
      case 'can-current': {
        const place = reservoirPlace(design);
        const { cans, rippleA, capacitanceF, ratedV } = design.reservoir;
        const rated = cans * (rippleA ?? typicalRippleRating(capacitanceF, ratedV));
        return rated - Math.max(...high.elements.map((rail) => rail[place]!.rmsA));
      }
      case 'diode':
        return diodeOf(design.rectifier).averageA - Math.max(...high.diodes.map((d) => d.meanA));
      case 'input':
        return (ahead ?? model!).inputMaxV - Math.max(...idle.rails.map((r) => r.maxV));
      case 'can': {
        const place = reservoirPlace(design);
        return bankRatedV(design.reservoir) - Math.max(...idle.elements.map((rail) => rail[place]!.maxV));
      }
      case 'junction': {
        const rail = high.rails[0]!;
        // Further regulators draw their own from the same rail.
        const besideA = base.outputs.reduce((sum, o) => sum + o.currentA + regulatorModel(o.regulator).quiescentA, 0);
        const amps = Math.max(0, rail.loadMeanA - model!.quiescentA - besideA);
        const burnt = Math.max(0, rail.loadPowerW - rail.meanV * besideA - model!.outputV * of('output') * amps);
        const held = ahead
          ? Math.min(ahead.holdsV(model!.outputV), rail.meanV - aheadDropout(ahead, amps))
          : rail.meanV;
        const aheadW = ahead ? Math.min(burnt, Math.max(0, rail.meanV - held) * amps) : 0;
        const watts = burnt - aheadW;
        const { sinkKPerW } = design.heat;
        const cooled =
          sinkKPerW === null ? design : applyPatch(design, { heat: { sinkKPerW: sinkKPerW * of('sink') } });
        const diodesW = high.diodes.reduce((sum, d) => sum + d.meanW, 0);
        const burntIn = {
          winding: high.windings.reduce((sum, w) => sum + w.copperLossW, 0) + (high.source.sharedLossW ?? 0),
          rectifier: diodesW,
          reservoir: high.energyBalance.filterW,
          regulator: burnt * high.rails.length,
          outputs: base.outputs.reduce(
            (sum, o) => sum + Math.max(0, rail.meanV - regulatorModel(o.regulator).outputV) * o.currentA,
            0,
          ),
          load: 0,
        };
        const heat = regulatorHeat(cooled, {
          regulatorW: watts,
          othersW: aheadW + (design.heat.sharedWithRectifier ? diodesW / high.rails.length : 0),
          boxW: lossesOf(cooled, burntIn).insideW,
        })!;
        return model!.pass.junctionMaxC - heat.junctionC;
      }
      case 'winding':
        return ratedFeedA(design) - windingA;
    }
  });
}

/** What the winding, or an adapter in its place, is made for, A. */
function ratedFeedA(design: Design): number {
  const dc = dcSourceOf(design);
  return dc ? (sourceLimitA(dc) ?? Infinity) : modelOf(design).ratedA;
}

/** What many builds come to in one check. */
export interface CheckSummary {
  check: Check;
  /** Share of the builds that pass it. */
  pass: number;
  least: number;
  median: number;
  most: number;
  /** Builds in each of equally wide steps from least to most. */
  histogram: number[];
  /** What moves this margin, the strongest first, with its share of the variance and the end that hurts. */
  causes: { label: string; share: number; hurts: 'low' | 'high' }[];
}

export interface ToleranceSummary {
  seed: number;
  builds: number;
  unsolved: number;
  /** Share of the builds that pass everything. */
  pass: number;
  checks: CheckSummary[];
}

const BINS = 24;

/** Adds up builds: shares, histograms, and what drives the misses by the squares of the correlations. */
export function summarise(design: Design, seed: number, builds: readonly Build[]): ToleranceSummary {
  const spreads = spreadsOf(design);
  const solved = builds.filter((b): b is Build & { margins: number[] } => b.margins !== null);
  const passes = solved.filter((b) => b.margins.every((m) => m >= 0)).length;
  return {
    seed,
    builds: builds.length,
    unsolved: builds.length - solved.length,
    pass: builds.length === 0 ? 0 : passes / builds.length,
    checks: checksOf(design).map((check, c): CheckSummary => {
      const margins = solved.map((b) => b.margins[c]!);
      const sorted = [...margins].sort((a, b) => a - b);
      const least = sorted[0] ?? 0;
      const most = sorted[sorted.length - 1] ?? 0;
      const histogram = new Array<number>(BINS).fill(0);
      for (const m of margins)
        histogram[Math.min(BINS - 1, Math.floor(((m - least) / Math.max(most - least, 1e-12)) * BINS))]!++;
      const causes = spreads
        .map((spread, s) => {
          const r = correlation(
            solved.map((b) => b.factors[s]!),
            margins,
          );
          return { label: spread.label, share: r * r, hurts: r > 0 ? ('low' as const) : ('high' as const) };
        })
        .filter((cause) => cause.share > 0.02)
        .sort((a, b) => b.share - a.share);
      return {
        check,
        pass: builds.length === 0 ? 0 : margins.filter((m) => m >= 0).length / builds.length,
        least,
        median: sorted[sorted.length >> 1] ?? 0,
        most,
        histogram,
        causes,
      };
    }),
  };
}

function correlation(a: readonly number[], b: readonly number[]): number {
  const n = a.length;
  if (n < 2) return 0;
  const mean = (list: readonly number[]) => list.reduce((sum, v) => sum + v, 0) / n;
  const [ma, mb] = [mean(a), mean(b)];
  let ab = 0;
  let aa = 0;
  let bb = 0;
  for (let k = 0; k < n; k++) {
    ab += (a[k]! - ma) * (b[k]! - mb);
    aa += (a[k]! - ma) ** 2;
    bb += (b[k]! - mb) ** 2;
  }
  return aa > 0 && bb > 0 ? ab / Math.sqrt(aa * bb) : 0;
}

/** Which verdict each check speaks for. */
const VERDICT_OF: Readonly<Record<Check['id'], string>> = {
  headroom: 'headroom',
  lowest: 'output-window',
  highest: 'output-window',
  input: 'regulator-input',
  can: 'reservoir-voltage',
  junction: 'junction',
  ripple: 'output-ripple',
  'can-current': 'ripple-current',
  diode: 'diode-average',
  winding: 'winding-current',
};

/** Share of the builds that hold each verdict the checks speak for. */
export function drawnShares(design: Design, builds: readonly Build[]): Record<string, number> {
  const checks = checksOf(design);
  const shares: Record<string, number> = {};
  for (const id of new Set(checks.map((c) => VERDICT_OF[c.id]))) {
    const own = checks.flatMap((c, n) => (VERDICT_OF[c.id] === id ? [n] : []));
    const held = builds.filter((b) => b.margins !== null && own.every((n) => b.margins![n]! >= 0)).length;
    shares[id] = builds.length === 0 ? 0 : held / builds.length;
  }
  return shares;
}

/** How sure a share of builds is: half width of its 95 % interval. */
export function shareError(share: number, builds: number): number {
  return 1.96 * Math.sqrt(Math.max(share * (1 - share), 1 / builds) / builds);
}
