import { atOnce } from '@/core/quantity/at-once';
import { capitalised } from '@/core/quantity/format';
import { arrangementFacts, dcSourceOf, hasDiodes, termsOf } from '@/core/design/source';
import { butFor, CONDITIONS, type Condition } from '@/core/circuit/condition';
import { networkOf } from '@/core/circuit/network-of';
import { loadsOfOutput } from '@/core/circuit/loads-of';
import { outputModel, outputsOf, type Output } from '@/core/design/outputs';
import { scaledLoads } from './load-line';
import { placedParts, reservoirPlace } from '@/core/circuit/filter-of';
import { regulatorOutput } from '@/core/circuit/load-law';
import type { Load } from '@/core/circuit/network';
import { applyPatch, type Design } from '@/core/design/design';
import { isSplit } from '@/core/design/words';
import type { Solution, Waveforms } from '@/core/solve/solution';
import { SolveError } from '@/core/solve/solve-error';
import type { Figure, FigureInput } from './figure';
import { restingAdjust } from './operating-point';
import { rippleHz } from './point';
import { solveSteady } from '@/core/solve/steady';
import { solveDip } from '@/core/solve/dip';
import { solveChange, solveDrift, solveStart } from '@/core/solve/transient';
import type { ScopeBand, ScopeRun, Trace, Traces } from './scope-shapes';

const SAMPLES = 500;

/** Runs over many cycles are drawn with fewer samples in each. */
const COARSE_SAMPLES = 100;

/** Runs of more cycles than this are drawn with fewer samples in each; the most an event is followed for. */
const FINE_CYCLES = 40;

const MOST_CYCLES = 240;

/** Two cycles read alike whose means differ by less than this share of the run's whole swing. */
const ALIKE = 0.005;

/** Cycles a steady run is drawn over. */
const STEADY_CYCLES = 2;

/** Everything a probe could show of a design in one run, in one go. */
export const scopeTraces = (design: Design, run: ScopeRun, band: ScopeBand): Traces =>
  atOnce(tracing(design, run, band));

/**
 * Everything a probe could show of a design in one run, a step for each look at it, longer and longer: nodes and branch currents of each rail.
 * @throws SolveError naming the run when it has no solution
 */
