import { dcSourceOf, hasDiodes } from '@/core/design/source';
import { placedParts } from '@/core/circuit/filter-of';
import { type ConditionId } from '@/core/circuit/condition';
import { applyPatch, type Design, type Patch } from '@/core/design/design';
import { typicalEsr, typicalRippleRating } from '@/core/parts/capacitor';
import { diodeOf } from '@/core/parts/diode';
import { TOUCH_LIMIT_C } from '@/core/parts/heatsink';
import { regulatorModel } from '@/core/parts/regulators';
import type { LowDropoutRegulator } from '@/core/parts/regulators/low-dropout';
import { STANDARD_SECONDARY_V } from '@/core/parts/transformer';
import { outputName } from '@/core/design/words';
import { formatNominal } from '@/core/quantity/format';
import { E12, nearestInDecades, stepInList } from '@/core/quantity/preferred';
import { withWindingVolts } from '@/core/design/winding-edit';
import { SolveError } from '@/core/solve/solve-error';
import { canLife } from './can-choice';
import { copperHeat, type CopperHeat } from './copper-heat';
import { asMain } from './further-outputs';
import { insideAir, type RegulatorHeat } from './heat';
import { lossesOf, type Losses } from './losses';
import { neededV, operatingPoint } from './operating-point';
import { studyDesign } from './study';
import { DIODE_MAX_C, DIODE_TO_SINK_K_PER_W, diodeKPerW, NO_REST_C, WINDING_MAX_C } from './warmth';

/** The corners heat is looked at in. */
export const HEAT_CORNERS = ['low', 'nominal', 'high', 'lowest', 'shorted'] as const satisfies readonly ConditionId[];
export type HeatCorner = (typeof HEAT_CORNERS)[number];

/** One step of the way heat takes out of a part, from the room inwards. */
export interface Step {
  name: string;
  tempC: number;
}

/** One part that burns watts: the temperatures on the way from the room to its hottest spot. */
export interface HeatRow {
  id: 'regulator' | `output-${number}` | 'rectifier' | 'winding' | 'reservoir' | `filter-${number}`;
  name: string;
  watts: number;
  steps: Step[];
  limitC: number;
  limitSource: string;
  /** Which step a finger could reach, if any. */
  touch: number | null;
  note: string;
}

export interface HeatView {
  corner: HeatCorner;
  /** Minutes since it was switched on warm-load; null for the end. */
  minutes: number | null;
  roomC: number;
  insideC: number;
  losses: Losses;
  rows: HeatRow[];
  settled: boolean;
}

/** Grade taken for the reservoir: the usual one. */
const GRADE = { hours: 2000, gradeC: 105 };

/** Time constants, s: a box of air and tin, and a winding by its size. */
const BOX_S = 2400;
const windingS = (ratedVA: number) => 3000 * (ratedVA / 100) ** 0.25;
/** A sink's own: its resistance times the heat in an aluminium plate of that resistance, 2 mm thick. */
const sinkS = (kPerW: number) => kPerW * 0.486 * (50 / kPerW) ** 2;

const arrived = (minutes: number | null, tauS: number) => (minutes === null ? 1 : 1 - Math.exp((-60 * minutes) / tauS));

