import { startSurge } from '@/core/load/sums';
import { typicalEsr, typicalLeakage } from '@/core/parts/capacitor';
import { openVolts, sourceOhm, type DcSource } from '@/core/parts/dc-source';
import { diodeClass, lawAt } from '@/core/parts/diode';
import { regulatorModel } from '@/core/parts/regulators';
import { aheadModel } from '@/core/parts/regulators/ahead';
import { dropoutAt } from '@/core/parts/regulators/model';
import { copperRatio, type TransformerModel, type TransformerNameplate } from '@/core/parts/transformer';
import { modelFromSource } from '@/core/parts/transformer-source';
import type { Design, FilterStep, FurtherOutput, Heater } from '@/core/design/design';
import { ARRANGEMENTS } from '@/core/parts/arrangements';
import { arrangementKind, arrangementOf, dcSourceOf, hasDiodes, termsOf } from '@/core/design/source';
import { bankF, bankOhmFactor } from '@/core/design/bank';
import { SHORTED_OHM } from './assemble';
import type { AcLoad, FilterElement, Load, Network, Winding } from './network';

/** One set of circumstances a design may find itself in. */
export interface Condition {
  id: ConditionId;
  /** What it is besides its input, in words. */
  state: string;
  mains: 'low' | 'nominal' | 'high';
  /** 'full' is the most the load ever draws, 'lasting' what it draws on the average, 'none' a plug pulled. */
  load: LoadLevel;
  copper: 'hot' | 'cold';
  capacitor: 'new' | 'aged' | 'large';
  /** What the output is set to: its usual setting where left out, the bottom of its knob, or a short across it. */
  output?: 'lowest' | 'shorted';
  /** Which further output that is said of; the main one where left out. */
  further?: number;
}

export type LoadLevel = 'full' | 'lasting' | 'none';

export type ConditionId = 'low' | 'nominal' | 'high' | 'idle' | 'nominalIdle' | 'surge' | 'lowest' | 'shorted';

export const CONDITIONS: Readonly<Record<ConditionId, Condition>> = {
  low: {
    id: 'low',
    state: 'full load, aged reservoir',
    mains: 'low',
    load: 'full',
    copper: 'hot',
    capacitor: 'aged',
  },
  nominal: {
    id: 'nominal',
    state: 'full load',
    mains: 'nominal',
    load: 'full',
    copper: 'hot',
    capacitor: 'new',
  },
  high: {
    id: 'high',
    state: 'lasting load',
    mains: 'high',
    load: 'lasting',
    copper: 'hot',
    capacitor: 'new',
  },
  idle: { id: 'idle', state: 'no load', mains: 'high', load: 'none', copper: 'cold', capacitor: 'new' },
  nominalIdle: {
    id: 'nominalIdle',
    state: 'no load',
    mains: 'nominal',
    load: 'none',
    copper: 'cold',
    capacitor: 'new',
  },
  lowest: {
    id: 'lowest',
    state: 'lowest output, full current',
    mains: 'high',
    load: 'full',
    copper: 'hot',
    capacitor: 'new',
    output: 'lowest',
  },
  shorted: {
    id: 'shorted',
    state: 'output shorted',
    mains: 'high',
    load: 'full',
    copper: 'hot',
    capacitor: 'new',
    output: 'shorted',
  },
  surge: {
    id: 'surge',
    state: 'switched on at a voltage peak, cold copper',
    mains: 'high',
    load: 'full',
    copper: 'cold',
    capacitor: 'large',
  },
};

/** A condition in words, as a verdict says it: 'low line, full load, aged reservoir'. */
export function wordsOf(design: Pick<Design, 'source'>, at: ConditionId | Condition): string {
  const condition = typeof at === 'string' ? CONDITIONS[at] : at;
  const joined = condition.id === 'surge' && design.source.kind !== 'mains';
  return `${termsOf(design)[condition.mains]}, ${joined ? 'joined to an empty reservoir' : condition.state}`;
}

/** ESR grows as an electrolytic dries out; this factor is the usual end-of-life limit (IEC 60384-4). */
const AGED_ESR = 2;

/** What feeds a design at one end of its range or between: mains, V RMS, or the open-circuit volts of its DC source. */
export function mainsVolts(design: Design, level: Condition['mains']): number {
  const dc = dcSourceOf(design);
  if (dc) return openVolts(dc, level);
  const { voltageRms, lowPct, highPct } = design.mains;
  return voltageRms * (level === 'low' ? 1 - lowPct / 100 : level === 'high' ? 1 + highPct / 100 : 1);
}