export function* tracing(design: Design, run: ScopeRun, band: ScopeBand): Generator<number, Traces> {
  const condition: Condition = CONDITIONS[band];
  const resting = restingAdjust(design, condition.id);
  const network = networkOf(design, condition, resting);
  const scaled = (share: number) => {
    // A load of nothing is the load taken away.
    return share > 0
      ? networkOf(applyPatch(design, scaledLoads(design, share)), condition, resting)
      : networkOf(design, butFor(condition, { load: 'none' }), resting);
  };
  let solution: Solution;
  let notes: Traces['notes'] = [];
  const note = (
    label: string,
    value: number,
    unit: Figure['unit'],
    expression: string,
    inputs: FigureInput[] = [],
  ) => ({
    id: label.replaceAll(' ', '-'),
    label,
    value,
    unit,
    origin: 'simulated' as const,
    condition: termsOf(design)[band],
    expression,
    inputs,
    source: 'The solver’s own figure of this run, found between its samples.',
    assumes: [],
  });
  let perCycle = run.kind === 'drift' ? COARSE_SAMPLES : SAMPLES;
  let options = { samples: perCycle };
  /** An event is followed until two cycles read alike, or for as long as anybody would watch. */
  function* untilSettled(solve: (cycles: number) => Solution, first: number): Generator<number, Solution> {
    let last: Solution | null = null;
    for (let cycles = first; ; cycles = Math.min(2 * cycles, MOST_CYCLES)) {
      const samples = cycles > FINE_CYCLES ? COARSE_SAMPLES : SAMPLES;
      options = { samples };
      try {
        last = solve(cycles);
      } catch (error) {
        // A longer look that takes too long leaves the shorter one.
        if (last && error instanceof SolveError) return last;
        throw error;
      }
      perCycle = samples;
      if (cycles >= MOST_CYCLES || hasSettled(last.waveforms!, perCycle)) return last;
      yield cycles;
    }
  }
  try {
    switch (run.kind) {
      case 'steady':
        solution = solveSteady(network, options);
        notes = [
          note('mean', solution.rails[0]!.meanV, 'V', 'mean of the rail over one cycle'),
          note('ripple p-p', solution.rails[0]!.ripplePeakToPeakV, 'V', 'highest − lowest of the rail in one cycle', [
            { label: 'highest', value: solution.rails[0]!.maxV, unit: 'V' },
            { label: 'lowest', value: solution.rails[0]!.minV, unit: 'V' },
          ]),
          note('ripple RMS', solution.rails[0]!.rippleRmsV, 'V', '√(mean of (rail − its mean)² over one cycle)'),
        ];
        break;
      case 'start': {
        const cold = networkOf(design, { ...CONDITIONS.surge, mains: condition.mains });
        solution = solveStart(cold, run.cycles, run.phaseDeg, options);
        const { peakDiodeA, i2tDiode } = solution.start!;
        // Of where it settles, not of how far this run got.
        const settlesV = solveSteady(cold).rails[0]!.meanV;
        const reached = solution.waveforms!.railV[0]!.findIndex((v) => v >= 0.9 * settlesV);
        notes = [
          note('highest diode current', peakDiodeA, 'A', 'largest current in any diode, from an empty reservoir'),
          note('I²t', i2tDiode, 'A²s', '∫ current² dt through the worst diode, over the whole run'),
          ...(reached < 0
            ? []
            : [
                note(
                  'nine tenths after',
                  reached / (design.mains.frequencyHz * perCycle),
                  's',
                  'until the rail first reaches 0.9 of where it settles',
                  [{ label: 'settles at', value: settlesV, unit: 'V', origin: 'simulated' }],
                ),
              ]),
        ];
        break;
      }
      case 'step':
      case 'removal': {
        const [from, to] = run.kind === 'removal' ? [1, run.remainShare] : [run.fromShare, run.toShare];
        solution = yield* untilSettled((cycles) => solveChange(scaled(from), scaled(to), cycles, options), run.cycles);
        const { beforeMeanV, minV, maxV } = solution.step!;
        notes = [
          note('mean before', beforeMeanV, 'V', 'mean of the rail over the last cycle before the change'),
          note('lowest after', minV, 'V', 'lowest instant of the rail after the change'),
          note('highest after', maxV, 'V', 'highest instant of the rail after the change'),
        ];
        break;
      }
      case 'drift': {
        const from = networkOf(design, { ...condition, mains: run.to === 'low' ? 'high' : 'low' }, resting);
        const to = networkOf(design, { ...condition, mains: run.to }, resting);
        const toFactor = to.sections[0]!.winding.voltageRms / from.sections[0]!.winding.voltageRms;
        solution = solveDrift(from, { toFactor, cycles: run.cycles }, options);
        const { beforeMeanV, minV, maxV } = solution.step!;
        notes = [
          note('mean before', beforeMeanV, 'V', 'mean of the rail over the last cycle before the change'),
          note('mean at the end', solution.rails[0]!.meanV, 'V', 'mean of the rail over the last cycle of the run'),
          note('lowest', minV, 'V', 'lowest instant of the rail in the run'),
          note('highest', maxV, 'V', 'highest instant of the rail in the run'),
        ];
        break;
      }
      case 'dip': {
        solution = yield* untilSettled(
          (cycles) => solveDip(network, { missingCycles: run.missingCycles, cycles, atCycle: 1 }, options),
          Math.ceil(run.missingCycles) + run.cycles,
        );
        const { minV, timeToMinS, peakDiodeA, recoveredWithinS } = solution.dip!;
        notes = [
          note('lowest', minV, 'V', 'lowest instant of the rail in the run'),
          note('after', timeToMinS, 's', 'from the first missing instant to the lowest one'),
          note('recharging pulse', peakDiodeA, 'A', 'largest diode current once the source is back'),
          ...(recoveredWithinS === null
            ? []
            : [
                note(
                  'recovered within',
                  recoveredWithinS,
                  's',
                  'from the return until the rail stays a whole cycle above 0.99 × its valley before',
                ),
              ]),
        ];
        break;
      }
    }
  } catch (error) {
    if (error instanceof SolveError) throw new SolveError(`This run has no solution: ${error.message}.`);
    throw error;
  }
  const traces = tracesOf(design, solution.waveforms!, condition);
  if (run.kind === 'steady') {
    for (const trace of traces) trace.values = Array.from({ length: STEADY_CYCLES }, () => trace.values).flat();
  }
  return { stepS: 1 / design.mains.frequencyHz / perCycle, perCycle, traces, notes };
}

