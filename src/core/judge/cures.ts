import { withTransformerSize, withWindingVolts } from '@/core/design/winding-edit';
import { arrangementKind, dcSourceOf, hasDiodes } from '@/core/design/source';
import { outputName } from '@/core/design/words';
import type { Design, Edit } from '@/core/design/design';
import type { DcSource } from '@/core/parts/dc-source';
import { DIODE_CLASSES } from '@/core/parts/diode';
import { STANDARD_SINKS_K_PER_W } from '@/core/parts/heatsink';
import { regulatorModel } from '@/core/parts/regulators';
import { STANDARD_SECONDARY_V, STANDARD_VA } from '@/core/parts/transformer';
import { typicalEsr, typicalRippleRating } from '@/core/parts/capacitor';
import { formatNominal } from '@/core/quantity/format';
import { CAPACITOR_VOLTS, E6, stepInDecades, stepInList } from '@/core/quantity/preferred';

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

export function otherDiodes(design: Design): Edit[] {
  if (!hasDiodes(design)) return [];
  return DIODE_CLASSES.filter((d) => d.id !== design.rectifier.diode).map((d) => ({
    label: d.name,
    patch: { rectifier: { diode: d.id, rated: null } },
  }));
}

export function fullWave(design: Design): Edit[] {
  return arrangementKind(design) === 'half-wave'
    ? [{ label: 'Bridge rectifier', patch: { rectifier: { kind: 'bridge' } } }]
    : [];
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

/** Larger sinks for further outputs, each on its own. */
export function outputSinks(design: Design): Edit[] {
  const list = [...STANDARD_SINKS_K_PER_W].reverse();
  return design.outputs.flatMap((output, n) =>
    !regulatorModel(output.regulator).pass.takesSink
      ? []
      : (output.sinkKPerW === null ? [20, 10, 5] : [1, 2, 4].map((k) => stepInList(output.sinkKPerW!, list, -k))).map(
          (sinkKPerW) => ({
            label: `Heatsink ${formatNominal(sinkKPerW, 'K/W')}, ${outputName(output, n)}`,
            patch: { outputs: design.outputs.map((o, k) => (k === n ? { ...o, sinkKPerW } : o)) },
          }),
        ),
  );
}

/** More pass transistors side by side, where the regulator has any number of them. */
export function morePasses(design: Design, more: readonly number[]): Edit[] {
  const { regulator } = design;
  if (regulator.kind !== 'bench') return [];
  return more.map((n) => ({
    label: `${regulator.passes + n} pass transistors`,
    patch: { regulator: { ...regulator, passes: regulator.passes + n } },
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