/** What a nameplate says of the transformer of a design. */
export function plateOf({ transformer, rectifier }: Design): TransformerNameplate {
  return {
    ratedV: transformer.ratedV,
    ratedVA: transformer.ratedVA,
    regulation: transformer.regulationPct === null ? null : transformer.regulationPct / 100,
    halves: ARRANGEMENTS[rectifier.kind].ratios.length === 2 ? 2 : 1,
    hotC: transformer.hotC,
  };
}

/** The transformer of a design, whichever way it is known. */
export function modelOf(design: Design): TransformerModel {
  const { voltageRms, frequencyHz } = design.mains;
  return modelFromSource(plateOf(design), design.transformer.source, voltageRms, frequencyHz);
}

/** Reservoir capacitance left under a condition, F. */
export function capacitanceAt(design: Design, state: Condition['capacitor']): number {
  const { tolerancePct, agedPct } = design.reservoir;
  const capacitanceF = bankF(design.reservoir);
  if (state === 'aged') return capacitanceF * (1 - tolerancePct / 100) * (1 - agedPct / 100);
  if (state === 'large') return capacitanceF * (1 + tolerancePct / 100);
  return capacitanceF;
}

/** ESR of the new reservoir, ohm: as given for its cans, or typical for their size. */
export function esrOf(design: Design): number {
  const { capacitanceF, ratedV, esrOhm } = design.reservoir;
  return (esrOhm ?? typicalEsr(capacitanceF, ratedV)) * bankOhmFactor(design.reservoir);
}

/** Current asked of one rail, A. The usual load of the negative rail is taken as the same share of its full load. */
export function railAmps({ demand }: Design, level: LoadLevel, rail: number): number {
  if (level === 'none') return 0;
  const full = rail === 1 && demand.negativeA !== null ? demand.negativeA : demand.outputA;
  if (level === 'full' || demand.typicalA === null) return full;
  return (full * Math.min(demand.typicalA, demand.outputA)) / demand.outputA;
}

/**
 * What hangs on one rail (1: the negative one), the main load or regulator first, further regulators last. Without load
 * a regulator still draws its quiescent current, and the can leaks.
 */
export function loadsOf(
  design: Design,
  level: LoadLevel,
  rail = 0,
  how: Pick<Condition, 'output' | 'further'> & { junctionC?: number; dropoutFactor?: number } = {},
): Load[] {
  const { output, further, ...rest } = how;
  const main = mainLoads(design, level, rail, { ...rest, output: further === undefined ? output : undefined });
  if (rail !== 0) return main;
  return [
    ...main,
    ...design.outputs.map((o, n): Load => {
      const held = n === further && output ? heldAmps(o, output) : null;
      if (held === null) return outputLoad(o, level);
      // Whatever it is held at, what it draws from the rail is its current.
      return { kind: 'current', currentA: held + regulatorModel(o.regulator).quiescentA };
    }),
  ];
}

/** Current of a further output that is shorted, or at the bottom of its range, A. */
export function heldAmps({ regulator, currentA }: FurtherOutput, output: 'lowest' | 'shorted'): number {
  const { shortA, limitA } = regulatorModel(regulator);
  return output === 'shorted' ? shortA : Math.min(currentA, limitA);
}

/** A further regulator as a load of its rail, its dropout at a cold junction. */
export function outputLoad(output: FurtherOutput, level: LoadLevel): Extract<Load, { kind: 'regulator' }> {
  const model = regulatorModel(output.regulator);
  return {
    kind: 'regulator',
    outputV: model.outputV,
    dropoutV: dropoutAt(model, 0),
    dropoutOhm: model.dropoutOhm,
    currentA: level === 'none' ? 0 : output.currentA,
    quiescentA: model.quiescentA,
  };
}