/** Whether the last two cycles of every rail read alike. */
function hasSettled({ railV }: Waveforms, perCycle: number): boolean {
  return railV.every((volts) => {
    const end = volts.length;
    if (end < 3 * perCycle) return false;
    const mean = (from: number) => volts.slice(from, from + perCycle).reduce((a, b) => a + b, 0) / perCycle;
    const swing = Math.max(...volts) - Math.min(...volts);
    return Math.abs(mean(end - perCycle) - mean(end - 2 * perCycle)) <= ALIKE * Math.max(swing, 1e-3);
  });
}

function tracesOf(design: Design, waves: Waveforms, condition: Condition): Trace[] {
  const split = isSplit(design);
  const place = reservoirPlace(design);
  const feed = capitalised(termsOf(design).winding);
  const out: Trace[] = [
    { id: 'winding-v', label: `${feed}, open`, unit: 'V', values: waves.sourceV },
    { id: 'winding-a', label: `${feed} current`, unit: 'A', values: waves.windingA[0]! },
  ];
  waves.railV.forEach((railV, r) => {
    const sign = r === 1 ? -1 : 1;
    const side = split ? (r === 0 ? ' (+)' : ' (−)') : '';
    const volts = (id: string, label: string, values: readonly number[]) =>
      out.push({ id: `${id}-${r}`, label: label + side, unit: 'V', values: values.map((v) => sign * v) });
    volts('input-v', dcSourceOf(design) ? 'Behind the diode' : 'Rectifier output', waves.inputV[r]!);
    const doubler = arrangementFacts(design).stacked > 1;
    if (place >= 0 && !doubler) volts('reservoir-v', 'Reservoir', waves.elementV[r]![place]!);
    if (design.filter.after.length > 0 || place < 0) volts('rail-v', 'Behind the filter', railV);
    for (const output of outputsOf(design).filter((o) => o.rail === r)) {
      const [load] = loadsOfOutput(design, output, condition);
      const further = output.place >= 0;
      if (load?.kind === 'regulator')
        volts(
          further ? `further-v${output.place}` : 'output-v',
          further ? output.name : 'Output',
          regulated(design, output, load, railV),
        );
    }
    placedParts(design)
      .filter(({ part }) => part.kind === 'choke')
      .forEach(({ at }, n, chokes) =>
        out.push({
          id: n === 0 ? `choke-a-${r}` : `choke-a-${r}-${n + 1}`,
          label: `Choke current${chokes.length > 1 ? ` ${n + 1}` : ''}${side}`,
          unit: 'A',
          values: waves.elementA[r]![at]!,
        }),
      );
  });
  if (hasDiodes(design)) out.push({ id: 'diode-a', label: 'First diode', unit: 'A', values: waves.diodeA[0]! });
  return out;
}

/** Output of a regulator: what dropout lets through, and of the rest what its rejection leaves. */
function regulated(
  design: Design,
  output: Output,
  regulator: Extract<Load, { kind: 'regulator' }>,
  railV: readonly number[],
): number[] {
  const left = 10 ** (-outputModel(output)!.rejectionDb(rippleHz(design, output.rail)) / 20);
  const mean = railV.reduce((a, b) => a + b, 0) / railV.length;
  return railV.map((v) => regulatorOutput(regulator, v) + left * (v - mean));
}