/** The heat of one corner, steady or some minutes after cold. @throws SolveError when that corner does not converge */
export function heatView(design: Design, corner: HeatCorner, minutes: number | null): HeatView | null {
  const model = regulatorModel(design.regulator);
  if ((corner === 'lowest' || corner === 'shorted') && !model) return null;
  const point = operatingPoint(design, corner);
  const { heat } = design;
  const losses = lossesOf(design, point.watts);
  const roomC = heat.ambientC;
  const endC = insideAir(design, losses.insideW);
  const insideC = roomC + (endC - roomC) * arrived(minutes, BOX_S);
  const rows: HeatRow[] = [];
  const air = (): Step[] => [
    { name: 'room', tempC: roomC },
    ...(heat.box === 'open' ? [] : [{ name: 'inside air', tempC: insideC }]),
  ];

  if (model && point.heat) {
    const name = model.pass.count > 1 ? `Regulator, ${model.pass.count} in parallel` : 'Regulator';
    const { heat: warmth, watts } = point;
    rows.push(regulatorRow(design, { id: 'regulator', name, watts: watts.regulator, warmth }, minutes, insideC, air()));
  }
  point.outputs.forEach((o, n) => {
    const of = asMain(design, design.outputs[n]!);
    const row = { id: `output-${n}` as const, name: outputName(design.outputs[n]!, n), watts: o.regulatorW };
    if (o.heat) rows.push(regulatorRow(of, { ...row, warmth: o.heat }, minutes, insideC, air()));
  });

  const dc = dcSourceOf(design) !== null;
  const diode = diodeOf(design.rectifier);
  const diodeW = Math.max(...point.solution.diodes.map((d) => d.meanW));
  const onSink =
    heat.sharedWithRectifier && rows.find((r) => r.id === 'regulator')?.steps.find((s) => s.name === 'sink');
  if (hasDiodes(design))
    rows.push({
      id: 'rectifier',
      name: dc ? 'Reverse diode' : 'Rectifier',
      watts: losses.rectifierW,
      steps: onSink
        ? [
            ...air(),
            { name: 'sink', tempC: onSink.tempC },
            { name: 'junction', tempC: onSink.tempC + diodeW * DIODE_TO_SINK_K_PER_W },
          ]
        : [
            ...air(),
            { name: 'junction', tempC: insideC + diodeW * diodeKPerW(diode.averageA) * arrived(minutes, 120) },
          ],
      limitC: DIODE_MAX_C[diode.technology],
      limitSource: `Junction of a ${diode.technology} rectifier; typical.`,
      touch: null,
      note: onSink ? 'on the same sink' : 'in free air, each diode; typical for its size',
    });

  const copper = dc ? null : copperHeat(design, point, point.warmth.copperC);
  if (copper) rows.push(transformerRow(design, copper, losses, air(), insideC, minutes));

  if (point.can && design.reservoir.capacitanceF > 0) {
    const { capacitanceF, ratedV, rippleA, cans } = design.reservoir;
    const rated = rippleA ?? typicalRippleRating(capacitanceF, ratedV);
    const life = canLife(GRADE, insideC, point.can.rmsA / cans / rated);
    rows.push({
      id: 'reservoir',
      name: 'Reservoir',
      watts: losses.filterW,
      steps: [...air(), { name: 'core', tempC: life.coreC }],
      limitC: GRADE.gradeC,
      limitSource: '105 °C grade, 2000 hours at it.',
      touch: null,
      note: `lasts ${lifeWords(life.hours)} of running by the ten-kelvin rule`,
    });
  }
  placedParts(design).forEach(({ part, at }, n) => {
    const element = point.solution.elements[0]![at];
    if (part.kind !== 'capacitor' || !element) return;
    const rated = typicalRippleRating(part.capacitanceF, part.ratedV);
    const life = canLife(GRADE, insideC, element.rmsA / rated);
    rows.push({
      id: `filter-${n}`,
      name: `Filter capacitor ${formatNominal(part.capacitanceF, 'F')}`,
      watts: element.rmsA ** 2 * typicalEsr(part.capacitanceF, part.ratedV),
      steps: [...air(), { name: 'core', tempC: life.coreC }],
      limitC: GRADE.gradeC,
      limitSource: '105 °C grade, 2000 hours at it.',
      touch: null,
      note: `lasts ${lifeWords(life.hours)} of running by the ten-kelvin rule`,
    });
  });
  return { corner, minutes, roomC, insideC, losses, rows, settled: point.settled && (copper?.settles ?? true) };
}

function transformerRow(
  design: Design,
  copper: CopperHeat,
  losses: Losses,
  air: Step[],
  insideC: number,
  minutes: number | null,
): HeatRow {
  const copperC = copper.settles
    ? insideC +
      (Math.min(copper.copperC, NO_REST_C) - copper.airC) * arrived(minutes, windingS(design.transformer.ratedVA))
    : NO_REST_C;
  return {
    id: 'winding',
    name: 'Transformer',
    watts: losses.copperW + losses.ironW,
    steps: [...air, { name: 'winding', tempC: copperC }],
    limitC: WINDING_MAX_C,
    limitSource: 'Insulation class A.',
    touch: null,
    note: copper.settles
      ? `${formatNominal(Number(losses.ironW.toPrecision(2)), 'W')} of it in the iron, typical`
      : 'does not come to rest',
  };
}

/** One regulator of a design whose main one it is, or is looked at as. */
function regulatorRow(
  design: Design,
  part: { id: HeatRow['id']; name: string; watts: number; warmth: RegulatorHeat },
  minutes: number | null,
  insideC: number,
  air: Step[],
): HeatRow {
  const model = regulatorModel(design.regulator)!;
  const { chain, airC, sinkC, junctionC } = part.warmth;
  const { heat } = design;
  const outside = heat.sinkOutside && heat.box !== 'open' && chain.length > 1;
  const from = outside ? heat.ambientC : insideC;
  const own = arrived(minutes, chain.length > 1 ? sinkS(heat.sinkKPerW!) : 60);
  const sinkNow = from + (sinkC - airC) * own;
  // The junction follows its case within seconds.
  const junctionNow = sinkNow + (junctionC - sinkC) * (minutes === null || minutes > 0 ? 1 : 0);
  return {
    id: part.id,
    name: part.name,
    watts: part.watts,
    steps: [
      ...(outside ? air.slice(0, 1) : air),
      { name: chain.length > 1 ? 'sink' : 'case', tempC: sinkNow },
      { name: 'junction', tempC: junctionNow },
    ],
    limitC: model.pass.junctionMaxC,
    limitSource: 'Highest junction temperature of the class.',
    touch: outside ? 1 : air.length,
    note: chain.map((c) => `${c.label} ${formatNominal(Number(c.kPerW.toPrecision(2)), 'K/W')}`).join(', '),
  };
}

