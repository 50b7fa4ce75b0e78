import { BOX_S, arrived, sinkS, windingS } from './time-constants';
import { conditionsOf, type ConditionId } from '@/core/circuit/condition';
import { esrOf, placedParts } from '@/core/circuit/filter-of';
import { applyPatch, type Design, type OutputId, type Patch } from '@/core/design/design';
import { mainModel, outputModel, outputsOf } from '@/core/design/outputs';
import { dcSourceOf, hasDiodes } from '@/core/design/source';
import { withWindingVolts } from '@/core/design/winding-edit';
import { typicalEsr, typicalRippleRating } from '@/core/parts/capacitor';
import { DIODE_MAX_C, diodeOf } from '@/core/parts/diode';
import type { LowDropoutRegulator } from '@/core/parts/regulators/low-dropout';
import type { RegulatorModel } from '@/core/parts/regulators/model';
import { STANDARD_SECONDARY_V } from '@/core/parts/transformer';
import { formatNominal } from '@/core/quantity/format';
import { E12, nearestInDecades, stepInList } from '@/core/quantity/preferred';
import { SolveError } from '@/core/solve/solve-error';
import { canLife, GRADE_HOURS } from './can-choice';
import { copperHeat, type CopperHeat } from './copper-heat';
import { insideAir, type RegulatorHeat } from './heat';
import { lossesOf, type Losses } from './losses';
import { LASTING } from './occasion';
import { neededV, type OperatingPoint } from './point';
import { operatingPoint } from './operating-point';
import { studyDesign } from './study';
import { NO_REST_C, WINDING_MAX_C, diodeHeat } from './warmth';

/** One step of the way heat takes out of a part, from the room inwards. */
export interface Step {
  name: string;
  tempC: number;
}

/** One part that burns watts: the temperatures on the way from the room to its hottest spot. */
export interface HeatRow {
  id: OutputId | 'rectifier' | 'winding' | 'reservoir' | `filter-${number}` | `small-${number}`;
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
  corner: ConditionId;
  /** Minutes since it was switched on warm-load; null for the end. */
  minutes: number | null;
  roomC: number;
  insideC: number;
  losses: Losses;
  rows: HeatRow[];
  settled: boolean;
}

/** The heat of one corner, steady or some minutes after cold. @throws SolveError when that corner does not converge */
export function heatView(design: Design, corner: ConditionId, minutes: number | null): HeatView | null {
  const condition = conditionsOf(design).find((c) => c.id === corner);
  if (!condition) return null;
  const point = operatingPoint(design, condition);
  const { heat } = design;
  const losses = lossesOf(design, point);
  const roomC = heat.ambientC;
  const endC = insideAir(design, losses.insideW);
  const insideC = roomC + (endC - roomC) * arrived(minutes, BOX_S);
  const air = (): Step[] => [
    { name: 'room', tempC: roomC },
    ...(heat.box === 'open' ? [] : [{ name: 'inside air', tempC: insideC }]),
  ];
  const rows: HeatRow[] = [
    ...regulatorRows(design, point, minutes, insideC, air),
    ...(hasDiodes(design) ? [rectifierRow(design, point, minutes, insideC, air)] : []),
  ];
  const copper = dcSourceOf(design) ? null : copperHeat(design, point, point.warmth.copperC);
  if (copper) rows.push(transformerRow(design, copper, losses, air(), insideC, minutes));
  rows.push(...canRows(design, point, insideC, air));
  const settled = point.settled && (copper?.settles ?? true);
  return { corner, minutes, roomC, insideC, losses, rows, settled };
}

