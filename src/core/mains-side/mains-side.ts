import { arrangementOf, dcSourceOf } from '@/core/design/source';
import { wordsOf } from '@/core/circuit/condition';
import { mainsVolts, modelOf } from '@/core/circuit/feed';
import { bankF } from '@/core/design/bank';
import type { Design } from '@/core/design/design';
import { windingCount } from '@/core/design/words';
import {
  FUSE_A,
  FUSE_SURE_TIMES,
  inrush,
  magnetising,
  primaryFuse,
  runningPrimary,
  shortedPrimary,
  SOFT_START_ABOVE_VA,
} from '@/core/parts/mains-current';
import { TOUCH_DC_V } from '@/core/parts/touch-limits';
import { dcSide } from './dc-side';
import type { CheckPoint, MainsReport } from './report';
import { formatNominal, formatQuantity } from '@/core/quantity/format';
import type { Figure } from '@/core/study/figure';
import type { Study } from '@/core/study/study';

/** Below this much energy a charged reservoir no longer counts as dangerous, J. */
const SAFE_J = 5;
/** Time a case takes to open, s: by then it has to be discharged. */
const OPENING_S = 30;

/**
 * The mains side of a design: fuses from running and inrush current, what a short does, discharge, and a checklist. It
 * informs; local codes and licensed practice decide.
 */
export function mainsSide(study: Study): MainsReport {
  if (dcSourceOf(study.design)) return dcSide(study);
  const { design, high, idle } = study;
  const { transformer, mains, mainsSide: side, filter } = design;
  const model = modelOf(design);
  const halves = windingCount(design);
  const ratio = model.openCircuitV / mains.voltageRms;
  const feeding = high.solution.windings.slice(0, halves);
  // The halves of a tap take turns: their squares add.
  const reflectedA =
    ratio * Math.sqrt(feeding.reduce((sum, w) => sum + w.rmsA ** 2, 0)) +
    (design.heater ? (design.heater.ratedV * design.heater.currentA) / mains.voltageRms : 0);
  const magnetisingA = magnetising(transformer.ratedVA, mains.voltageRms, transformer.core);
  const runningA = runningPrimary(reflectedA, magnetisingA);
  const rush = inrush(transformer.ratedVA, mains.voltageRms, transformer.core);
  const fuse = primaryFuse(runningA, transformer.core);
  const fitted = side.primaryFuseA ?? fuse.ratedA;
  const short = shortedPrimary(model.openCircuitV, model.ownColdOhm + model.sharedColdOhm, mains.voltageRms);
  const surelyBlows = short.primaryA >= FUSE_SURE_TIMES * fitted;
  const secondaryRmsA = Math.max(...feeding.map((w) => w.rmsA));
  const secondaryFuseA = surelyBlows
    ? null
    : (FUSE_A.find((a) => a >= 1.5 * secondaryRmsA) ?? FUSE_A[FUSE_A.length - 1]!);
  const startV = idle.reservoir.maxV;
  const stacked = arrangementOf(design).stacked;
  const farad = bankF(design.reservoir) / (stacked ? 2 : 1);
  const joule = 0.5 * farad * startV ** 2;
  const safeV = Math.min(TOUCH_DC_V, farad > 0 ? Math.sqrt((2 * SAFE_J) / farad) : Infinity);
  const needsBleeder = farad > 0 && startV > safeV;
  const bleederOhm = needsBleeder ? OPENING_S / (farad * Math.log(startV / safeV)) : null;
  const dischargeS =
    needsBleeder && filter.bleederOhm !== null ? filter.bleederOhm * farad * Math.log(startV / safeV) : null;
  const words = wordsOf(design, 'high');

  const figures: Figure[] = [
    {
      id: 'primary-running',
      label: 'Primary, running',
      value: runningA,
      unit: 'A',
      origin: 'simulated',
      condition: words,
      expression: '√(reflected winding current² + magnetising current²)',
      inputs: [
        { label: 'reflected winding current', value: reflectedA, unit: 'A', origin: 'simulated' },
        { label: 'magnetising current', value: magnetisingA, unit: 'A', origin: 'typical' },
      ],
      source:
        'Simulated winding current times the turns ratio; magnetising current typical for the core (IEC 61558 sizes).',
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
      id: 'primary-fuse',
      label: 'Primary fuse, time-lag',
      value: fuse.ratedA,
      unit: 'A',
      origin: 'formula',
      expression:
        transformer.core === 'toroid'
          ? 'next standard value from 2 times the running current; up to 3 times'
          : 'next standard value from 1.5 times the running current; up to 2 times',
      inputs: [
        { label: 'running', value: runningA, unit: 'A', origin: 'simulated' },
        { label: 'from', value: fuse.leastA, unit: 'A' },
        { label: 'to', value: fuse.mostA, unit: 'A' },
      ],
      source: 'Rated values of IEC 60127.',
      assumes: ['A time-lag fuse passes the inrush.'],
    },
    {
      id: 'short',
      label: 'Primary while the winding is shorted',
      value: short.primaryA,
      unit: 'A',
      origin: 'formula',
      expression: 'open volts / all copper cold, times open volts / mains volts',
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
      label: 'Stored in the reservoir',
      value: joule,
      unit: 'J',
      origin: 'formula',
      condition: wordsOf(design, 'idle'),
      expression: '½·C·V²',
      inputs: [
        { label: 'C', value: farad, unit: 'F', origin: 'chosen' },
        { label: 'V', value: startV, unit: 'V', origin: 'simulated' },
      ],
      source: 'Simulated idle voltage.',
      assumes: ['One rail.'],
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
              { label: 'bleeder', value: filter.bleederOhm!, unit: 'ohm' as const, origin: 'chosen' as const },
              { label: 'C', value: farad, unit: 'F' as const },
              { label: 'V₀', value: startV, unit: 'V' as const, origin: 'simulated' as const },
              { label: 'bleeder burns', value: startV ** 2 / filter.bleederOhm!, unit: 'W' as const },
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
    primaryFuseA: fuse.ratedA,
    secondaryFuseA,
    bleederOhm,
    points: checkPoints(design, {
      fuse,
      fitted,
      secondaryFuseA,
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
  fuse: { ratedA: number; leastA: number; mostA: number };
  fitted: number;
  secondaryFuseA: number | null;
  needsBleeder: boolean;
  dischargeS: number | null;
  startV: number;
  joule: number;
  bleederOhm: number | null;
  highV: number;
}

/** What has to be right before the plug goes in, in the order of the hand. */
function checkPoints(design: Design, f: Facts): CheckPoint[] {
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
      'Inrush or a warm evening blows it for nothing.',
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
      'A shorted winding blows the primary fuse; no secondary fuse is needed for that.',
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
        `${formatQuantity(f.startV, 'V')} with ${formatQuantity(f.joule, 'J')} stay on the reservoir: a bleeder of ${formatQuantity(f.bleederOhm!, 'ohm')} empties it in 30 s.`,
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
        `The bleeder empties the reservoir in ${formatQuantity(f.dischargeS, 's')}.`,
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
