import { diodeOf, spreadWords } from '@/core/parts/diode';
import { mainModel, outputModel, outputsOf } from '@/core/design/outputs';
import { CONDITIONS, type Condition } from '@/core/circuit/condition';
import { mainsVolts, modelOf } from '@/core/circuit/feed';
import { networkOf, type Adjust } from '@/core/circuit/network-of';
import { applyPatch, type Design } from '@/core/design/design';
import { dcSourceOf, termsOf } from '@/core/design/source';
import { sourceSpread } from '@/core/parts/transformer-trust';
import { TOUCH_DC_V } from '@/core/parts/touch-limits';
import { formatNominal, formatQuantity as q } from '@/core/quantity/format';
import type { Unit } from '@/core/quantity/parse';
import { windingCount } from '@/core/design/words';
import { solveSteady } from '@/core/solve/steady';
import { metalWorking } from '@/core/picture/heat-working';
import { operatingPoint, reservoirOf, restingAdjust } from '@/core/study/operating-point';
import { scaledLoads } from '@/core/study/load-line';
import { WAVE_SAMPLES, rippleHz } from '@/core/study/point';
import { acReading, ampsError, currentThrough, floorV } from './own-instruments';
import { LIGHT, stagesOf } from './stages';
import { sourcePoint } from './source-point';
import { figure, type PointId, type TestPoint } from './test-point';

/** Spread of a healthy build around the design's own values. */
const SPREAD = {
  diodeSaturation: 3,
  coolerRoomK: 15,
  warmerRoomK: 5,
  rippleReading: 0.1,
};

/** A bleeder with a meter's input beside it, Ω. @param ohm null for no bleeder */
const beside = (ohm: number | null, inputOhm: number): number =>
  ohm === null ? inputOhm : 1 / (1 / ohm + 1 / inputOhm);

/** How far open volts and resistance of a healthy build may be off, per cent: 3 and 20, or what a fit left of it. */
function healthySpread({ source, transformer }: Design): { voltsPct: number; ohmPct: number } {
  const fitted = source.kind === 'mains' && transformer.source.kind === 'fitted';
  return fitted ? sourceSpread(transformer.source) : { voltsPct: 3, ohmPct: 20 };
}

/**
 * The test points of a staged power-up with the window a healthy build falls into: simulated at the mains volts read
 * that day, every part moved to the ends of its spread one at a time, the excursions added up, the meter's error on top.
 * @param mainsFor mains volts valid for a point's reading
 * @throws SolveError when a condition does not converge
 */