/** Every output's regulator, each with its own watts and its own metal. */
function regulatorRows(
  design: Design,
  point: OperatingPoint,
  minutes: number | null,
  insideC: number,
  air: () => Step[],
): HeatRow[] {
  const outputs = outputsOf(design);
  const several = outputs.length > 1;
  return outputs.flatMap((output) => {
    const model = outputModel(output);
    const at = output.place < 0 ? point.rails[output.rail]! : point.outputs[output.place]!;
    if (!model || !at.heat) return [];
    const { fitted, count } = model.pass;
    const shared = fitted > 1 ? `, ${fitted} in parallel${count < fitted ? ', not sharing' : ''}` : '';
    const name = several ? `Regulator, ${output.name}${shared}` : `Regulator${shared}`;
    const ofIts = output.place < 0 ? design.heat.sinkKPerW : (output.sinkKPerW ?? design.heat.sinkKPerW);
    return [
      regulatorRow(
        design,
        model,
        { id: output.id, name, watts: at.regulatorW, warmth: at.heat, sinkKPerW: ofIts },
        minutes,
        insideC,
        air(),
      ),
    ];
  });
}

function rectifierRow(
  design: Design,
  point: OperatingPoint,
  minutes: number | null,
  insideC: number,
  air: () => Step[],
): HeatRow {
  const found = diodeHeat(design, point);
  const diode = diodeOf(design.rectifier);
  const dc = dcSourceOf(design) !== null;
  const tau = found.where === 'free air' ? 120 : sinkS(design.heat.rectifierSinkKPerW ?? design.heat.sinkKPerW ?? 5);
  // Air warms with the box, the body against that air, and the junction follows its body at once.
  const from = found.airC === insideAir(design, lossesOf(design, point).insideW) ? insideC : found.airC;
  const bodyC = from + (found.bodyC - found.airC) * arrived(minutes, tau);
  return {
    id: 'rectifier',
    name: dc ? 'Reverse diode' : 'Rectifier',
    watts: lossesOf(design, point).rectifierW,
    steps: [
      ...air(),
      { name: found.where === 'free air' ? 'body' : 'sink', tempC: bodyC },
      {
        name: diode.technology === 'valve' ? 'glass' : 'junction',
        tempC: bodyC + (found.junctionC - found.bodyC) * (minutes === 0 ? 0 : 1),
      },
    ],
    limitC: DIODE_MAX_C[diode.technology],
    limitSource:
      diode.technology === 'valve'
        ? 'Glass of a bulb; typical.'
        : `Junction of a ${diode.technology} rectifier; typical.`,
    touch: null,
    note:
      found.where === 'free air'
        ? `in free air${diode.housing === 'block' ? ', all in one block' : diode.housing === 'bulb' ? ', each bulb' : ', each diode'}; typical for its size`
        : `on ${found.where === 'its own sink' ? 'its own sink' : 'the regulator’s sink'}`,
  };
}