function mainLoads(
  design: Design,
  level: LoadLevel,
  rail = 0,
  {
    output,
    junctionC = 25,
    dropoutFactor = 1,
  }: { output?: Condition['output']; junctionC?: number; dropoutFactor?: number } = {},
): Load[] {
  const { demand, regulator, reservoir } = design;
  const outputA = railAmps(design, level, rail);
  const leak: Load[] =
    reservoir.capacitanceF > 0
      ? [
          {
            kind: 'resistance',
            resistanceOhm:
              (bankOhmFactor(reservoir) * reservoir.ratedV) / typicalLeakage(reservoir.capacitanceF, reservoir.ratedV),
          },
        ]
      : [{ kind: 'resistance', resistanceOhm: 1e6 }];
  const model = regulatorModel(regulator);
  const ahead = model ? aheadModel(design.preRegulator) : null;
  if (model && output) {
    // Whatever it holds the output at, what it draws from the rail is its current.
    const amps = output === 'shorted' ? model.shortA : Math.min(outputA, model.limitA);
    return [{ kind: 'current', currentA: amps + model.quiescentA + (ahead?.quiescentA ?? 0) }, ...leak];
  }
  if (model) {
    return [
      {
        kind: 'regulator',
        outputV: model.outputV,
        dropoutV: dropoutFactor * dropoutAt(model, 0, junctionC) + (ahead?.dropoutV ?? 0),
        dropoutOhm: dropoutFactor * model.dropoutOhm + (ahead?.dropoutOhm ?? 0),
        currentA: outputA,
        quiescentA: model.quiescentA + (ahead?.quiescentA ?? 0),
      },
      ...leak,
    ];
  }
  if (outputA === 0) return leak;
  const surge = startSurge(design.load, rail === 1 ? 'minus' : 'plus');
  return [
    demand.kind === 'resistance'
      ? { kind: 'resistance', resistanceOhm: demand.outputV / outputA }
      : demand.kind === 'power'
        ? { kind: 'power', powerW: demand.outputV * outputA, minV: 0.5 * demand.outputV }
        : { kind: 'current', currentA: outputA, ...(surge ? { surge } : {}) },
    ...leak,
  ];
}

/** What may be set aside from a condition's own values, for a day's mains or a part's spread. */
export interface Adjust {
  mainsV?: number;
  capacitanceFactor?: number;
  resistanceFactor?: number;
  openCircuitFactor?: number;
  diodeSaturationFactor?: number;
  dropoutFactor?: number;
  /** Junction the regulator's dropout is taken at, °C. */
  junctionC?: number;
  /** What warm copper and the diodes are taken at, °C; as chosen and as their data has them where left out. */
  copperC?: number;
  diodeC?: number;
}

/** Where the reservoir stands in a rail's filter, -1 when there is none. */
export function reservoirPlace(design: Design): number {
  if (arrangementOf(design).stacked) return 0;
  return design.reservoir.capacitanceF > 0 ? design.filter.before.length : -1;
}

/** One filter part of a design with its index in each rail's filter, as a solution's elements are numbered. */
export interface PlacedPart {
  part: FilterStep;
  side: 'before' | 'after';
  at: number;
}

/** Where each filter part stands in the chain: the same order filterOf builds. A doubler has nothing before its capacitors. */
export function placedParts(design: Design): PlacedPart[] {
  const { before, after, bleederOhm } = design.filter;
  const ahead = arrangementOf(design).stacked ? [] : before;
  const behind = ahead.length + (reservoirPlace(design) >= 0 ? 1 : 0) + (bleederOhm === null ? 0 : 1);
  return [
    ...ahead.map((part, at): PlacedPart => ({ part, side: 'before', at })),
    ...after.map((part, n): PlacedPart => ({ part, side: 'after', at: behind + n })),
  ];
}

/** Stands in for a doubler's capacitors where none are fitted: stray capacitance, too small to show. */
const STRAY_F = 1e-9;

function filterOf(design: Design, condition: Condition, capacitanceFactor: number): FilterElement[] {
  const aged = condition.capacitor === 'aged' ? AGED_ESR : 1;
  const left = (nominalF: number) =>
    (capacitanceAt(design, condition.capacitor) / Math.max(bankF(design.reservoir), 1e-12)) * nominalF;
  const step = (part: FilterStep): FilterElement => {
    if (part.kind === 'resistor') return part;
    if (part.kind === 'choke') {
      const { inductanceH, resistanceOhm } = part;
      return { kind: 'inductor', inductanceH, resistanceOhm, ...(part.swinging ? { halfAtA: part.ratedA / 2 } : {}) };
    }
    const capacitanceF = design.reservoir.capacitanceF > 0 ? left(part.capacitanceF) : part.capacitanceF;
    return { kind: 'capacitor', capacitanceF, esrOhm: typicalEsr(part.capacitanceF, part.ratedV) * aged };
  };
  const doubler = arrangementOf(design).stacked;
  const capacitanceF = capacitanceAt(design, condition.capacitor) * capacitanceFactor;
  const { before, after, bleederOhm } = design.filter;
  return [
    ...(doubler ? [] : before.map(step)),
    ...(capacitanceF > 0 || doubler
      ? [
          {
            kind: 'capacitor' as const,
            capacitanceF: Math.max(capacitanceF, STRAY_F),
            esrOhm: esrOf(design) * aged,
          },
        ]
      : []),
    ...(bleederOhm === null ? [] : [{ kind: 'shunt' as const, resistanceOhm: bleederOhm }]),
    ...after.map(step),
  ];
}

