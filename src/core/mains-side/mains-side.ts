import { conditionOf, wordsOf } from '@/core/circuit/condition';
import { mainsVolts, modelOf } from '@/core/circuit/feed';
import { placedParts } from '@/core/circuit/filter-of';
import { bankF, shuntOhm } from '@/core/design/bank';
import type { Design } from '@/core/design/design';
import { arrangementFacts, dcSourceOf } from '@/core/design/source';
import { windingCount } from '@/core/design/words';
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
  SOFT_START_ABOVE_VA,
  type FuseAdvice,
} from '@/core/parts/mains-current';
import { TOUCH_DC_V } from '@/core/parts/touch-limits';
import { dcSide } from './dc-side';
import type { CheckPoint, MainsReport } from './report';
import { formatNominal, formatQuantity } from '@/core/quantity/format';
import type { Figure } from '@/core/study/figure';
import type { OperatingPoint } from '@/core/study/operating-point';
import { storedEnergy } from '@/core/study/stored-energy';
import type { Study } from '@/core/study/study';

/** Below this much energy a charged reservoir no longer counts as dangerous, J. */
const SAFE_J = 5;
/** Time a case takes to open, s: by then it has to be discharged. */
const OPENING_S = 30;
/** A secondary fuse of more than this many times the winding's rated current lets it burn. */
const WINDING_FUSE_TIMES = 2;

/** The most that flows in the primary over a list of circumstances, magnetising current aside, A RMS. */
function reflected(study: Study, ratio: number, load: 'full' | 'lasting'): { amps: number; point: OperatingPoint } {
  const conditions = study.conditions.filter(
    (c) => c.load === load && c.output === undefined && !c.alone && c.mainsV === undefined,
  );
  const points = conditions.map((c) => study.at(c));
  const point = points.reduce((a, b) => (b.solution.primary.rmsA > a.solution.primary.rmsA ? b : a));
  const { heater, mains } = study.design;
  const heaterA = heater ? (heater.ratedV * heater.currentA) / mains.voltageRms : 0;
  return { amps: ratio * point.solution.primary.rmsA + heaterA, point };
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
  const short = shortedPrimary(
    model.openCircuitV * lowShare,
    model.ownHotOhm + model.sharedHotOhm,
    mains.voltageRms * lowShare,
  );
  const surelyBlows = short.primaryA >= FUSE_SURE_TIMES * fitted;
  const windings = (p: OperatingPoint) =>
    Math.max(...p.solution.windings.slice(0, windingCount(design)).map((w) => w.rmsA));
  const secondaryRmsA = fuseHeatsBy(windings(lasting.point), windings(full.point));
  const secondaryLeastA = Math.max(1.5 * secondaryRmsA, windings(full.point));
  const secondaryFitsA = FUSE_A.find((a) => a >= secondaryLeastA) ?? FUSE_A[FUSE_A.length - 1]!;
  const secondaryFuseA = surelyBlows ? null : secondaryFitsA;
  const startV = idle.rails.reduce((most, p) => Math.max(most, p.reservoir.maxV, p.rail.maxV), 0);
  const farad = railFarad(design);
  const energy = storedEnergy(design, idle);
  const { joule } = energy;
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
      expression: '√(reflected current² + magnetising current²); reflected: √(lasting × full), what a fuse heats by',
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
        { label: 'in the winding', value: short.secondaryA, unit: 'A' },
        { label: `a ${formatNominal(fitted, 'A')} fuse surely blows at`, value: FUSE_SURE_TIMES * fitted, unit: 'A' },
      ],
      source:
        'Copper from the transformer’s model; time-lag fuses open within 10 s at 2.75 times their rating (IEC 60127).',
      assumes: ['Leakage inductance only makes it less.'],
    },
    {
      id: 'stored',
      label: 'Stored in all capacitors',
      value: joule,
      unit: 'J',
      origin: 'formula',
      condition: wordsOf(design, 'idle'),
      expression: '½·C·V², every capacitor',
      inputs: energy.held.flatMap((h): Figure['inputs'] => [
        { label: h.count > 1 ? `${h.label}, ${h.count} alike` : h.label, value: h.farad, unit: 'F', origin: 'chosen' },
        { label: 'at', value: h.volts, unit: 'V', origin: 'simulated' },
      ]),
      source: 'Simulated idle voltages.',
      assumes: [],
    },
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

interface Facts {
  fuse: FuseAdvice;
  rushI2t: number;
  surelyBlows: boolean;
  secondaryFuseA: number | null;
  /** Between what runs and what the winding bears, A. */
  secondaryLeastA: number;
  secondaryMostA: number;
  windingShortA: number;
  needsBleeder: boolean;
  dischargeS: number | null;
  startV: number;
  joule: number;
  bleederOhm: number | null;
  highV: number;
}