/** Reservoir and filter cans: what their ripple makes of the air they stand in, and how long they last in it. */
function canRows(design: Design, point: OperatingPoint, insideC: number, air: () => Step[]): HeatRow[] {
  const { capacitanceF, ratedV, rippleA, cans, gradeC } = design.reservoir;
  const row = (id: HeatRow['id'], name: string, watts: number, grade: 85 | 105, share: number): HeatRow => {
    const life = canLife({ hours: GRADE_HOURS, gradeC: grade }, insideC, share);
    return {
      id,
      name,
      watts,
      steps: [...air(), { name: 'core', tempC: life.coreC }],
      limitC: grade,
      limitSource: `${grade} °C grade, ${GRADE_HOURS} hours at it.`,
      touch: null,
      note: `lasts ${lifeWords(life.hours)} by the ten-kelvin rule`,
    };
  };
  const rows: HeatRow[] = [];
  if (point.can && capacitanceF > 0) {
    const rated = rippleA ?? typicalRippleRating(capacitanceF, ratedV);
    rows.push(
      row('reservoir', 'Reservoir', point.can.rmsA ** 2 * esrOf(design), gradeC, point.can.rmsA / cans / rated),
    );
  }
  placedParts(design).forEach(({ part, at }, n) => {
    const carried = point.solution.elements.map((rail) => rail[at]?.rmsA ?? 0);
    if (part.kind !== 'capacitor' || carried.length === 0) return;
    const rmsA = Math.max(...carried);
    const watts = rmsA ** 2 * typicalEsr(part.capacitanceF, part.ratedV);
    const share = rmsA / typicalRippleRating(part.capacitanceF, part.ratedV);
    rows.push(row(`filter-${n}`, `Filter capacitor ${formatNominal(part.capacitanceF, 'F')}`, watts, gradeC, share));
  });
  return rows;
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

/** One regulator on the way from the room to its junction. */
function regulatorRow(
  design: Design,
  model: RegulatorModel,
  part: { id: HeatRow['id']; name: string; watts: number; warmth: RegulatorHeat; sinkKPerW: number | null },
  minutes: number | null,
  insideC: number,
  air: Step[],
): HeatRow {
  const { chain, airC, sinkC, junctionC } = part.warmth;
  const { heat } = design;
  const outside = heat.sinkOutside && heat.box !== 'open' && chain.length > 1;
  const from = outside ? heat.ambientC : insideC;
  const own = arrived(minutes, chain.length > 1 ? sinkS(part.sinkKPerW!) : 60);
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

function lifeWords(hours: number): string {
  const years = hours / 8766;
  if (years > 30) return 'more than 30 years of running';
  const round = (x: number) => String(Number(x.toPrecision(x < 2 ? 2 : 1)));
  return years > 0.3 ? `about ${round(years)} years of running` : `about ${round(hours / 730)} months of running`;
}

/** Times the load that is looked at for the current that overheats a regulator, and how finely. */
const LIMIT_FROM = 0.02;

const LIMIT_UP_TO = 5;

const LIMIT_ROUNDS = 9;

/**
 * The lasting current at which the junction reaches its limit, A, in the circumstance that makes it hottest; null where
 * it never does with any current that can flow: up to the part's own limit, to where it drops out, or to five times the
 * load.
 */
export function selfLimit(design: Design): { amps: number | null; limitC: number } | null {
  const model = mainModel(design);
  if (!model) return null;
  const limitC = model.pass.junctionMaxC;
  const conditions = conditionsOf(design).filter((c) => c.id === 'high' || c.id === 'lowest:main');
  const at = (amps: number) => {
    try {
      const asked = applyPatch(design, { demand: { outputA: amps, typicalA: null, leastA: 0 } });
      const points = conditions.map((c) => operatingPoint(asked, c));
      return {
        junctionC: Math.max(...points.map((p) => p.heat!.junctionC)),
        held: points.every((p) => p.headroomV === null || p.headroomV >= 0),
      };
    } catch (error) {
      if (error instanceof SolveError) return { junctionC: Infinity, held: false };
      throw error;
    }
  };
  const low = LIMIT_FROM * design.demand.outputA;
  const top = Math.max(low, Math.min(LIMIT_UP_TO * design.demand.outputA, model.limitA));
  if (at(low).junctionC > limitC) return { amps: 0, limitC };
  const most = at(top).held ? top : lastOf(low, top, (amps) => at(amps).held);
  if (at(most).junctionC <= limitC) return { amps: null, limitC };
  return { amps: lastOf(low, most, (amps) => at(amps).junctionC <= limitC), limitC };
}

/** The last current from low towards high that something still holds for, found by halving the ratio. */
function lastOf(low: number, high: number, holds: (amps: number) => boolean): number {
  let from = low;
  let to = high;
  for (let round = 0; round < LIMIT_ROUNDS; round++) {
    const middle = Math.sqrt(from * to);
    if (holds(middle)) from = middle;
    else to = middle;
  }
  return from;
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
  const model = mainModel(design);
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
      const worst = study.conditions
        .filter(LASTING)
        .map((c) => study.at(c))
        .reduce((a, b) => (b.heat!.junctionC > a.heat!.junctionC ? b : a));
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