/** What a finger says of a surface. */
export function touchWords(tempC: number): string {
  return tempC > TOUCH_LIMIT_C
    ? 'burns a finger'
    : tempC > 48
      ? 'hot, cannot be held for long'
      : tempC > 40
        ? 'lukewarm'
        : 'cool';
}

function lifeWords(hours: number): string {
  const years = hours / 8766;
  if (years > 30) return 'more than 30 years';
  const short = years > 0.3 ? `${years.toFixed(years > 2 ? 0 : 1)} years` : `${(hours / 730).toFixed(1)} months`;
  return `about ${short}`;
}

/**
 * The lasting current at which the junction reaches its limit, A; null where it never does up to five times the load. An
 * adjustable supply is taken at its lowest output, without its own current limit.
 */
export function selfLimit(design: Design): { amps: number | null; limitC: number } | null {
  const model = regulatorModel(design.regulator);
  if (!model) return null;
  const limitC = model.pass.junctionMaxC;
  const junction = (amps: number): number => {
    const { regulator } = design;
    try {
      const asked = applyPatch(design, {
        demand: { outputA: amps, typicalA: null },
        ...(regulator.kind === 'bench' ? { regulator: { ...regulator, limitA: amps } } : {}),
      });
      return operatingPoint(asked, model.lowestV < model.outputV - 0.01 ? 'lowest' : 'high').heat!.junctionC;
    } catch (error) {
      if (error instanceof SolveError) return Infinity;
      throw error;
    }
  };
  let low = 0.02 * design.demand.outputA;
  let high = 5 * design.demand.outputA;
  if (junction(low) > limitC) return { amps: 0, limitC };
  if (junction(high) <= limitC) return { amps: null, limitC };
  for (let round = 0; round < 9; round++) {
    const middle = Math.sqrt(low * high);
    if (junction(middle) > limitC) high = middle;
    else low = middle;
  }
  return { amps: low, limitC };
}

/** A way to make the regulator cooler, simulated. */
export interface CoolerWay {
  label: string;
  patch: Patch;
  junctionC: number;
  sinkC: number;
  headroomV: number;
  limitA: number | null;
}

/** More board copper under a small part that has no sink. */
function moreCopper(regulator: LowDropoutRegulator): { label: string; patch: Patch }[] {
  return [6, 12, 25]
    .filter((cm2) => cm2 > regulator.boardCm2)
    .map((boardCm2) => ({
      label: `${formatNominal(boardCm2, 'cm²')} of board copper`,
      patch: { regulator: { ...regulator, boardCm2 } },
    }));
}

/** What a lower tap, a dropper resistor, a lower input, a fan or another place for the sink would bring. */
export function coolerWays(design: Design): CoolerWay[] {
  const model = regulatorModel(design.regulator);
  if (!model) return [];
  const { heat, transformer, filter, demand } = design;
  const spare = Math.max(0, studyDesign(design).low.rail.minV - neededV(design)!);
  const dropper = nearestInDecades(Math.max(0.1, (0.8 * spare) / demand.outputA), E12);
  const tries: { label: string; patch: Patch }[] = [
    { label: 'as it is', patch: {} },
    ...(dcSourceOf(design)
      ? []
      : [-1, -2].map((n) => {
          const ratedV = stepInList(transformer.ratedV, STANDARD_SECONDARY_V, n);
          return { label: `winding or tap of ${formatNominal(ratedV, 'V')}`, patch: withWindingVolts(design, ratedV) };
        })),
    ...(model.pass.takesSink || design.regulator.kind !== 'low-dropout' ? [] : moreCopper(design.regulator)),
    {
      label: `dropper of ${formatNominal(dropper, 'ohm')} before it`,
      patch: { filter: { after: [...filter.after, { kind: 'resistor' as const, resistanceOhm: dropper }] } },
    },
    ...(heat.sinkKPerW === null || !model.pass.takesSink
      ? []
      : [
          ...(heat.fan === 'none'
            ? [{ label: 'a fan over the sink', patch: { heat: { fan: 'fixed' as const } } }]
            : [{ label: 'without the fan', patch: { heat: { fan: 'none' as const } } }]),
          ...(heat.box === 'open'
            ? []
            : [
                {
                  label: heat.sinkOutside ? 'sink inside the box' : 'sink outside the box',
                  patch: { heat: { sinkOutside: !heat.sinkOutside } },
                },
              ]),
        ]),
  ];
  return tries.flatMap(({ label, patch }) => {
    try {
      const changed = applyPatch(design, patch);
      const study = studyDesign(changed);
      const worst = study.lowest?.heat ? study.lowest : study.high;
      return [
        {
          label,
          patch,
          junctionC: worst.heat!.junctionC,
          sinkC: worst.heat!.sinkC,
          headroomV: study.low.rail.minV - neededV(changed)!,
          limitA: selfLimit(changed)?.amps ?? null,
        },
      ];
    } catch (error) {
      if (error instanceof SolveError) return [];
      throw error;
    }
  });
}
