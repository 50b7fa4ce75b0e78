import type { Design } from '@/core/design/design';
import { windingCount } from '@/core/design/words';
import { FUSE_SURE_TIMES, meltingI2t, SOFT_START_ABOVE_VA, type FuseAdvice } from '@/core/parts/mains-current';
import { formatNominal, formatQuantity } from '@/core/quantity/format';
import { OPENING_S, type CheckPoint } from './report';

/** What the checklist knows of a design beside the design itself. */
export interface MainsFacts {
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

/** What has to be right before the plug goes in, in the order of the hand; of a bought adapter only what is outside it. */
export function checkPoints(design: Design, f: MainsFacts): CheckPoint[] {
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
function everyPoint(design: Design, f: MainsFacts): CheckPoint[] {
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