export function testPoints(design: Design, mainsFor: (point: PointId) => number): TestPoint[] {
  const { mains, bench, demand, heat } = design;
  const made = mainModel(design);
  const model = modelOf(design);
  const { voltsPct, ohmPct } = healthySpread(design);
  const meter = (v: number) => (Math.abs(v) * bench.meterPct) / 100 + bench.meterDigitsV;
  const half = windingCount(design) === 2 ? 'each half, tap to end' : 'across the winding';
  const points: Omit<TestPoint, 'stage'>[] = [];
  const dc = dcSourceOf(design);
  const say = termsOf(design);
  const read = dc ? 'open volts read' : 'mains read';
  const opened = (mainsV: number) => (dc ? mainsV : (model.openCircuitV * mainsV) / mains.voltageRms);
  const idlePeak = (dc ? 1 : Math.SQRT2 * (1 - mains.flatTopPct / 100)) * opened(mainsVolts(design, 'high'));

  if (dc) points.push(sourcePoint(dc, meter));
  else
    points.push({
      id: 'mains',
      label: 'Mains',
      how: 'A plug-in meter, or the AC range with CAT II leads at the outlet. Leave it out where you have neither: nominal is taken.',
      unit: 'V',
      expected: figure(
        'mains',
        'Mains today',
        mains.voltageRms,
        'V',
        'chosen',
        'nominal mains with the limits of the design',
        [
          { label: 'nominal', value: mains.voltageRms, unit: 'V' },
          { label: 'low', value: mains.lowPct, unit: '%' },
          { label: 'high', value: mains.highPct, unit: '%' },
        ],
        'Your mains settings.',
        [],
      ),
      low: mains.voltageRms * (1 - mains.lowPct / 100) - meter(mains.voltageRms),
      high: mains.voltageRms * (1 + mains.highPct / 100) + meter(mains.voltageRms),
      caution:
        'Mains. Case closed or nothing bare within reach, one hand, never alone. If you are not sure, have a qualified person do this step.',
      ifLow: 'Under the range the design was judged for: widen low line, or measure again at another hour.',
      ifHigh: 'Over the range the design was judged for: widen high line and look at the ratings again.',
    });

  if (!dc) {
    const mainsV = mainsFor('secondary-open');
    const value = opened(mainsV);
    const spread = (value * voltsPct) / 100 + meter(value);
    points.push({
      id: 'secondary-open',
      label: 'Winding, open',
      how: `AC range, ${half}, nothing connected; first time through a series lamp.`,
      unit: 'V',
      expected: figure(
        'secondary-open',
        'Open-circuit winding voltage',
        value,
        'V',
        'formula',
        'rated volts × (1 + regulation) × mains read / nominal mains',
        [
          { label: 'rated', value: design.transformer.ratedV, unit: 'V' },
          {
            label: model.regulationKnown ? 'regulation' : 'regulation (typical)',
            value: 100 * model.regulation,
            unit: '%',
          },
          { label: read, value: mainsV, unit: 'V' },
        ],
        'Nameplate.',
        [`Turns ratio and regulation within ±${q(voltsPct, '%', 2)} together, then the meter.`],
      ),
      low: value - spread,
      high: value + spread,
      caution: 'Mains at the primary. Fuse and switch fitted, primary insulated, earth bonded.',
      ifLow: 'Wrong tap, half of the winding, or the lamp is still in series and glowing.',
      ifHigh: 'Wrong tap, two windings in series, or a size smaller than its plate says.',
    });
  }

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
      idlePeak > TOUCH_DC_V
        ? `${q(idlePeak, 'V')} DC can stand here, and stays after switching off. Discharge through a resistor, then check with the meter. Eye protection.`
        : 'Check the polarity of the reservoir once more; stand back at first power, eye protection on.',
    ifLow: dc
      ? 'The diode the wrong way round, a loose contact, or something already loads it.'
      : 'One diode open or the wrong way round, half a winding, or something already loads it.',
    ifHigh: dc
      ? `The ${say.source} stands higher than you read.`
      : 'A meter on AC, mains higher than you read, or a higher tap.',
  });

  if (made) {
    const spread = made.outputV * made.spread;
    points.push({
      id: 'output-idle',
      label: 'Output, no load',
      how: 'DC range, across the output.',
      unit: 'V',
      expected: figure(
        'output-idle',
        'Output without load',
        made.outputV,
        'V',
        'typical',
        'nominal output of the regulator',
        [{ label: 'spread', value: 100 * made.spread, unit: '%' }],
        made.spreadSource,
        ['The meter’s error is added to the spread.'],
      ),
      low: made.outputV - spread - meter(made.outputV),
      high: made.outputV + spread + meter(made.outputV),
      ifLow: 'Pins swapped, a short behind it, or the regulator is hot: switch off and look.',
      ifHigh: 'Ground pin open or pins swapped: switch off before a load sees it.',
    });
  }

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
  if (made) {
    const spread = made.outputV * made.spread;
    const mainsV = mainsFor('output-light');
    const out = operatingPoint(light, 'nominal', undefined, { mainsV });
    points.push({
      id: 'output-light',
      label: 'Output, light load',
      how: `DC range, across the output, about ${formatNominal(Number(lightA.toPrecision(2)), 'A')} drawn.`,
      unit: 'V',
      expected: figure(
        'output-light',
        'Output at a light load',
        out.outputMeanV,
        'V',
        'simulated',
        'mean output over the cycle, a tenth of the full load',
        [
          { label: read, value: mainsV, unit: 'V' },
          { label: 'spread', value: 100 * made.spread, unit: '%' },
        ],
        'Periodic steady state; regulator accuracy typical of the family.',
        [],
      ),
      low: out.outputMeanV - spread - meter(out.outputMeanV),
      high: out.outputMeanV + spread + meter(out.outputMeanV),
      ifLow:
        'It holds without load and lets go with a little: an oscillation, a bad joint at its pins, or a load that is a short.',
      ifHigh: 'Ground pin lifts under load, or it leans on a minimum load it does not get.',
    });
  }

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
      low: ripple.low * (1 - SPREAD.rippleReading),
      high: ripple.high * (1 + SPREAD.rippleReading) + floorV(bench),
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

  const outputMains = mainsFor('output-loaded');
  const output = operatingPoint(design, 'nominal', undefined, { mainsV: outputMains });
  const outputSpread = made ? made.outputV * made.spread : 0;
  const outputWindow = made
    ? { low: output.outputMeanV - outputSpread, high: output.outputMeanV + outputSpread }
    : loaded;
  points.push({
    id: 'output-loaded',
    label: 'Output, full load',
    how: `DC range, across the output, ${formatNominal(demand.outputA, 'A')} drawn.`,
    unit: 'V',
    expected: figure(
      'output-loaded',
      'Output at full load',
      output.outputMeanV,
      'V',
      'simulated',
      'mean output over the cycle',
      [
        { label: read, value: outputMains, unit: 'V' },
        ...(made ? [{ label: 'rejection', value: made.rejectionDb(rippleHz(design)), unit: 'dB' as Unit }] : []),
      ],
      'Periodic steady state; regulator accuracy typical of the family.',
      [],
    ),
    low: outputWindow.low - meter(outputWindow.low),
    high: outputWindow.high + meter(outputWindow.high),
    ifLow: 'Out of regulation, or limiting because it is hot: look at the reservoir’s valley and the sink.',
    ifHigh: 'Load missing or the sense of the meter: check the load current.',
  });

  const amps = currentThrough(design, output.outputMeanV);
  points.push({
    id: 'load-current',
    label: 'Load current',
    how: 'Amps range in series with the load, leads in the amps sockets, back in the volts sockets at once after.',
    unit: 'A',
    expected: figure(
      'load-current',
      'What the load draws, meter in series',
      amps,
      'A',
      'formula',
      demand.kind === 'resistance'
        ? 'load current × (output − burden) / output'
        : 'the load current: what it is set to, burden or not',
      [
        { label: 'load', value: demand.outputA, unit: 'A' },
        { label: 'burden', value: bench.burdenV, unit: 'V' },
        { label: 'output', value: output.outputMeanV, unit: 'V' },
      ],
      'The load as designed; the burden of your amps range.',
      ['Loads within ±5 % of what they say; amps ranges twice as coarse as volts, by rule of thumb.'],
    ),
    low: 0.95 * amps - ampsError(bench, amps),
    high: 1.05 * amps + ampsError(bench, amps),
    ifLow: 'The load is less than you think, or the meter’s burden starves it.',
    ifHigh: 'More is drawn than you think: everything else on this page then reads low.',
  });

  for (const o of outputsOf(design).filter((o) => o.id !== 'main')) {
    const model = outputModel(o);
    const id: PointId = o.place < 0 ? 'output-minus' : `further-${o.place}`;
    const mainsV = mainsFor(id);
    const point = operatingPoint(design, 'nominal', undefined, { mainsV });
    const { outputMeanV, outputMinV, outputMaxV } = o.place < 0 ? point.rails[1]! : point.outputs[o.place]!;
    // Without a regulator it is the rail that spreads: by what the reservoir does.
    const ends = model
      ? { low: outputMeanV - model.outputV * model.spread, high: outputMeanV + model.outputV * model.spread }
      : { low: Math.min(outputMinV, 0.92 * outputMeanV), high: Math.max(outputMaxV, 1.08 * outputMeanV) };
    points.push({
      id,
      label: `${o.name}, full load`,
      how: `DC range, across its output, ${formatNominal(o.demand.outputA, 'A')} drawn.`,
      unit: 'V',
      expected: figure(
        id,
        `${o.name} at full load`,
        outputMeanV,
        'V',
        'simulated',
        'mean of this output over the cycle',
        [{ label: read, value: mainsV, unit: 'V' }],
        model
          ? 'Periodic steady state of the rail it shares; accuracy typical of its class.'
          : 'Periodic steady state of the rail it hangs on; ±8 % for winding and mains.',
        [],
      ),
      low: ends.low - meter(ends.low),
      high: ends.high + meter(ends.high),
      ifLow: 'Out of regulation, or limiting because it is hot: look at the reservoir’s valley and its own sink.',
      ifHigh: 'Ground pin open, or its setting resistors swapped.',
    });
  }

  if (made && output.heat) {
    const warm = operatingPoint(design, 'nominal', undefined, { mainsV: mainsFor('sink-warm') });
    const expectedC = warm.heat!.sinkC;
    const working = metalWorking(warm.heat!, warm.regulatorW, made.pass.jcKPerW / made.pass.count);
    const rise = expectedC - heat.ambientC;
    const bare = output.heat.sink === null;
    points.push({
      id: 'sink-warm',
      label: bare ? 'Regulator’s case' : 'Heatsink',
      how: bare
        ? 'Thermometer on the part itself, full load for 30 minutes.'
        : 'Thermometer on the metal beside the tab, full load for 30 minutes.',
      unit: '°C',
      expected: figure(
        'sink-warm',
        bare ? 'Case temperature, warm' : 'Sink temperature, warm',
        expectedC,
        '°C',
        'formula',
        working.expression,
        working.inputs,
        'Steady heat flow.',
        [
          'Natural convection, ±30 % on its thermal resistance; the room up to 15 K cooler or 5 K warmer than assumed; the thermometer on top.',
        ],
      ),
      low: heat.ambientC - SPREAD.coolerRoomK + 0.7 * rise - bench.thermometerK,
      high: heat.ambientC + SPREAD.warmerRoomK + 1.3 * rise + bench.thermometerK,
      caution: expectedC > 60 ? `About ${q(expectedC, '°C')}: burns. Thermometer, not finger.` : undefined,
      ifLow: 'Colder room than assumed, or it is not carrying the load.',
      ifHigh: bare
        ? 'Less copper or air around it than assumed, or more input voltage than expected.'
        : 'No paste, sink lying flat or boxed in, or more input voltage than expected.',
    });
  }
  const stages = stagesOf(design);
  return points.map((p) => ({
    ...p,
    stage: stages.find((s) => s.points.includes(p.id) || s.more.includes(p.id))!.name,
  }));

  /** Value and worst-case ends of a reservoir figure under a condition at `mainsV`. */
  function window(
    condition: Condition,
    mainsV: number,
    of: Design,
    pick = (reservoir: ReturnType<typeof reservoirOf>) => reservoir.meanV,
  ) {
    const resting = of.heat.together && condition.load !== 'none' ? restingAdjust(of, 'nominal') : {};
    const at = (adjust: Adjust) => {
      const network = networkOf(of, condition, { mainsV, ...resting, ...adjust });
      // Across the reservoir itself, wherever in the filter it stands.
      return pick(reservoirOf(of, solveSteady(network, { samples: WAVE_SAMPLES }), 0));
    };
    const value = at({});
    const tolerance = of.reservoir.tolerancePct / 100;
    const trials: [Adjust, Adjust][] = [
      [{ openCircuitFactor: 1 - voltsPct / 100 }, { openCircuitFactor: 1 + voltsPct / 100 }],
      [{ resistanceFactor: 1 + ohmPct / 100 }, { resistanceFactor: 1 - ohmPct / 100 }],
      [{ capacitanceFactor: 1 - tolerance }, { capacitanceFactor: 1 + tolerance }],
      [{ diodeSaturationFactor: 1 / SPREAD.diodeSaturation }, { diodeSaturationFactor: SPREAD.diodeSaturation }],
    ];
    let low = value;
    let high = value;
    for (const pair of trials) {
      const ends = pair.map((adjust) => at(adjust) - value);
      low += Math.min(0, ...ends);
      high += Math.max(0, ...ends);
    }
    return {
      value,
      low,
      high,
      assumes: [
        `Open-circuit volts ±${q(voltsPct, '%', 2)}, ${termsOf(of).winding} resistance ±${q(ohmPct, '%', 2)}, capacitance ±` +
          q(of.reservoir.tolerancePct, '%') +
          `, ${spreadWords(diodeOf(of.rectifier))}: each simulated, the excursions added.`,
      ],
    };
  }
}
