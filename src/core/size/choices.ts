import { ofDiodeClass } from '@/core/design/diode-edit';
import { arrangementFacts, arrangementOf } from '@/core/design/source';
import { canHeight } from '@/core/study/can-choice';
import type { Design, Patch, Regulator } from '@/core/design/design';
import type { PartRole } from '@/core/design/kinds';
import { mainModel, outputModel, windowOf } from '@/core/design/outputs';
import { canCount } from '@/core/design/bank';
import { usesOf } from '@/core/drawer/fit';
import type { Part } from '@/core/drawer/part';
import { diodeCount } from '@/core/parts/arrangement';
import { typicalCapacitorPrice } from '@/core/parts/capacitor';
import { diodeClass, JUNCTION_CLASSES } from '@/core/parts/diode';
import { STANDARD_SINKS_K_PER_W, typicalSinkPrice } from '@/core/parts/heatsink';
import { STANDARD_SECONDARY_V, STANDARD_VA, typicalTransformerPrice } from '@/core/parts/transformer';
import { formatNominal } from '@/core/quantity/format';
import { E3, stepInDecades } from '@/core/quantity/preferred';
import { windingCount } from '@/core/design/words';

/** One part of a set: from the drawer, or a standard value to be bought. */
export interface SetPart {
  role: PartRole;
  name: string;
  priceEur: number;
  /** As its owner wrote it down, mm; null where nobody did. */
  heightMm: number | null;
  /** Null for a standard value. */
  partId: string | null;
}

/** One part of a candidate set. */
export interface Choice {
  patch: Patch;
  part: SetPart;
  toPayEur: number;
  heightMm: number;
}

export function fromStock(design: Design, stock: readonly Part[], role: PartRole): Choice[] {
  return stock.flatMap((part) =>
    usesOf(part, design, role).map((use): Choice => ({
      patch: use.patch,
      part: {
        role,
        name: use.how ? `${part.name}, ${use.how}` : part.name,
        priceEur: (part.priceEur ?? 0) * use.pieces,
        heightMm: part.ratings['heightMm'] ?? null,
        partId: part.id,
      },
      toPayEur: 0,
      heightMm:
        part.ratings['heightMm'] ??
        (role === 'reservoir' ? canHeight(use.patch.reservoir!.capacitanceF!, use.patch.reservoir!.ratedV!) : 0),
    })),
  );
}

export function bought(role: PartRole, name: string, priceEur: number, patch: Patch, heightMm = 0): Choice {
  return { patch, part: { role, name, priceEur, heightMm: null, partId: null }, toPayEur: priceEur, heightMm };
}

export function standardTransformers(design: Design): Choice[] {
  const { outputV, outputA } = design.demand;
  const halves = windingCount(design);
  return STANDARD_SECONDARY_V.filter((v) => v > 0.6 * outputV && v < 1.6 * outputV + 6).flatMap((ratedV) =>
    STANDARD_VA.filter((va) => va >= 1.2 * ratedV * outputA && va <= 4.5 * ratedV * outputA)
      .slice(0, 4)
      .map((ratedVA) =>
        bought(
          'transformer',
          `${halves === 2 ? '2 × ' : ''}${formatNominal(ratedV, 'V')} ${formatNominal(ratedVA, 'VA')}`,
          typicalTransformerPrice(ratedVA, halves),
          { transformer: { ratedV, ratedVA, regulationPct: null, source: { kind: 'plate' } } },
        ),
      ),
  );
}

export function standardCans(design: Design, canV: number): Choice[] {
  const { demand, mains } = design;
  const first = demand.outputA / (2 * mains.frequencyHz * Math.max(0.35 * demand.outputV, 1));
  const pieces = arrangementFacts(design).cans;
  let capacitanceF = stepInDecades(Math.min(0.05, Math.max(10e-6, first)), E3, -1);
  const out: Choice[] = [];
  for (let n = 0; n < 5; n++) {
    for (const cans of [1, 2]) {
      const reservoir = { cans, pair: false, capacitanceF, ratedV: canV, esrOhm: null, rippleA: null };
      out.push(
        bought(
          'reservoir',
          `${cans > 1 ? `${cans} × ` : ''}${formatNominal(capacitanceF, 'F')} ${formatNominal(canV, 'V')}`,
          pieces * canCount({ ...design.reservoir, ...reservoir }) * typicalCapacitorPrice(capacitanceF, canV),
          { reservoir },
          canHeight(capacitanceF, canV),
        ),
      );
    }
    capacitanceF = stepInDecades(capacitanceF, E3, 1);
  }
  return out;
}

/** Ready-made regulators as choices, each with its twin on a split supply. */
export function standardRegulators(design: Design, choices: readonly Regulator[]): Choice[] {
  return choices.flatMap((regulator) => {
    const model = outputModel({ regulator, regulatorSheet: null, demand: design.demand });
    return model ? [bought('regulator', model.name, model.priceEur * arrangementOf(design).rails, { regulator })] : [];
  });
}

/** The part a design has already and keeps: nothing to pay, nothing to change. */
export function asItIs(design: Design, role: PartRole): Choice {
  const name =
    role === 'regulator'
      ? (mainModel(design)?.name ?? 'no regulator')
      : role === 'sink'
        ? 'its heatsink'
        : `its ${role}`;
  return {
    patch: {},
    part: { role, name: `${name}, as it is`, priceEur: 0, heightMm: null, partId: null },
    toPayEur: 0,
    heightMm: 0,
  };
}

export function standardDiodes(design: Design): Choice[] {
  const pieces = diodeCount(arrangementOf(design));
  return JUNCTION_CLASSES.map((d) =>
    bought('rectifier', d.name, pieces * d.priceEur, { rectifier: ofDiodeClass(d.id) }),
  );
}

export function standardSinks(): Choice[] {
  return STANDARD_SINKS_K_PER_W.map((k) =>
    bought('sink', formatNominal(k, 'K/W'), typicalSinkPrice(k), { heat: { sinkKPerW: k } }),
  );
}

/** Whether a regulator gives what is asked over its whole spread, and bears the load. */
export function fitsOutput(design: Design, { patch }: Choice): boolean {
  if (!patch.regulator) return false;
  const regulator = patch.regulator as Regulator;
  const model = outputModel({ regulator, regulatorSheet: null, demand: design.demand });
  if (!model || model.ratedA < design.demand.outputA) return false;
  const { lowV, highV } = windowOf(design.demand);
  return model.outputV * (1 - model.spread) >= lowV - 1e-9 && model.outputV * (1 + model.spread) <= highV + 1e-9;
}

export function plausibleVolts(design: Design, regulator: Choice, { patch }: Choice): boolean {
  const { outputV } = design.demand;
  const ratio = patch.transformer!.ratedV! / outputV;
  const kind = (regulator.patch.regulator ?? design.regulator).kind;
  return kind === 'none' ? ratio > 0.55 && ratio < 1.2 : ratio > 0.7 && ratio < 1.7 + 6 / outputV;
}

export function bearsLoad(design: Design, { patch }: Choice): boolean {
  const rectifier = { ...design.rectifier, ...patch.rectifier };
  const rated = rectifier.rated ?? diodeClass(rectifier.diode);
  return rated.averageA >= 0.5 * design.demand.outputA && rated.reverseV >= 2 * design.demand.outputV;
}

/** What is on hand before what has to be paid, cheap before dear. */
export function ordered(choices: Choice[]): Choice[] {
  return choices.sort((a, b) => a.toPayEur - b.toPayEur || a.part.priceEur - b.part.priceEur);
}
