import { CONDITIONS } from '@/core/circuit/condition';
import { applyPatch } from '@/core/design/design';
import { outputModel, outputsOf } from '@/core/design/outputs';
import { formatNominal } from '@/core/quantity/format';
import type { Unit } from '@/core/quantity/parse';
import { scaledLoads } from '@/core/study/load-line';
import { operatingPoint } from '@/core/study/operating-point';
import { rippleHz } from '@/core/study/point';
import { ampsError, currentThrough } from './own-instruments';
import type { Point, PointContext } from './point-context';
import { LIGHT } from './stages';
import { figure, type PointId } from './test-point';

/** What comes out: idle, lightly and fully loaded, the current, and every further output. */
export function outputPoints(context: PointContext): Point[] {
  const { design, mainsFor, made, read, meter, window } = context;
  const points: Point[] = [];
  const { demand, bench } = design;
  const light = applyPatch(design, scaledLoads(design, LIGHT));
  const lightA = LIGHT * demand.outputA;
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
  if (made) {
    const spread = made.outputV * made.spread;
    const mainsV = mainsFor('output-light');
    const out = operatingPoint(light, 'nominal', { mainsV });
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

  const outputMains = mainsFor('output-loaded');
  const output = operatingPoint(design, 'nominal', { mainsV: outputMains });
  const outputSpread = made ? made.outputV * made.spread : 0;
  const outputWindow = made
    ? { low: output.outputMeanV - outputSpread, high: output.outputMeanV + outputSpread }
    : window({ ...CONDITIONS.nominal }, outputMains, design);
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
    const point = operatingPoint(design, 'nominal', { mainsV });
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
  return points;
}
