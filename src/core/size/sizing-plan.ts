import { windowOf } from '@/core/design/outputs';
import { bankF, bankRatedV } from '@/core/design/bank';
import { applyPatch, mergePatches, type Design, type Patch } from '@/core/design/design';
import type { PartRole } from '@/core/design/kinds';
import { arrangementFacts } from '@/core/design/source';
import type { Part } from '@/core/drawer/part';
import { VALVE_CLASSES, diodeClass } from '@/core/parts/diode';
import { regulatorModel } from '@/core/parts/regulators';
import { dropoutAt } from '@/core/parts/regulators/model';
import { typicalRegulation } from '@/core/parts/transformer';
import { once } from '@/core/quantity/once';
import { CAPACITOR_VOLTS } from '@/core/quantity/preferred';
import {
  asItIs,
  bearsLoad,
  bought,
  fitsOutput,
  fromStock,
  ordered,
  plausibleVolts,
  standardCans,
  standardDiodes,
  standardRegulators,
  standardSinks,
  standardTransformers,
  type Choice,
} from './choices';
import { regulatorChoices } from './regulator-choices';
import type { SizingAsk } from './sized-set';

/** What a sink is chosen behind. */
export interface Circuit {
  /** Transformer, reservoir, regulator and rectifier. */
  choices: readonly Choice[];
  /** The same for all that differ in the rectifier alone, by its kind: what fails for another reason fails with each of them. */
  kin: string;
}

/** Everything a search is going to look at. */
export interface SizingPlan {
  design: Design;
  /** The most promising first. */
  circuits: readonly Circuit[];
  /** What each is cooled by, the smallest first. */
  sinks: readonly Choice[];
  /** What is not among them, and why: a sentence each. */
  leftOut: readonly string[];
}

/** How many circuits a search may look at, and what is not among them. */
export type SizingPlanned = Pick<SizingPlan, 'leftOut'> & { circuits: number };

export const planned = ({ circuits, leftOut }: SizingPlan): SizingPlanned => ({ circuits: circuits.length, leftOut });

/**
 * What a search for whole sets around a design's load, mains and arrangement looks at. Rules of thumb only say in which
 * order; the same question has the same plan wherever it is asked.
 */
export function planSizing(design: Design, parts: readonly Part[], ask: SizingAsk): SizingPlan {
  const stock = ask.from === 'values' ? [] : parts.filter((p) => p.count > 0);
  const values = ask.from !== 'drawer';
  const own = (role: PartRole) => (design.fixed.includes(role) ? [asItIs(design, role)] : null);
  const bare: Choice = bought('regulator', 'no regulator', 0, { regulator: { kind: 'none' } });
  const { choices, leftOut } = regulatorChoices(design.demand, design.mains);
  const transformers =
    own('transformer') ??
    ordered([...fromStock(design, stock, 'transformer'), ...(values ? standardTransformers(design) : [])]);
  const stocked = fromStock(design, stock, 'regulator');
  const regulators = own('regulator') ?? [
    ...stocked.filter((c) => fitsOutput(design, c)),
    ...(values ? standardRegulators(design, choices) : []),
  ];
  const loose = choices.some((c) => c.kind === 'none');
  const unregulated = own('regulator') === null && (loose || regulators.length === 0) ? [bare] : [];
  const off = stocked.length - stocked.filter((c) => fitsOutput(design, c)).length;
  if (off > 0) leftOut.push(`${off} regulators of the drawer: not for these volts, or too weak.`);
  const everyRectifier = own('rectifier') ?? [
    ...fromStock(design, stock, 'rectifier'),
    ...(values ? standardDiodes(design) : []),
  ];
  if (values && !own('rectifier'))
    leftOut.push(`${VALVE_CLASSES.length} valve rectifiers: chosen by hand, never for their price.`);
  const rectifiers = own('rectifier') ?? everyRectifier.filter((c) => bearsLoad(design, c));
  if (rectifiers.length < everyRectifier.length)
    leftOut.push(`${everyRectifier.length - rectifiers.length} rectifiers: below half the load or twice the volts.`);
  const sinks = own('sink') ?? [...fromStock(design, stock, 'sink'), ...(values ? standardSinks() : [])];
  if (sinks.length === 0)
    leftOut.push(
      'Whole sets with a regulator that takes a heatsink: the drawer has none. Only what fails before is shown.',
    );
  const reservoirsFor = new Map<number, Choice[]>();
  const kinOf = kinship();
  const circuits: (Circuit & { rough: number })[] = [];
  for (const regulator of [...regulators, ...unregulated]) {
    for (const transformer of transformers.filter(
      (t) => design.fixed.includes('transformer') || plausibleVolts(design, regulator, t),
    )) {
      const peak = Math.SQRT2 * (transformer.patch.transformer?.ratedV ?? design.transformer.ratedV) * 1.25;
      const canV = CAPACITOR_VOLTS.find((v) => v >= peak) ?? 450;
      let reservoirs = reservoirsFor.get(canV);
      if (!reservoirs) {
        reservoirs =
          own('reservoir') ??
          ordered([
            ...fromStock(design, stock, 'reservoir').filter((c) => c.patch.reservoir!.ratedV! >= 0.95 * peak),
            ...(values ? standardCans(design, canV) : []),
          ]);
        reservoirsFor.set(canV, reservoirs);
      }
      for (const reservoir of reservoirs) {
        const three = [transformer, reservoir, regulator];
        const promised = promise(design, three);
        for (const rectifier of rectifiers) {
          const four = [...three, rectifier];
          const toPay = four.reduce((sum, c) => sum + c.toPayEur + 0.02 * c.part.priceEur, 1);
          circuits.push({ choices: four, kin: kinOf(four), rough: toPay * promised });
        }
      }
    }
  }
  circuits.sort((a, b) => a.rough - b.rough);
  return { design, circuits, sinks, leftOut };
}

