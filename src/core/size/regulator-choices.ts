import type { Ask, Mains, OutputDemand, Regulator, Span } from '@/core/design/design';
import { outputModel, windowOf } from '@/core/design/outputs';
import { outputDemand } from '@/core/design/defaults';
import {
  ADJ_A,
  ADJUSTABLE_IDS,
  ADJUSTABLE_PARTS,
  adjustableOutput,
  REFERENCE_V,
} from '@/core/parts/regulators/adjustable';
import { FIXED_OUTPUTS_V, REGULATOR_SIZES } from '@/core/parts/regulators/fixed';
import { LOW_DROPOUT_PARTS, type LowDropoutId } from '@/core/parts/regulators/low-dropout';
import type { RegulatorModel } from '@/core/parts/regulators/model';
import { formatNominal as n } from '@/core/quantity/format';
import { E24, nearestInDecades } from '@/core/quantity/preferred';

/** Output a ready-made low-dropout part can be had for, V. */
const LOW_DROPOUT_V: readonly number[] = [1.8, 2.5, 3.3, 5, 8, 9, 10, 12, 15];
/** A regulator this many times as strong as the load is never the one that is wanted. */
const STRONGER_TIMES = 40;

export interface RegulatorChoices {
  choices: Regulator[];
  /** What is not tried, and why: a sentence each. */
  leftOut: string[];
}

/**
 * Ready-made regulators worth trying for a load, and none where the window is wide enough to live without. Nothing is
 * dropped without a word.
 */
export function regulatorChoices(demand: Ask & Partial<Pick<OutputDemand, 'window'>>, mains: Mains): RegulatorChoices {
  const { outputV, outputA } = demand;
  const asked: OutputDemand = { ...outputDemand(demand), window: demand.window ?? null };
  const allowed = windowOf(asked);
  const made: Regulator[] = [
    ...REGULATOR_SIZES.flatMap((s) =>
      s.outputsV.map((volts): Regulator => ({ kind: 'fixed', size: s.id, outputV: volts })),
    ),
    ...ADJUSTABLE_IDS.flatMap((part): Regulator[] => {
      if (outputV < 1.25) return [];
      return [{ kind: 'adjustable', part, ...dividerFor(outputV), potOhm: null, adjCapacitor: true }];
    }),
    ...(Object.keys(LOW_DROPOUT_PARTS) as LowDropoutId[]).flatMap((part) =>
      LOW_DROPOUT_V.map((volts): Regulator => ({ kind: 'low-dropout', part, outputV: volts, boardCm2: 6 })),
    ),
  ];
  const fits: Regulator[] = [];
  let nearest: Regulator | null = null;
  const counts = { weak: 0, strong: 0, off: 0 };
  for (const regulator of made) {
    const model = outputModel({ regulator, regulatorSheet: null, demand: asked });
    if (!model) continue;
    if (!withinWindow(model, allowed)) {
      counts.off++;
      if (regulator.kind === 'adjustable' && model.ratedA >= outputA) nearest ??= regulator;
    } else if (model.ratedA < outputA) counts.weak++;
    else if (model.ratedA > STRONGER_TIMES * outputA && regulator.kind !== 'fixed') counts.strong++;
    else fits.push(regulator);
  }
  const leftOut: string[] = [];
  if (counts.weak > 0)
    leftOut.push(`${counts.weak} ready-made regulators for these volts: rated below ${n(outputA, 'A')}.`);
  if (counts.strong > 0) leftOut.push(`${counts.strong} ready-made regulators: far stronger than the load.`);
  leftOut.push('Discrete and bench regulators: they are designed, not picked; change the family afterwards.');
  // Unregulated, the output follows the mains at least: hopeless in a window narrower than the mains' own swing.
  const loose = (50 * (allowed.highV - allowed.lowV)) / outputV >= Math.min(mains.lowPct, mains.highPct) * (1 - 1e-9);
  const none = fits.length === 0;
  // What spreads further than the window is still nearer to it than the mains.
  if (none && nearest) fits.push(nearest);
  if (loose || none) fits.push({ kind: 'none' });
  else leftOut.push('No regulator at all: the mains alone swing further than the window.');
  return { choices: fits, leftOut };
}

/** Whether a regulator's output stays inside what is allowed over its whole spread. */
function withinWindow({ outputV: set, spread }: RegulatorModel, { lowV, highV }: Span): boolean {
  return set * (1 - spread) >= lowV * (1 - 1e-9) && set * (1 + spread) <= highV * (1 + 1e-9);
}

/** The pair from E24 nearest to an output whose divider draws what the worst part needs: 1.25 V over 82 to 120 ohm. */
function dividerFor(outputV: number): { r1Ohm: number; r2Ohm: number } {
  const tries = [120, 110, 100, 91, 82].map((r1Ohm) => {
    const wanted = (outputV - REFERENCE_V) / (REFERENCE_V / r1Ohm + ADJ_A);
    const r2Ohm = wanted < 5 ? 0 : nearestInDecades(wanted, E24);
    return { r1Ohm, r2Ohm, off: Math.abs(adjustableOutput(r1Ohm, r2Ohm) / outputV - 1) };
  });
  const { r1Ohm, r2Ohm } = tries.reduce((a, b) => (b.off < a.off - 1e-9 ? b : a));
  return { r1Ohm, r2Ohm };
}

/** Why nothing ready-made is near: the nearest fixed outputs, the spread, the strongest. */
export function whyNoneFits({ outputV, outputA, tolerancePct }: Ask): string[] {
  const near = [...FIXED_OUTPUTS_V]
    .sort((a, b) => Math.abs(a - outputV) - Math.abs(b - outputV))
    .slice(0, 2)
    .sort((a, b) => a - b);
  const strongest = Math.max(
    ...REGULATOR_SIZES.map((s) => s.ratedA),
    ...Object.values(ADJUSTABLE_PARTS).map((p) => p.ratedA),
  );
  const parts: string[] = [];
  if (tolerancePct < 2) parts.push(`no ready-made regulator holds ±${n(tolerancePct, '%')} over its spread`);
  else if (!FIXED_OUTPUTS_V.some((v) => Math.abs(v / outputV - 1) < tolerancePct / 100))
    parts.push(`the nearest fixed outputs are ${near.map((v) => n(v, 'V')).join(' and ')}`);
  if (outputA > strongest) parts.push(`the strongest ready-made regulator carries ${n(strongest, 'A')}`);
  return parts;
}
