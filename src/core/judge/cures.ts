import { ofDiodeClass } from '@/core/design/diode-edit';
import { sharingOhm } from '@/core/design/regulator-edit';
import { withTransformerSize, withWindingVolts } from '@/core/design/winding-edit';
import { mainModel } from '@/core/design/outputs';
import { arrangementFacts, arrangementOf, dcSourceOf, hasDiodes } from '@/core/design/source';
import type { Design, Edit } from '@/core/design/design';
import { factsOf, type ArrangementFacts } from '@/core/parts/arrangement-facts';
import { ARRANGEMENTS, RECTIFIER_KINDS } from '@/core/parts/arrangements';
import type { DcSource } from '@/core/parts/dc-source';
import { DIODE_CLASSES, diodeClass, JUNCTION_CLASSES } from '@/core/parts/diode';
import { STANDARD_SINKS_K_PER_W } from '@/core/parts/heatsink';
import { dropoutAt } from '@/core/parts/regulators/model';
import { shortName } from '@/core/parts/regulators/pass-stage';
import { PASS_TRANSISTORS } from '@/core/parts/transistor';
import { STANDARD_SECONDARY_V, STANDARD_VA } from '@/core/parts/transformer';
import { typicalEsr, typicalRippleRating } from '@/core/parts/capacitor';
import { formatNominal, formatQuantity } from '@/core/quantity/format';
import { CAPACITOR_VOLTS, E12, E24, E6, nearestInDecades, stepInDecades, stepInList } from '@/core/quantity/preferred';

/** Edits the rules draw their cures from: one step or a few along what can be bought. */

/** A bigger reservoir. Given ESR and ripple rating belong to the old can and go back to typical. */
export function biggerReservoir(design: Design, steps: readonly number[]): Edit[] {
  const now = design.reservoir.capacitanceF > 0 ? design.reservoir.capacitanceF : 100e-6;
  return steps.map((n) => {
    const capacitanceF = stepInDecades(now, E6, n);
    return {
      label: `Reservoir ${formatNominal(capacitanceF, 'F')}`,
      patch: { reservoir: { capacitanceF, esrOhm: null, rippleA: null } },
    };
  });
}

export function reservoirVolts(design: Design, steps: readonly number[]): Edit[] {
  return distinct(
    steps.map((n) => stepInList(design.reservoir.ratedV, CAPACITOR_VOLTS, n)),
    design.reservoir.ratedV,
  ).map((ratedV) => ({
    label: `Reservoir rated ${formatNominal(ratedV, 'V')}`,
    patch: { reservoir: { ratedV, esrOhm: null, rippleA: null } },
  }));
}

/** A low-impedance can of the same value: half the ESR and half as much ripple again, the usual step between grades. */
export function betterGrade(design: Design): Edit[] {
  const { capacitanceF, ratedV } = design.reservoir;
  return [
    {
      label: 'Low-impedance can',
      patch: {
        reservoir: {
          esrOhm: round(0.5 * typicalEsr(capacitanceF, ratedV)),
          rippleA: round(1.5 * typicalRippleRating(capacitanceF, ratedV)),
        },
      },
    },
  ];
}

/** More volts from what feeds it, or fewer: the next standard winding, or a source of the next size. */
export function windingVolts(design: Design, steps: readonly number[]): Edit[] {
  const dc = dcSourceOf(design);
  if (dc) return sourceVolts(dc, steps);
  return distinct(
    steps.map((n) => stepInList(design.transformer.ratedV, STANDARD_SECONDARY_V, n)),
    design.transformer.ratedV,
  ).map((ratedV) => ({ label: `Winding ${formatNominal(ratedV, 'V')}`, patch: withWindingVolts(design, ratedV) }));
}

