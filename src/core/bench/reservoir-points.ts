import { CONDITIONS } from '@/core/circuit/condition';
import { applyPatch } from '@/core/design/design';
import { termsOf } from '@/core/design/source';
import { TOUCH_DC_V } from '@/core/parts/touch-limits';
import { formatNominal, formatQuantity as q } from '@/core/quantity/format';
import { scaledLoads } from '@/core/study/load-line';
import { acReading, floorV } from './own-instruments';
import type { Point, PointContext } from './point-context';
import { LIGHT } from './stages';
import { figure } from './test-point';

/** What reading a ripple off a screen adds, as a share of it. */
const RIPPLE_READING = 0.1;

/** A bleeder with a meter's input beside it, Ω. @param ohm null for no bleeder */
const beside = (ohm: number | null, inputOhm: number): number =>
  ohm === null ? inputOhm : 1 / (1 / ohm + 1 / inputOhm);

/** What stands across the reservoir: idle, lightly and fully loaded, and how it swings. */
export function reservoirPoints(context: PointContext): Point[] {
  const { design, mainsFor, dc, read, meter, opened, idlePeakV, window } = context;
  const points: Point[] = [];
  const { demand, bench, mains } = design;
  const say = termsOf(design);
  const idle = window({ ...CONDITIONS.idle, mains: 'nominal', load: 'none' }, mainsFor('reservoir-idle'), {
    ...design,
    regulator: { kind: 'none' },
    preRegulator: { kind: 'none' },
    outputs: [],
    filter: { ...design.filter, bleederOhm: beside(design.filter.bleederOhm, bench.inputOhm) },
  });
  points.push({
    id: 'reservoir-idle',
    label: 'Reservoir, no load',
    how: 'DC range, across the reservoir, nothing behind it.',
    unit: 'V',
    expected: figure(
      'reservoir-idle',
      'Reservoir without load',
      idle.value,
      'V',
      'simulated',
      'mean reservoir voltage with only its leakage',
      [
        { label: read, value: mainsFor('reservoir-idle'), unit: 'V' },
        ...(dc ? [] : [{ label: 'winding, open', value: opened(mainsFor('reservoir-idle')), unit: 'V' as const }]),
      ],
      'Periodic steady state.',
      idle.assumes,
    ),
    low: idle.low - meter(idle.low),
    high: idle.high + meter(idle.high),
    caution:
      idlePeakV > TOUCH_DC_V
        ? `${q(idlePeakV, 'V')} DC can stand here, and stays after switching off. Discharge through a resistor, then check with the meter. Eye protection.`
        : 'Check the polarity of the reservoir once more; stand back at first power, eye protection on.',
    ifLow: dc
      ? 'The diode the wrong way round, a loose contact, or something already loads it.'
      : 'One diode open or the wrong way round, half a winding, or something already loads it.',
    ifHigh: dc
      ? `The ${say.source} stands higher than you read.`
      : 'A meter on AC, mains higher than you read, or a higher tap.',
  });

  const light = applyPatch(design, scaledLoads(design, LIGHT));
  const lightA = LIGHT * demand.outputA;
  const lightMains = mainsFor('reservoir-light');
  const lit = window({ ...CONDITIONS.nominal }, lightMains, light);
  points.push({
    id: 'reservoir-light',
    label: 'Reservoir, light load',
    how: `DC range, across the reservoir, about ${formatNominal(Number(lightA.toPrecision(2)), 'A')} drawn for a minute.`,
    unit: 'V',
    expected: figure(
      'reservoir-light',
      'Reservoir at a light load',
      lit.value,
      'V',
      'simulated',
      'mean reservoir voltage over the cycle, a tenth of the full load',
      [
        { label: read, value: lightMains, unit: 'V' },
        { label: 'load', value: lightA, unit: 'A' },
      ],
      'Periodic steady state.',
      lit.assumes,
    ),
    low: lit.low - meter(lit.low),
    high: lit.high + meter(lit.high),
    ifLow:
      'Far more is drawn than you think: a leaking or reversed capacitor, a short behind the regulator. Switch off, feel nothing, look.',
    ifHigh: 'The load is not on: it stands where it idles.',
  });

  const loadedMains = mainsFor('reservoir-loaded');
  const loaded = window({ ...CONDITIONS.nominal }, loadedMains, design);
  points.push({
    id: 'reservoir-loaded',
    label: 'Reservoir, full load',
    how: `DC range, across the reservoir, ${formatNominal(demand.outputA, 'A')} drawn.`,
    unit: 'V',
    expected: figure(
      'reservoir-loaded',
      'Reservoir at full load',
      loaded.value,
      'V',
      'simulated',
      'mean reservoir voltage over the cycle',
      [
        { label: read, value: loadedMains, unit: 'V' },
        { label: 'load', value: demand.outputA, unit: 'A' },
      ],
      'Periodic steady state.',
      loaded.assumes,
    ),
    low: loaded.low - meter(loaded.low),
    high: loaded.high + meter(loaded.high),
    ifLow: dc
      ? `Load higher than you think, or a ${say.source} with more resistance than typical.`
      : 'Load higher than you think, a tired reservoir, a diode open, or a weaker transformer.',
    ifHigh: `Load lower than you think, or a stronger ${dc ? say.source : 'transformer'} than typical.`,
  });

  // A battery has no ripple to read.
  if (dc?.kind !== 'battery') {
    const rippleMains = mainsFor('reservoir-ripple');
    const ripple = window({ ...CONDITIONS.nominal }, rippleMains, design, (v) => v.maxV - v.minV);
    points.push({
      id: 'reservoir-ripple',
      label: 'Reservoir ripple',
      how: `Scope, AC coupled, ×${bench.probe} probe, short ground lead, peak to peak; its floor first, tip on its own ground. Earth clip on the negative only.`,
      unit: 'V',
      expected: figure(
        'reservoir-ripple',
        'Reservoir ripple at full load',
        ripple.value,
        'V',
        'simulated',
        'highest − lowest reservoir voltage of the cycle',
        [
          { label: read, value: rippleMains, unit: 'V' },
          { label: 'reservoir', value: design.reservoir.capacitanceF, unit: 'F' },
        ],
        'Periodic steady state.',
        [...ripple.assumes, `Reading a scope adds ±10 %, and its floor of ${q(floorV(bench), 'V')} may lie on top.`],
      ),
      low: ripple.low * (1 - RIPPLE_READING),
      high: ripple.high * (1 + RIPPLE_READING) + floorV(bench),
      ifLow: 'A ×10 probe read as ×1, or the load is not on.',
      ifHigh: dc
        ? 'A dried-out reservoir, or an adapter that is none the better for its years.'
        : `A dried-out reservoir; twice as high and at ${q(mains.frequencyHz, 'Hz')}: one half of the rectifier is dead.`,
    });
  }

  if (dc?.kind !== 'battery') {
    const meterMains = mainsFor('ripple-meter');
    const ac = window({ ...CONDITIONS.nominal }, meterMains, design, (v) => acReading(v.samples, bench));
    points.push({
      id: 'ripple-meter',
      label: 'Reservoir ripple by the meter',
      how: `AC range across the reservoir, ${formatNominal(demand.outputA, 'A')} drawn; where there is no scope. Its range has to block ${q(loaded.value, 'V')} DC.`,
      unit: 'V',
      expected: figure(
        'ripple-meter',
        bench.acTrueRms ? 'Ripple, true RMS' : 'Ripple as an average-responding meter shows it',
        ac.value,
        'V',
        'simulated',
        bench.acTrueRms
          ? 'root of the mean square of what swings about the mean'
          : '1.11 × mean of what swings about the mean, rectified: right for sines only',
        [
          { label: read, value: meterMains, unit: 'V' },
          { label: 'reservoir', value: design.reservoir.capacitanceF, unit: 'F' },
        ],
        'Periodic steady state.',
        [...ac.assumes, 'AC ranges are about twice as coarse as DC ones.'],
      ),
      low: ac.low - 2 * meter(ac.low),
      high: ac.high + 2 * meter(ac.high),
      ifLow: 'The load is not on, or the meter’s AC range does not reach the pulses’ frequency.',
      ifHigh: 'A dried-out reservoir, or half of the rectifier dead: the scope, or the fault finder, tells which.',
    });
  }
  return points;
}
