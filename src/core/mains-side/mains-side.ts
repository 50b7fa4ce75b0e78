import { conditionOf, wordsOf } from '@/core/circuit/condition';
import { mainsVolts, modelOf } from '@/core/circuit/feed';
import { placedParts } from '@/core/circuit/filter-of';
import { bankF, shuntOhm } from '@/core/design/bank';
import type { Design } from '@/core/design/design';
import { arrangementFacts, dcSourceOf } from '@/core/design/source';
import { feedingRmsA } from '@/core/study/feeding';
import {
  FUSE_A,
  FUSE_SURE_TIMES,
  fuseHeatsBy,
  inrush,
  inrushI2t,
  magnetising,
  meltingI2t,
  primaryFuse,
  runningPrimary,
  shortedPrimary,
} from '@/core/parts/mains-current';
import { TOUCH_DC_V } from '@/core/parts/touch-limits';
import { dcSide } from './dc-side';
import { checkPoints } from './check-points';
import { OPENING_S, type MainsReport } from './report';
import { formatNominal, formatQuantity } from '@/core/quantity/format';
import { nextInList } from '@/core/quantity/preferred';
import type { Figure } from '@/core/study/figure';
import type { OperatingPoint } from '@/core/study/point';
import { storedEnergy, storedFigure } from '@/core/study/stored-energy';
import type { Study } from '@/core/study/study';

/** Below this much energy a charged reservoir no longer counts as dangerous, J. */
const SAFE_J = 5;
/** A secondary fuse of more than this many times the winding's rated current lets it burn. */
const WINDING_FUSE_TIMES = 2;

/** The most that flows in the primary over a list of circumstances, magnetising current aside, A RMS. */
function reflected(study: Study, ratio: number, load: 'full' | 'lasting'): { amps: number; point: OperatingPoint } {
  const conditions = study.conditions.filter(
    (c) => c.load === load && c.output === undefined && !c.alone && c.mainsV === undefined,
  );
  const points = conditions.map((c) => study.at(c));
  const point = points.reduce((a, b) => (b.solution.primary.rmsA > a.solution.primary.rmsA ? b : a));
  // Heater windings are in the circuit: what they take through the primary is in this already.
  return { amps: ratio * point.solution.primary.rmsA, point };
}

/**
 * Capacitance a discharge has to empty on one rail, F, from every capacitor on it: reservoir and filter side by side,
 * stacked cans in series.
 */
function railFarad(design: Design): number {
  const filter = placedParts(design).reduce(
    (sum, { part }) => sum + (part.kind === 'capacitor' ? part.capacitanceF : 0),
    0,
  );
  return bankF(design.reservoir) / arrangementFacts(design).stacked + filter;
}

/**
 * The mains side of a design: fuses from running and inrush current, what a short does, discharge, and a checklist. It
 * informs; local codes and licensed practice decide.
 */