/** Cells in series, or adapters as sold. */
function sourceVolts(dc: DcSource, steps: readonly number[]): Edit[] {
  if (dc.kind === 'adapter') {
    return distinct(
      steps.map((n) => stepInList(dc.ratedV, ADAPTER_VOLTS, n)),
      dc.ratedV,
    ).map((ratedV) => ({ label: `Adapter of ${formatNominal(ratedV, 'V')}`, patch: { source: { ...dc, ratedV } } }));
  }
  // A cell gives about a volt and a half: a battery of one more or fewer, alike in everything else.
  const cells = Math.max(1, Math.round(dc.freshV / 1.6));
  return distinct(
    steps.map((n) => Math.max(1, cells + 2 * n)),
    cells,
  ).map((next) => {
    const times = next / cells;
    const freshV = round(dc.freshV * times);
    return {
      label: `Battery of ${formatNominal(freshV, 'V')} fresh`,
      patch: {
        source: {
          ...dc,
          freshV,
          emptyV: round(dc.emptyV * times),
          resistanceOhm: round(dc.resistanceOhm * times),
        },
      },
    };
  });
}

const ADAPTER_VOLTS: readonly number[] = [3, 4.5, 5, 6, 7.5, 9, 12, 15, 18, 19, 24, 30, 36, 48];

/** A bigger core. A given regulation belongs to the old one and goes back to typical. */
export function transformerSize(design: Design, steps: readonly number[]): Edit[] {
  if (dcSourceOf(design)) return [];
  return distinct(
    steps.map((n) => stepInList(design.transformer.ratedVA, STANDARD_VA, n)),
    design.transformer.ratedVA,
  ).map((ratedVA) => ({
    label: `Transformer ${formatNominal(ratedVA, 'VA')}`,
    patch: withTransformerSize(ratedVA),
  }));
}

/** Other diodes; valves only in the place of valves. */
export function otherDiodes(design: Design): Edit[] {
  if (!hasDiodes(design)) return [];
  const valves = diodeClass(design.rectifier.diode).technology === 'valve';
  return (valves ? DIODE_CLASSES : JUNCTION_CLASSES)
    .filter((d) => d.id !== design.rectifier.diode)
    .map((d) => ({
      label: d.name,
      patch: { rectifier: ofDiodeClass(d.id) },
    }));
}

/** Arrangements of as many rails at as many peaks, from as many windings where `same` says so. */
function kindsLike(design: Design, same: boolean, wanted: (facts: ArrangementFacts) => boolean): Edit[] {
  if (dcSourceOf(design)) return [];
  const now = arrangementOf(design);
  const facts = arrangementFacts(design);
  return RECTIFIER_KINDS.filter((kind) => {
    const other = ARRANGEMENTS[kind];
    const found = factsOf(other);
    return (
      kind !== design.rectifier.kind &&
      other.rails === now.rails &&
      found.railPeaks === facts.railPeaks &&
      found.diodesInPath <= 2 &&
      (!same || other.ratios.length === now.ratios.length) &&
      wanted(found)
    );
  }).map((kind) => ({ label: `${ARRANGEMENTS[kind].words.name} rectifier`, patch: { rectifier: { kind } } }));
}

/** Both half waves, from the winding there is. */
export function fullWave(design: Design): Edit[] {
  if (arrangementFacts(design).fullWave.every(Boolean)) return [];
  return kindsLike(design, true, (f) => f.fullWave.every(Boolean));
}

/** Arrangements that leave no direct current in the core. */
export function balancedKinds(design: Design): Edit[] {
  return kindsLike(design, false, (f) => f.bias.every((b) => b === 0));
}

export function sinks(design: Design, steps: readonly number[]): Edit[] {
  const list = [...STANDARD_SINKS_K_PER_W].reverse();
  const now = design.heat.sinkKPerW;
  const wanted =
    now === null
      ? [20, 10, 5, 2.7]
      : distinct(
          steps.map((n) => stepInList(now, list, -n)),
          now,
        );
  return wanted.map((sinkKPerW) => ({
    label: `Heatsink ${formatNominal(sinkKPerW, 'K/W')}`,
    patch: { heat: { sinkKPerW } },
  }));
}