/** A design under one condition becomes a network. */
export function networkOf(design: Design, condition: Condition, adjust: Adjust = {}): Network {
  const diode = lawAt(diodeClass(design.rectifier.diode), adjust.diodeC);
  const { rails } = arrangementOf(design);
  const filter = filterOf(design, condition, adjust.capacitanceFactor ?? 1);
  // A start surge has died away in everything but a start, and would only cost time there.
  const running = (loads: Load[]) =>
    condition.id === 'surge' ? loads : loads.map(({ surge: _gone, ...load }) => (void _gone, load as Load));
  const dc = dcSourceOf(design);
  const feed = dc ? dcFeed(design, dc, condition, adjust) : mainsFeed(design, condition, adjust);
  return {
    frequencyHz: design.mains.frequencyHz,
    mains: feed.mains,
    sections: [
      {
        winding: feed.winding,
        rectifier: {
          kind: arrangementKind(design),
          diode: { ...diode, saturationCurrentA: diode.saturationCurrentA * (adjust.diodeSaturationFactor ?? 1) },
          ...(hasDiodes(design) ? {} : { faults: [{ diode: 0, state: 'short' as const }] }),
        },
        rails: Array.from({ length: rails }, (_, rail) => ({
          filter,
          load: running(
            loadsOf(design, condition.load, rail, {
              output: condition.output,
              further: condition.further,
              junctionC: adjust.junctionC,
              dropoutFactor: adjust.dropoutFactor,
            }),
          ),
        })),
      },
    ],
    ...(feed.acLoads ? { acLoads: feed.acLoads } : {}),
  };
}

interface FeedParts {
  mains: Network['mains'];
  winding: Winding;
  acLoads?: AcLoad[];
}

/** Mains and transformer as the rectifier sees them. */
function mainsFeed(design: Design, condition: Condition, adjust: Adjust): FeedParts {
  const model = modelOf(design);
  const level = (adjust.mainsV ?? mainsVolts(design, condition.mains)) / design.mains.voltageRms;
  // Warm copper as the model has it, or at a temperature of its own; a cold start is cold whatever comes later.
  const ratio = condition.copper === 'cold' ? 1 : adjust.copperC === undefined ? null : copperRatio(adjust.copperC);
  const r = adjust.resistanceFactor ?? 1;
  return {
    mains: {
      sharedResistanceOhm: (ratio === null ? model.sharedHotOhm : model.sharedColdOhm * ratio) * r,
      flatTop: design.mains.flatTopPct / 100,
    },
    winding: {
      voltageRms: model.openCircuitV * level * (adjust.openCircuitFactor ?? 1),
      resistanceOhm: (ratio === null ? model.ownHotOhm : model.ownColdOhm * ratio) * r,
      inductanceH: design.transformer.leakageH,
    },
    ...(design.heater ? { acLoads: [heaterLoad(design.heater, model.regulation, level)] } : {}),
  };
}

/** Ripple of an adapter grows with what it gives; no source is stiffer than its leads. */
function dcFeed(design: Design, dc: DcSource, condition: Condition, adjust: Adjust): FeedParts {
  const openV = (adjust.mainsV ?? openVolts(dc, condition.mains)) * (adjust.openCircuitFactor ?? 1);
  const drawnA =
    railAmps(design, condition.load, 0) +
    design.outputs.reduce((sum, o) => sum + outputLoad(o, condition.load).currentA, 0);
  const ripple = dc.kind === 'adapter' ? (dc.rippleVpp * drawnA) / dc.ratedA / openV : 0;
  return {
    mains: { sharedResistanceOhm: 0, flatTop: 0, ripple: Math.min(ripple, 1) },
    winding: {
      voltageRms: openV / Math.SQRT2,
      // Where no diode stands, the wire in its place is part of the leads.
      resistanceOhm:
        Math.max(sourceOhm(dc) * (adjust.resistanceFactor ?? 1), LEADS_OHM) - (dc.reverseDiode ? 0 : SHORTED_OHM),
      inductanceH: 0,
    },
  };
}

/** Half a metre of two-core lead and its plug, ohm. */
const LEADS_OHM = 0.01;

/**
 * A heater winding behind its own copper: half of the transformer's regulation is taken as its own, the primary's half
 * is shared with the other windings.
 */
function heaterLoad(heater: Heater, regulation: number, level: number): AcLoad {
  return {
    winding: {
      voltageRms: heater.ratedV * (1 + regulation) * level,
      resistanceOhm: (0.5 * heater.ratedV * regulation) / heater.currentA,
      inductanceH: 0,
    },
    resistanceOhm: heater.ratedV / heater.currentA,
  };
}
