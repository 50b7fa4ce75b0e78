import { mainsVolts, modelOf } from '@/core/circuit/feed';
import type { Condition } from '@/core/circuit/condition';
import { networkOf, type Adjust } from '@/core/circuit/network-of';
import type { Design } from '@/core/design/design';
import { mainModel } from '@/core/design/outputs';
import { dcSourceOf, termsOf } from '@/core/design/source';
import { diodeOf, spreadWords } from '@/core/parts/diode';
import { sourceSpread } from '@/core/parts/transformer-trust';
import { formatQuantity as q } from '@/core/quantity/format';
import { solveSteady } from '@/core/solve/steady';
import { reservoirV } from '@/core/study/drawn-point';
import { reservoirOf, restingAdjust, type Resting } from '@/core/study/operating-point';
import { WAVE_SAMPLES, type RailPoint } from '@/core/study/point';
import type { PointId, TestPoint } from './test-point';

/** A healthy diode's saturation current lies within this factor of its class's. */
const DIODE_SATURATION = 3;

/** How far open volts and resistance of a healthy build may be off, per cent: 3 and 20, or what a fit left of it. */
function healthySpread({ source, transformer }: Design): { voltsPct: number; ohmPct: number } {
  const fitted = source.kind === 'mains' && transformer.source.kind === 'fitted';
  return fitted ? sourceSpread(transformer.source) : { voltsPct: 3, ohmPct: 20 };
}

/** A point before it is told which stage it belongs to. */
export type Point = Omit<TestPoint, 'stage'>;

/** What every point of a design's power-up is made from. */
export interface PointContext {
  design: Design;
  /** Mains volts valid for a point's reading. */
  mainsFor(point: PointId): number;
  /** The main regulator; null for none. */
  made: ReturnType<typeof mainModel>;
  dc: ReturnType<typeof dcSourceOf>;
  voltsPct: number;
  /** How the volts it is fed with are called where they were read. */
  read: string;
  /** What the person's meter may be off at so many volts, V. */
  meter(volts: number): number;
  /** Open volts of the winding, or of the source itself, at so many volts of mains. */
  opened(mainsV: number): number;
  /** The highest an idle reservoir comes to, V. */
  idlePeakV: number;
  /** A figure of the reservoir with its worst ends among healthy builds. */
  window(condition: Condition, mainsV: number, of: Design, pick?: PickFigure): Window;
}

export type PickFigure = (reservoir: RailPoint['reservoir'] & { samples: number[] }) => number;

export interface Window {
  value: number;
  low: number;
  high: number;
  assumes: string[];
}

export function pointContext(design: Design, mainsFor: (point: PointId) => number): PointContext {
  const { mains, bench } = design;
  const rested = new Map<Design, Resting>();
  const model = modelOf(design);
  const dc = dcSourceOf(design);
  const { voltsPct, ohmPct } = healthySpread(design);
  const opened = (mainsV: number) => (dc ? mainsV : (model.openCircuitV * mainsV) / mains.voltageRms);
  return {
    design,
    mainsFor,
    made: mainModel(design),
    dc,
    voltsPct,
    read: dc ? 'open volts read' : 'mains read',
    meter: (v) => (Math.abs(v) * bench.meterPct) / 100 + bench.meterDigitsV,
    opened,
    idlePeakV: (dc ? 1 : Math.SQRT2 * (1 - mains.flatTopPct / 100)) * opened(mainsVolts(design, 'high')),
    window,
  };

  /** Several windows are of one and the same supply at rest. */
  function restingOnce(of: Design): Resting {
    let found = rested.get(of);
    if (!found) rested.set(of, (found = restingAdjust(of, 'nominal')));
    return found;
  }

  /** Value and worst-case ends of a reservoir figure under a condition at `mainsV`. */
  function window(condition: Condition, mainsV: number, of: Design, pick: PickFigure = (reservoir) => reservoir.meanV) {
    const resting = condition.load !== 'none' ? restingOnce(of) : {};
    const at = (adjust: Adjust) => {
      const network = networkOf(of, condition, { mainsV, ...resting, ...adjust });
      // Across the reservoir itself, wherever in the filter it stands.
      const solution = solveSteady(network, { samples: WAVE_SAMPLES });
      return pick({ ...reservoirOf(of, solution, 0), samples: reservoirV(of, solution.waveforms!, 0) });
    };
    const value = at({});
    const tolerance = of.reservoir.tolerancePct / 100;
    const trials: [Adjust, Adjust][] = [
      [{ openCircuitFactor: 1 - voltsPct / 100 }, { openCircuitFactor: 1 + voltsPct / 100 }],
      [{ resistanceFactor: 1 + ohmPct / 100 }, { resistanceFactor: 1 - ohmPct / 100 }],
      [{ capacitanceFactor: 1 - tolerance }, { capacitanceFactor: 1 + tolerance }],
      [{ diodeSaturationFactor: 1 / DIODE_SATURATION }, { diodeSaturationFactor: DIODE_SATURATION }],
    ];
    let low = value;
    let high = value;
    for (const pair of trials) {
      const ends = pair.map((adjust) => at(adjust) - value);
      low += Math.min(0, ...ends);
      high += Math.max(0, ...ends);
    }
    return {
      value,
      low,
      high,
      assumes: [
        `Open-circuit volts ±${q(voltsPct, '%', 2)}, ${termsOf(of).winding} resistance ±${q(ohmPct, '%', 2)}, capacitance ±` +
          q(of.reservoir.tolerancePct, '%') +
          `, ${spreadWords(diodeOf(of.rectifier))}: each simulated, the excursions added.`,
      ],
    };
  }
}