/** More pass transistors side by side, with resistors that make them share. */
export function morePasses(design: Design, more: readonly number[]): Edit[] {
  const { regulator } = design;
  if (!('passes' in regulator)) return [];
  return more.map((n) => {
    const passes = regulator.passes + n;
    const emitterOhm = Math.max(regulator.emitterOhm, sharingOhm(design, passes));
    return { label: `${passes} pass transistors`, patch: { regulator: { ...regulator, passes, emitterOhm } } };
  });
}

/** Emitter resistors that make the transistors there are share. */
export function emitterResistors(design: Design): Edit[] {
  const { regulator } = design;
  if (!('passes' in regulator) || regulator.passes < 2) return [];
  const emitterOhm = sharingOhm(design, regulator.passes);
  if (emitterOhm <= regulator.emitterOhm) return [];
  return [
    {
      label: `Emitter resistors of ${formatNominal(emitterOhm, 'ohm')}`,
      patch: { regulator: { ...regulator, emitterOhm } },
    },
  ];
}

/** A current limit a little above the load, where there is none or it lies far above. */
export function limiting(design: Design): Edit[] {
  const { regulator, demand } = design;
  if (!('limitOhm' in regulator)) return [];
  const limitOhm = nearestInDecades(0.65 / (1.2 * demand.outputA), E12);
  if (regulator.limitOhm !== null && regulator.limitOhm >= limitOhm) return [];
  return [
    { label: `Limit at ${formatQuantity(0.65 / limitOhm, 'A', 2)}`, patch: { regulator: { ...regulator, limitOhm } } },
  ];
}

/** A zener that bears more. */
export function zenerWatts(design: Design): Edit[] {
  const { regulator } = design;
  if (regulator.kind !== 'follower') return [];
  return [1.3, 5, 10, 20]
    .filter((w) => w > regulator.zenerW)
    .map((zenerW) => ({
      label: `Zener of ${formatNominal(zenerW, 'W')}`,
      patch: { regulator: { ...regulator, zenerW } },
    }));
}

/** A larger resistor to zener or bases: less current wherever the load takes little of it. */
export function seriesResistors(design: Design): Edit[] {
  const { regulator } = design;
  const grown = (ohm: number) => [2, 4, 8].map((n) => stepInDecades(ohm, E12, n));
  if (regulator.kind === 'follower')
    return grown(regulator.seriesOhm).map((seriesOhm) => ({
      label: `Series resistor ${formatNominal(seriesOhm, 'ohm')}`,
      patch: { regulator: { ...regulator, seriesOhm } },
    }));
  if (regulator.kind === 'error-transistor')
    return grown(regulator.driveOhm).map((driveOhm) => ({
      label: `Drive resistor ${formatNominal(driveOhm, 'ohm')}`,
      patch: { regulator: { ...regulator, driveOhm } },
    }));
  return [];
}

/** The ADJ pin held still by 10 µF. */
export function adjCapacitor({ regulator }: Design): Edit[] {
  if (regulator.kind !== 'adjustable' || regulator.adjCapacitor) return [];
  return [{ label: '10 µF at ADJ', patch: { regulator: { ...regulator, adjCapacitor: true } } }];
}

/** Op-amps fed from a rail of their own, so that the raw one may stand above what they bear. */
export function opampRail({ regulator }: Design): Edit[] {
  if (regulator.kind !== 'bench' || regulator.opampRail === 'own') return [];
  return [{ label: 'Op-amps on a rail of their own', patch: { regulator: { ...regulator, opampRail: 'own' } } }];
}

