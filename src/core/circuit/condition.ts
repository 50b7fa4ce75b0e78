import { typicalEsr, typicalLeakage } from '@/core/parts/capacitor';
import { diodeClass } from '@/core/parts/diode';
import { regulatorSize } from '@/core/parts/regulator';
import { transformerModel, type TransformerModel } from '@/core/parts/transformer';
import type { Design } from '@/core/design/design';
import type { Load, Network } from './network';

/** One set of circumstances a design may find itself in. */
export interface Condition {
  id: ConditionId;
  /** In words, as a verdict says it. */
  words: string;
  mains: 'low' | 'nominal' | 'high';
  loaded: boolean;
  copper: 'hot' | 'cold';
  capacitor: 'new' | 'aged' | 'large';
}

export type ConditionId = 'low' | 'nominal' | 'high' | 'idle' | 'nominalIdle' | 'surge';

export const CONDITIONS: Readonly<Record<ConditionId, Condition>> = {
  low: {
    id: 'low',
    words: 'low line, full load, aged reservoir',
    mains: 'low',
    loaded: true,
    copper: 'hot',
    capacitor: 'aged',
  },
  nominal: {
    id: 'nominal',
    words: 'nominal line, full load',
    mains: 'nominal',
    loaded: true,
    copper: 'hot',
    capacitor: 'new',
  },
  high: { id: 'high', words: 'high line, full load', mains: 'high', loaded: true, copper: 'hot', capacitor: 'new' },
  idle: { id: 'idle', words: 'high line, no load', mains: 'high', loaded: false, copper: 'cold', capacitor: 'new' },
  nominalIdle: {
    id: 'nominalIdle',
    words: 'nominal line, no load',
    mains: 'nominal',
    loaded: false,
    copper: 'cold',
    capacitor: 'new',
  },
  surge: {
    id: 'surge',
    words: 'switch-on at a voltage peak, high line, cold copper',
    mains: 'high',
    loaded: true,
    copper: 'cold',
    capacitor: 'large',
  },
};

/** ESR grows as an electrolytic dries out; this factor is the usual end-of-life limit (IEC 60384-4). */
const AGED_ESR = 2;

/** Mains volts of a condition, V RMS. */
export function mainsVolts(design: Design, level: Condition['mains']): number {
  const { voltageRms, lowPct, highPct } = design.mains;
  return voltageRms * (level === 'low' ? 1 - lowPct / 100 : level === 'high' ? 1 + highPct / 100 : 1);
}

export function modelOf(design: Design): TransformerModel {
  const { transformer, rectifier } = design;
  return transformerModel({
    ratedV: transformer.ratedV,
    ratedVA: transformer.ratedVA,
    regulation: transformer.regulationPct === null ? null : transformer.regulationPct / 100,
    halves: rectifier.kind === 'centre-tap' ? 2 : 1,
    hotC: transformer.hotC,
  });
}

/** Reservoir capacitance left under a condition, F. */
export function capacitanceAt(design: Design, state: Condition['capacitor']): number {
  const { capacitanceF, tolerancePct, agedPct } = design.reservoir;
  if (state === 'aged') return capacitanceF * (1 - tolerancePct / 100) * (1 - agedPct / 100);
  if (state === 'large') return capacitanceF * (1 + tolerancePct / 100);
  return capacitanceF;
}

/** ESR of the new can, ohm: as given, or typical for its size. */
export function esrOf(design: Design): number {
  const { capacitanceF, ratedV, esrOhm } = design.reservoir;
  return esrOhm ?? typicalEsr(capacitanceF, ratedV);
}

/** What hangs on the reservoir. Without load a regulator still draws its quiescent current, and the can leaks. */
export function loadsOf(design: Design, loaded: boolean): Load[] {
  const { demand, regulator, reservoir } = design;
  const leak: Load[] =
    reservoir.capacitanceF > 0
      ? [
          {
            kind: 'resistance',
            resistanceOhm: reservoir.ratedV / typicalLeakage(reservoir.capacitanceF, reservoir.ratedV),
          },
        ]
      : [{ kind: 'resistance', resistanceOhm: 1e6 }];
  if (regulator.kind === 'fixed') {
    const size = regulatorSize(regulator.size);
    return [
      {
        kind: 'regulator',
        outputV: regulator.outputV,
        dropoutV: size.dropoutV,
        currentA: loaded ? demand.outputA : 0,
        quiescentA: size.quiescentA,
      },
      ...leak,
    ];
  }
  if (!loaded) return leak;
  return [
    demand.kind === 'resistance'
      ? { kind: 'resistance', resistanceOhm: demand.outputV / demand.outputA }
      : { kind: 'current', currentA: demand.outputA },
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
}

/** A design under one condition becomes a network. */
export function networkOf(design: Design, condition: Condition, adjust: Adjust = {}): Network {
  const model = modelOf(design);
  const mains = adjust.mainsV ?? mainsVolts(design, condition.mains);
  const hot = condition.copper === 'hot';
  const r = adjust.resistanceFactor ?? 1;
  const capacitanceF = capacitanceAt(design, condition.capacitor) * (adjust.capacitanceFactor ?? 1);
  const diode = diodeClass(design.rectifier.diode).law;
  return {
    frequencyHz: design.mains.frequencyHz,
    source: {
      voltageRms: model.openCircuitV * (mains / design.mains.voltageRms) * (adjust.openCircuitFactor ?? 1),
      resistanceOhm: (hot ? model.ownHotOhm : model.ownColdOhm) * r,
      sharedResistanceOhm: (hot ? model.sharedHotOhm : model.sharedColdOhm) * r,
      flatTop: 0,
    },
    rectifier: {
      kind: design.rectifier.kind,
      diode: { ...diode, saturationCurrentA: diode.saturationCurrentA * (adjust.diodeSaturationFactor ?? 1) },
    },
    rail: {
      filter:
        capacitanceF > 0
          ? [
              {
                kind: 'capacitor',
                capacitanceF,
                esrOhm: esrOf(design) * (condition.capacitor === 'aged' ? AGED_ESR : 1),
              },
            ]
          : [],
      load: loadsOf(design, condition.loaded),
    },
  };
}