/** Of a bought adapter the mains stays inside it: what is left to look at, and what is in the box. */
const INSIDE_THE_ADAPTER = new Set([
  'inlet',
  'fuse',
  'switch',
  'earth',
  'class-two',
  'class-two-metal',
  'class-two-parts',
  'insulation',
  'safety-transformer',
  'clearance',
  'soft-start',
  'cut-out',
]);

function checkPoints(design: Design, f: Facts): CheckPoint[] {
  const all = everyPoint(design, f);
  if (!design.transformer.sealed) return all;
  return [
    {
      id: 'adapter-approved',
      state: 'look',
      text: 'A bought, approved AC adapter, unopened: its fuse and its insulation are inside it.',
      why: 'Then nothing in your box sees the mains, and no primary fuse or earth of yours is needed.',
    },
    {
      id: 'adapter-ac',
      state: 'look',
      text: 'Its plate says AC or ~ at the output, and a meter on AC agrees.',
      why: 'DC adapters look alike.',
    },
    ...all.filter((p) => !INSIDE_THE_ADAPTER.has(p.id)),
  ];
}

/** What has to be right before the plug goes in, in the order of the hand. */
function everyPoint(design: Design, f: Facts): CheckPoint[] {
  const { mainsSide: side, transformer } = design;
  const out: CheckPoint[] = [];
  const add = (id: string, state: CheckPoint['state'], text: string, why: string) => out.push({ id, state, text, why });
  add(
    'inlet',
    'look',
    'Fused inlet or fixed cord with strain relief; no bare live metal within reach.',
    'A pulled cord must not pull at a live joint.',
  );
  if (side.primaryFuseA === null) {
    add(
      'fuse',
      'wrong',
      `No primary fuse is chosen: ${formatNominal(f.fuse.ratedA, 'A')} time-lag fits.`,
      'Without one, a shorted turn burns until something else stops it.',
    );
  } else if (side.primaryFuseA > f.fuse.mostA * 1.001) {
    add(
      'fuse',
      'wrong',
      `The ${formatNominal(side.primaryFuseA, 'A')} fuse is above ${formatQuantity(f.fuse.mostA, 'A')}.`,
      'It would feed a fault for long.',
    );
  } else if (side.primaryFuseA < f.fuse.leastA * 0.999) {
    add(
      'fuse',
      'wrong',
      `The ${formatNominal(side.primaryFuseA, 'A')} fuse is below ${formatQuantity(f.fuse.leastA, 'A')}.`,
      f.fuse.because === 'inrush'
        ? `The inrush of this core is about ${formatQuantity(f.rushI2t, 'A²s')} at worst; this fuse melts at ${formatQuantity(meltingI2t(side.primaryFuseA), 'A²s')}. A soft start would allow less.`
        : f.fuse.because === 'full load'
          ? 'Full load is more than it carries for long.'
          : 'A warm evening blows it for nothing.',
    );
  } else
    add(
      'fuse',
      'done',
      `Primary fuse ${formatNominal(side.primaryFuseA, 'A')}, time-lag, in the live conductor.`,
      'Between running and fault current.',
    );
  if (f.secondaryFuseA !== null && side.secondaryFuseA === null) {
    add(
      'secondary-fuse',
      'wrong',
      `A short of the winding would not surely blow the primary fuse: fit ${formatNominal(f.secondaryFuseA, 'A')} at the winding.`,
      'Small transformers burn out behind a fuse that never notices.',
    );
  } else if (side.secondaryFuseA !== null && side.secondaryFuseA > 1.001 * f.secondaryMostA) {
    add(
      'secondary-fuse',
      'wrong',
      `The ${formatNominal(side.secondaryFuseA, 'A')} fuse is too big for this winding: ${formatQuantity(f.secondaryMostA, 'A')} at most.`,
      'The winding, and wire that was chosen for its current, burn before it blows.',
    );
  } else if (
    side.secondaryFuseA !== null &&
    side.secondaryFuseA < 0.999 * Math.min(f.secondaryLeastA, f.secondaryMostA)
  ) {
    add(
      'secondary-fuse',
      'wrong',
      `The ${formatNominal(side.secondaryFuseA, 'A')} fuse is below ${formatQuantity(f.secondaryLeastA, 'A')}.`,
      'The charging pulses count by their RMS current: it blows in use.',
    );
  } else if (
    side.secondaryFuseA !== null &&
    !f.surelyBlows &&
    f.windingShortA < FUSE_SURE_TIMES * side.secondaryFuseA
  ) {
    add(
      'secondary-fuse',
      side.thermalCutout ? 'done' : 'look',
      side.thermalCutout
        ? `Secondary fuse ${formatNominal(side.secondaryFuseA, 'A')}, and a thermal cut-out for what it does not see.`
        : `The ${formatNominal(side.secondaryFuseA, 'A')} fuse does not surely blow: a short of the winding drives ${formatQuantity(f.windingShortA, 'A')} at most. Fit a thermal cut-out, or a transformer that bears a short.`,
      'A small soft transformer drives too little into a short, hot and at low line, for any fuse that carries the load.',
    );
  } else if (side.secondaryFuseA !== null) {
    add(
      'secondary-fuse',
      'done',
      `Secondary fuse ${formatNominal(side.secondaryFuseA, 'A')}${windingCount(design) === 2 ? ' in each half' : ''}.`,
      'It protects the winding and the wires behind it.',
    );
  } else
    add(
      'secondary-fuse',
      'done',
      'A shorted winding blows the primary fuse, also at low line with hot copper; no secondary fuse is needed for that.',
      'Wires thinner than the fuse allows still need one.',
    );
  if (!side.polarised && side.switchPoles === 1) {
    add(
      'switch',
      'wrong',
      'One switch pole, but the plug goes in both ways round.',
      'Half of the time the switch would leave the live side connected: break both poles.',
    );
  } else
    add(
      'switch',
      'done',
      `${side.switchPoles === 2 ? 'Both poles are' : 'The live pole is'} switched; the switch is rated for ${formatNominal(Math.round(f.highV), 'V')} and the inrush.`,
      'Off has to be off.',
    );
  if (side.insulation === 'class I') {
    add(
      'earth',
      'look',
      `Protective earth on ${side.box === 'metal' ? 'the case and ' : ''}every exposed metal part, on its own screw, first to make and last to break.`,
      'A fault to the case then blows the fuse and not you.',
    );
  } else {
    if (side.homeWound)
      add(
        'class-two',
        'wrong',
        'Class II with a home-wound transformer.',
        'Double insulation needs certified parts; earth it as class I.',
      );
    if (side.box === 'metal')
      add(
        'class-two-metal',
        'wrong',
        'Class II in a metal box.',
        'Every metal part would need double insulation from the mains: earth it as class I, or take a plastic box.',
      );
    add(
      'class-two-parts',
      'look',
      'Class II only with certified parts: transformer, inlet, switch and wiring doubly insulated.',
      'There is no earth that would catch a fault.',
    );
  }
  if (side.homeWound) {
    add(
      'insulation',
      'look',
      'The home-wound transformer had its insulation test, by somebody equipped for it.',
      'Primary to secondary and both to the core; a nicked enamel shows here and not later.',
    );
  } else
    add(
      'safety-transformer',
      'look',
      'A safety transformer with double or reinforced insulation (IEC 61558).',
      'It is what stands between the mains and the output.',
    );
  add(
    'clearance',
    'look',
    'At least 8 mm between mains and low volts, a barrier where they share a box; more where the code says.',
    'Wires move, solder blobs fall.',
  );
  const ring = transformer.core === 'toroid' && transformer.ratedVA > SOFT_START_ABOVE_VA;
  if (ring && !side.softStart)
    add(
      'soft-start',
      'wrong',
      `A ring core of ${formatNominal(transformer.ratedVA, 'VA')} without a soft start.`,
      'Its inrush trips the house’s breaker now and then.',
    );
  if (side.softStart)
    add(
      'soft-start',
      'done',
      'Soft start, its resistor bridged after a moment; check that it stays cool if the relay fails.',
      'It takes the inrush.',
    );
  if (side.thermalCutout)
    add('cut-out', 'done', 'Thermal cut-out on the transformer.', 'It sees what no fuse sees: slow overheating.');
  else
    add(
      'cut-out',
      'look',
      'A thermal cut-out near the transformer where the box is closed or the load can be doubled.',
      'A fuse does not see slow overheating.',
    );
  if (f.needsBleeder) {
    if (f.dischargeS === null) {
      add(
        'bleeder',
        'wrong',
        `${formatQuantity(f.startV, 'V')} with ${formatQuantity(f.joule, 'J')} stay in the capacitors: a bleeder of ${formatQuantity(f.bleederOhm!, 'ohm')} empties it in 30 s.`,
        'Volts and joules wait in a dark box for whoever opens it.',
      );
    } else if (f.dischargeS > 1.05 * OPENING_S) {
      add(
        'bleeder',
        'wrong',
        `The bleeder takes ${formatQuantity(f.dischargeS, 's')}; a case opens in less.`,
        `About ${formatQuantity(f.bleederOhm!, 'ohm')} would do it in 30 s.`,
      );
    } else
      add(
        'bleeder',
        'done',
        `The bleeder empties every capacitor in ${formatQuantity(f.dischargeS, 's')}.`,
        'Measure all the same: a bleeder can fail open.',
      );
  }
  add(
    'label',
    'look',
    'Rating plate outside: mains volts, hertz, fuse, and “hazardous voltage” where it applies.',
    'In two years nobody remembers.',
  );
  return out;
}