/** A follower behind a zener ahead of a part that bears too little. */
export function zenerAhead(design: Design): Edit[] {
  const model = mainModel(design);
  const { regulator, preRegulator, demand } = design;
  if (
    !model ||
    preRegulator.kind !== 'none' ||
    (regulator.kind !== 'fixed' && regulator.kind !== 'low-dropout' && regulator.kind !== 'adjustable')
  )
    return [];
  const transistor = PASS_TRANSISTORS.find((t) => 0.7 * t.maxA >= demand.outputA && t.id !== 'bd139');
  const holds = model.outputV + dropoutAt(model, demand.outputA) + 2;
  if (!transistor || holds + transistor.vbe > 0.95 * model.inputMaxV) return [];
  const zenerV = nearestInDecades(holds + transistor.vbe, E24);
  const seriesOhm = nearestInDecades(3 / (0.004 + demand.outputA / transistor.gain), E12);
  return [
    {
      label: `A ${formatNominal(zenerV, 'V')} zener and ${shortName(transistor)} ahead of it`,
      patch: { preRegulator: { kind: 'zener', zenerV, seriesOhm, transistor: transistor.id } },
    },
  ];
}

/** A stronger transistor ahead of the regulator. */
export function otherAhead({ preRegulator }: Design): Edit[] {
  if (!('transistor' in preRegulator)) return [];
  return PASS_TRANSISTORS.filter((t) => t.id !== preRegulator.transistor).map((t) => ({
    label: `Ahead of it: ${t.name}`,
    patch: { preRegulator: { ...preRegulator, transistor: t.id } },
  }));
}

/** A heatsink or the chassis for the rectifier, its own or the regulator's. */
export function rectifierSinks({ heat, regulator }: Design): Edit[] {
  const now = heat.rectifierSinkKPerW ?? Infinity;
  return [
    ...[15, 8, 4, 2.2]
      .filter((k) => k < now)
      .map((rectifierSinkKPerW) => ({
        label: `Rectifier on a sink of ${formatNominal(rectifierSinkKPerW, 'K/W')}`,
        patch: { heat: { rectifierSinkKPerW, sharedWithRectifier: false } },
      })),
    ...(heat.sharedWithRectifier || heat.sinkKPerW === null || regulator.kind === 'none'
      ? []
      : [{ label: 'Rectifier on the regulator’s sink', patch: { heat: { sharedWithRectifier: true } } }]),
  ];
}

export function largerChoke(design: Design, steps: readonly number[]): Edit[] {
  return steps.map((n) => {
    const before = design.filter.before.map((s) =>
      s.kind === 'choke' ? { ...s, inductanceH: stepInDecades(s.inductanceH, E12, n) } : s,
    );
    const choke = before.find((s) => s.kind === 'choke');
    return {
      label: `Choke ${choke?.kind === 'choke' ? formatNominal(choke.inductanceH, 'H') : ''}`,
      patch: { filter: { before } },
    };
  });
}

/** A bleeder that carries the critical current by itself, or one step short of it. */
export function heavierBleeder(design: Design): Edit[] {
  const choke = design.filter.before.find((s) => s.kind === 'choke');
  if (choke?.kind !== 'choke') return [];
  const ohm = 3 * 2 * Math.PI * design.mains.frequencyHz * choke.inductanceH;
  return [0.75, 1.3]
    .map((share) => nearestInDecades(share * ohm, E12))
    .filter((value) => design.filter.bleederOhm === null || value < design.filter.bleederOhm)
    .map((bleederOhm) => ({
      label: `Bleeder ${formatNominal(bleederOhm, 'ohm')}`,
      patch: { filter: { bleederOhm } },
    }));
}

/** A fan over the sink, always on or by temperature. */
export function fans(design: Design): Edit[] {
  if (design.heat.fan !== 'none' || design.heat.sinkKPerW === null) return [];
  return [{ label: 'Fan over the sink', patch: { heat: { fan: 'switched' } } }];
}

function distinct(values: number[], except: number): number[] {
  return [...new Set(values)].filter((v) => Math.abs(v - except) > 1e-9);
}

function round(value: number): number {
  return Number(value.toPrecision(3));
}