/** Tells circuits that differ in the rectifier alone, by its kind, from others: what they have in common, in short. */
function kinship(): (circuit: readonly Choice[]) => string {
  const numbers = new Map<string, number>();
  const numberOf = once(({ patch }: Choice) => {
    const text = JSON.stringify(patch);
    if (!numbers.has(text)) numbers.set(text, numbers.size);
    return numbers.get(text)!;
  });
  return ([transformer, reservoir, regulator, rectifier]) => {
    const { rectifier: chosen } = rectifier!.patch;
    const technology = chosen?.diode ? diodeClass(chosen.diode).technology : '';
    return `${numberOf(transformer!)} ${numberOf(reservoir!)} ${numberOf(regulator!)} ${technology}`;
  };
}

/**
 * How promising a set looks by the rules of thumb, 1 or dearer. It only says in which order sets are simulated:
 * loaded peak less ripple by I*t/C against what is needed, idle peak against the ratings, 1.8 times the load in the winding.
 */
function promise(design: Design, three: readonly Choice[]): number {
  const patch = three.reduce((all: Patch, c) => mergePatches(all, c.patch), {});
  const { demand, mains, transformer, reservoir, regulator } = applyPatch(design, patch);
  const facts = arrangementFacts(design);
  const model = regulatorModel(regulator);
  const stacked = facts.railPeaks;
  const low = 1 - mains.lowPct / 100;
  const reg =
    transformer.regulationPct === null ? typicalRegulation(transformer.ratedVA) : transformer.regulationPct / 100;
  const loadedPeak = stacked * (Math.SQRT2 * transformer.ratedV * low * (1 + 0.1 * reg) - 0.95 * facts.diodesInPath);
  const idlePeak = stacked * Math.SQRT2 * transformer.ratedV * (1 + reg) * (1 + mains.highPct / 100);
  const ripple =
    (0.75 * demand.outputA) /
    ((facts.fullWave[0] ? 2 : 1) * mains.frequencyHz * 0.64 * Math.max(bankF(reservoir), 1e-9));
  const needed = model ? model.outputV + dropoutAt(model, demand.outputA) : windowOf(demand).lowV;
  const short = Math.max(0, (needed - (loadedPeak - ripple)) / needed);
  const over = model ? Math.max(0, idlePeak / model.inputMaxV - 1) : 0;
  const canOver = Math.max(0, idlePeak / (0.87 * facts.railPerCan * bankRatedV(reservoir)) - 1);
  const windingOver = Math.max(0, (1.8 * demand.outputA * transformer.ratedV) / transformer.ratedVA - 1);
  return 1 + 20 * short + 20 * over + 10 * canOver + 3 * windingOver;
}
