import { uniformFloat64 } from 'pure-rand/distribution/uniformFloat64';
import { xoroshiro128plus } from 'pure-rand/generator/xoroshiro128plus';
import type { Design } from '@/core/design/design';
import { mainModel } from '@/core/design/outputs';
import { dcSourceOf, hasDiodes } from '@/core/design/source';
import { diodeOf, spreadWords } from '@/core/parts/diode';
import { sourceSpread } from '@/core/parts/transformer-trust';

/** Something that differs from one build to the next. */
export interface Spread {
  id: 'open' | 'copper' | 'capacitance' | 'diode' | 'dropout' | 'output' | 'sink' | 'load';
  label: string;
  /** Ends of its range as factors; drawn with the middle likelier than the ends. */
  low: number;
  high: number;
}

/** The parts' spreads of a design: from what is known of each, typical where nothing is. */
export function spreadsOf(design: Design): Spread[] {
  const { reservoir, transformer, heat } = design;
  const model = mainModel(design);
  const dc = dcSourceOf(design);
  const { voltsPct, ohmPct } = dc ? { voltsPct: 3, ohmPct: 30 } : sourceSpread(transformer.source);
  const percent = (value: number) => Number(value.toPrecision(2));
  const around = (id: Spread['id'], label: string, share: number): Spread => ({
    id,
    label,
    low: 1 - share,
    high: 1 + share,
  });
  return [
    around('open', `open-circuit volts, ±${percent(voltsPct)} %`, voltsPct / 100),
    around('copper', `${dc ? 'its' : 'copper'} resistance, ±${percent(ohmPct)} %`, ohmPct / 100),
    around('capacitance', `capacitance, ±${reservoir.tolerancePct} %`, reservoir.tolerancePct / 100),
    ...(hasDiodes(design)
      ? [{ id: 'diode', label: spreadWords(diodeOf(design.rectifier)), low: 0.35, high: 2.8 } as const]
      : []),
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

/** Where the factors of a build lie in their ranges, -1 to 1; by ratios where those have a meaning; of what spreads at all. */
export function placeOf(spreads: readonly Spread[], factors: readonly number[]): number[] {
  const place: number[] = [];
  spreads.forEach(({ low, high }, s) => {
    if (!(high > low)) return;
    const share = low > 0 ? Math.log(factors[s]! / low) / Math.log(high / low) : (factors[s]! - low) / (high - low);
    place.push(2 * share - 1);
  });
  return place;
}