export function mainsSide(study: Study): MainsReport {
  if (dcSourceOf(study.design)) return dcSide(study);
  const { design, idle } = study;
  const { transformer, mains, mainsSide: side } = design;
  const model = modelOf(design);
  const ratio = model.openCircuitV / mains.voltageRms;
  const full = reflected(study, ratio, 'full');
  const lasting = reflected(study, ratio, 'lasting');
  const magnetisingA = magnetising(transformer.ratedVA, mains.voltageRms, transformer.core);
  const heatsByA = fuseHeatsBy(lasting.amps, full.amps);
  const runningA = runningPrimary(heatsByA, magnetisingA);
  const fullA = runningPrimary(full.amps, magnetisingA);
  const rush = inrush(transformer.ratedVA, mains.voltageRms, transformer.core);
  const rushI2t = inrushI2t(rush.worstA, mains.frequencyHz);
  const fuse = primaryFuse({ runningA, fullA, inrushI2t: side.softStart ? 0 : rushI2t }, transformer.core);
  const fitted = side.primaryFuseA ?? fuse.ratedA;
  // Least flows into a short where copper is hot and the mains are low: there the fuse has to blow all the same.
  const lowShare = mainsVolts(design, 'low') / mains.voltageRms;
  const lowOpenV = model.openCircuitV * lowShare;
  const lowMainsV = mains.voltageRms * lowShare;
  const hotOhm = model.ownHotOhm + model.sharedHotOhm;
  const short = shortedPrimary(lowOpenV, hotOhm, lowMainsV);
  const surelyBlows = short.primaryA >= FUSE_SURE_TIMES * fitted;
  const windings = ({ solution }: OperatingPoint) => feedingRmsA(design, solution);
  const secondaryRmsA = fuseHeatsBy(windings(lasting.point), windings(full.point));
  const secondaryLeastA = Math.max(1.5 * secondaryRmsA, windings(full.point));
  const secondaryFitsA = nextInList(secondaryLeastA, FUSE_A);
  const secondaryFuseA = surelyBlows ? null : secondaryFitsA;
  const startV = idle.rails.reduce((most, p) => Math.max(most, p.reservoir.maxV, p.rail.maxV), 0);
  const farad = railFarad(design);
  const { joule } = storedEnergy(design, idle);
  const safeV = Math.min(TOUCH_DC_V, farad > 0 ? Math.sqrt((2 * SAFE_J) / farad) : Infinity);
  const needsBleeder = farad > 0 && startV > safeV;
  const bleederOhm = needsBleeder ? OPENING_S / (farad * Math.log(startV / safeV)) : null;
  const acrossOhm = shuntOhm(design);
  const dischargeS = needsBleeder && acrossOhm !== null ? acrossOhm * farad * Math.log(startV / safeV) : null;

  const figures: Figure[] = [
    {
      id: 'primary-running',
      label: 'Primary, running',
      value: runningA,
      unit: 'A',
      origin: 'simulated',
      condition: wordsOf(design, lasting.point.at),
      expression:
        '√(reflected current² + magnetising current²); reflected: √(lasting × full), lasting at most full: what a fuse heats by',
      inputs: [
        { label: 'reflected, lasting load', value: lasting.amps, unit: 'A', origin: 'simulated' },
        { label: 'reflected, full load', value: full.amps, unit: 'A', origin: 'simulated' },
        { label: 'magnetising current', value: magnetisingA, unit: 'A', origin: 'typical' },
      ],
      source:
        'Ampere-turns of all windings, simulated, times the turns ratio; magnetising current typical for the core (IEC 61558 sizes).',
      assumes: [
        'The two stand 90 degrees apart.',
        'The load stands at its full current for the share of the time that makes its lasting one.',
      ],
    },
    {
      id: 'primary-full',
      label: 'Primary, full load',
      value: fullA,
      unit: 'A',
      origin: 'simulated',
      condition: wordsOf(design, full.point.at),
      expression: '√(reflected current² + magnetising current²)',
      inputs: [
        { label: 'reflected, full load', value: full.amps, unit: 'A', origin: 'simulated' },
        { label: 'magnetising current', value: magnetisingA, unit: 'A', origin: 'typical' },
      ],
      source: 'Ampere-turns of all windings, simulated, times the turns ratio.',
      assumes: ['The two stand 90 degrees apart.'],
    },
    {
      id: 'inrush',
      label: 'Inrush, worst first half cycle',
      value: rush.worstA,
      unit: 'A',
      origin: 'rule of thumb',
      expression: transformer.core === 'toroid' ? '30 to 60 times rated current' : '10 to 20 times rated current',
      inputs: [
        { label: 'rated primary current', value: transformer.ratedVA / mains.voltageRms, unit: 'A', origin: 'chosen' },
      ],
      source: 'Usual figures for cores switched at the mains’ zero crossing with residual flux.',
      assumes: ['Mains and primary resistance limit it further; it is not simulated.'],
    },
    {
      id: 'inrush-i2t',
      label: 'Its I²t',
      value: rushI2t,
      unit: 'A²s',
      origin: 'rule of thumb',
      expression: 'half of peak² × a quarter of the mains period',
      inputs: [
        { label: 'peak, worst', value: rush.worstA, unit: 'A', origin: 'rule of thumb' },
        { label: 'usual', value: inrushI2t(rush.usualA, mains.frequencyHz), unit: 'A²s', origin: 'rule of thumb' },
        {
          label: `melts a ${formatNominal(fitted, 'A')} time-lag fuse`,
          value: meltingI2t(fitted),
          unit: 'A²s',
          origin: 'typical',
        },
      ],
      source:
        'The core saturates for about a quarter period; time-lag fuses melt at about 2 A²s times their rating squared.',
      assumes: side.softStart ? ['The soft start takes it: the fuse does not see it.'] : [],
    },
    {
      id: 'primary-fuse',
      label: 'Primary fuse, time-lag',
      value: fuse.ratedA,
      unit: 'A',
      origin: 'formula',
      expression:
        transformer.core === 'toroid'
          ? 'next standard value from 2 times the running current, up to 3; not below full load; not melted by the inrush'
          : 'next standard value from 1.5 times the running current, up to 2; not below full load; not melted by the inrush',
      inputs: [
        { label: 'running', value: runningA, unit: 'A', origin: 'simulated' },
        { label: 'full load', value: fullA, unit: 'A', origin: 'simulated' },
        { label: 'inrush', value: side.softStart ? 0 : rushI2t, unit: 'A²s', origin: 'rule of thumb' },
        { label: `from (${fuse.because})`, value: fuse.leastA, unit: 'A' },
        { label: 'to', value: fuse.mostA, unit: 'A' },
      ],
      source: 'Rated values of IEC 60127.',
      assumes: [],
    },
    {
      id: 'short',
      label: 'Primary while the winding is shorted',
      value: short.primaryA,
      unit: 'A',
      origin: 'formula',
      condition: `${wordsOf(design, { ...conditionOf(design, 'low'), state: 'hot copper' })}`,
      expression: 'open volts / all copper hot, times open volts / mains volts',
      inputs: [
        { label: 'open volts', value: lowOpenV, unit: 'V', origin: 'formula' },
        { label: 'all copper hot', value: hotOhm, unit: 'ohm', origin: 'formula' },
        { label: 'mains volts', value: lowMainsV, unit: 'V', origin: 'chosen' },
        { label: 'in the winding', value: short.secondaryA, unit: 'A' },
        { label: `a ${formatNominal(fitted, 'A')} fuse surely blows at`, value: FUSE_SURE_TIMES * fitted, unit: 'A' },
      ],
      source:
        'Copper from the transformer’s model; time-lag fuses open within 10 s at 2.75 times their rating (IEC 60127).',
      assumes: ['Leakage inductance only makes it less.'],
    },
    storedFigure(design, idle),
    ...(dischargeS !== null
      ? [
          {
            id: 'discharge',
            label: `Below ${formatQuantity(safeV, 'V')} after`,
            value: dischargeS,
            unit: 's' as const,
            origin: 'formula' as const,
            expression: 'R·C·ln(V₀/V)',
            inputs: [
              {
                label: 'bleeder, balancing resistors',
                value: acrossOhm!,
                unit: 'ohm' as const,
                origin: 'chosen' as const,
              },
              { label: 'C, reservoir and filter', value: farad, unit: 'F' as const },
              { label: 'V₀', value: startV, unit: 'V' as const, origin: 'simulated' as const },
              { label: 'V, safe to touch', value: safeV, unit: 'V' as const },
              { label: 'they burn', value: startV ** 2 / acrossOhm!, unit: 'W' as const },
            ],
            source: 'Discharge below 60 V and below 5 J.',
            assumes: [
              'The load helps where it stays connected; it is not counted.',
              'Electrolytics recover some charge.',
            ],
          },
        ]
      : []),
  ];
  return {
    figures,
    primaryFuseA: transformer.sealed ? null : fuse.ratedA,
    secondaryFuseA: transformer.sealed ? secondaryFitsA : secondaryFuseA,
    bleederOhm,
    points: checkPoints(design, {
      fuse,
      rushI2t,
      surelyBlows,
      secondaryFuseA: transformer.sealed ? null : secondaryFuseA,
      secondaryMostA: Math.max(secondaryFitsA, WINDING_FUSE_TIMES * model.ratedA),
      secondaryLeastA,
      windingShortA: short.secondaryA,
      needsBleeder,
      dischargeS,
      startV,
      joule,
      bleederOhm,
      highV: mainsVolts(design, 'high'),
    }),
  };
}
