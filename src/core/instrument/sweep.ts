import { blankRow } from '@/core/design/blank-row';
import type { LoadRow } from '@/core/design/design';

/** A sweep of the load as it is asked for. */
export interface SweepPlan {
  /** Amperes of each step, in their order. */
  amps: number[];
  /** How long each load hangs on before it is read, s. */
  settleS: number;
  /** Mains, or open volts of the source, where no source is asked for them, V. */
  sourceV: number;
  /** Where the meter's leads are. */
  meterOn: 'reservoir' | 'output' | 'none';
  limits: SweepLimits;
}

/** What a sweep stops at. */
export interface SweepLimits {
  /** Below so many volts at the load's terminals. */
  leastV: number;
  mostA: number;
  mostW: number;
  mostC: number | null;
  mostMinutes: number;
}

/** What a sweep works with: each may fail with a sentence. */
export interface SweepBench {
  loadAmps(amps: number): Promise<void>;
  loadOn(): Promise<void>;
  /** Tells it to switch off and asks whether it did. @throws where that cannot be known */
  loadOff(): Promise<void>;
  loadReads(): Promise<{ volts: number; amps: number }>;
  /** What there is beside the load; null where nothing is. */
  meterV: (() => Promise<number>) | null;
  rippleV: (() => Promise<number>) | null;
  metalC: (() => Promise<number>) | null;
  sourceV: (() => Promise<number>) | null;
  wait(seconds: number, stop: AbortSignal): Promise<void>;
  now(): Date;
  /** Whether what is read comes from a stand-in: every row then says so. */
  simulated(): Promise<boolean>;
}

/** How a sweep ended. */
export interface SweepEnd {
  /** In a sentence. */
  why: string;
  /** Whether the load said that it is off. */
  off: boolean;
  /** Why that is not known. */
  offFault?: string;
  complete: boolean;
}

const TOO_MUCH = 1.02;

/** Why a plan cannot be run, as a sentence; null where it can. */
export function planFault({ amps, settleS, limits }: SweepPlan): string | null {
  if (amps.length === 0) return 'A sweep needs one step or more.';
  if (amps.length > 100) return '100 steps are the most.';
  if (amps.some((a) => !(a >= 0) || a > limits.mostA))
    return `A step lies above the ${limits.mostA} A that are the most you allow.`;
  if (!(settleS >= 0.2 && settleS <= 3600)) return 'A load hangs on for 0.2 s to an hour before it is read.';
  if (!(limits.mostMinutes > 0 && limits.mostMinutes <= 24 * 60)) return 'A sweep ends within a day.';
  if ((amps.length * settleS) / 60 > limits.mostMinutes)
    return `So many steps take ${((amps.length * settleS) / 60).toFixed(1)} minutes, longer than you allow.`;
  if (!(limits.leastV >= 0) || !(limits.mostW > 0)) return 'Volts and watts to stop at have to be given.';
  return null;
}

/**
 * Steps the load through its amperes, reads after each has settled, and stops at the first limit, on a fault or when
 * told to. Whichever way it ends, the load is told to switch off before the end is told.
 */
export async function runSweep(
  bench: SweepBench,
  plan: SweepPlan,
  stop: AbortSignal,
  onRow: (row: LoadRow) => void,
): Promise<SweepEnd> {
  let why = 'All steps are read.';
  let complete = false;
  try {
    why = await steps(bench, plan, stop, onRow);
    complete = why === DONE;
  } catch (error) {
    why = stop.aborted ? STOPPED : sentenceOf(error);
  }
  try {
    await bench.loadOff();
    return { why, complete, off: true };
  } catch (error) {
    return { why, complete, off: false, offFault: sentenceOf(error) };
  }
}

const DONE = 'All steps are read.';
const STOPPED = 'Stopped by you.';
const sentenceOf = (error: unknown) => (error instanceof Error ? error.message : String(error));

async function steps(
  bench: SweepBench,
  plan: SweepPlan,
  stop: AbortSignal,
  onRow: (row: LoadRow) => void,
): Promise<string> {
  const { limits } = plan;
  const until = bench.now().getTime() + 60_000 * limits.mostMinutes;
  const note = (await bench.simulated()) ? 'swept, simulated' : 'swept';
  let on = false;
  for (const amps of plan.amps) {
    if (stop.aborted) return STOPPED;
    await bench.loadAmps(amps);
    if (!on) {
      await bench.loadOn();
      on = true;
    }
    // Looked at right away, and while it settles: a limit is not waited for.
    for (let leftS = plan.settleS; ;) {
      const crossed = await beyond(bench, limits, amps);
      if (crossed) return crossed;
      if (bench.now().getTime() > until) return `Stopped after ${limits.mostMinutes} minutes, the most you allow.`;
      if (leftS <= 0) break;
      const waits = Math.min(LOOK_S, leftS);
      await bench.wait(waits, stop);
      if (stop.aborted) return STOPPED;
      leftS -= waits;
    }
    const reads = await bench.loadReads();
    const at = bench.meterV ? upright('meter', await bench.meterV()) : null;
    onRow(
      blankRow({
        at: bench.now().toISOString(),
        mainsV: bench.sourceV ? await bench.sourceV() : plan.sourceV,
        fedFrom: bench.sourceV ? 'variable' : 'mains',
        loadA: upright('load', reads.amps),
        reservoirV: plan.meterOn === 'reservoir' ? at : null,
        rippleV: bench.rippleV ? await bench.rippleV() : null,
        outputV: plan.meterOn === 'output' && at !== null ? at : upright('load', reads.volts),
        sinkC: bench.metalC ? await bench.metalC() : null,
        loadedS: plan.settleS,
        note,
      }),
    );
  }
  return DONE;
}

/** What an instrument may read below nothing by its noise alone. */
const NOISE = 0.05;

/** A reading that has to be above nothing. @throws Error where its sign is the other way round */
function upright(name: string, value: number): number {
  if (value < -NOISE) throw new Error(`The ${name} reads ${value.toFixed(2)}, below nothing: are its leads swapped?`);
  return Math.max(0, value);
}

/** How often limits are looked at while a load settles, s. */
const LOOK_S = 2;

async function beyond(bench: SweepBench, limits: SweepLimits, asked: number): Promise<string | null> {
  const { volts, amps } = await bench.loadReads();
  const metal = limits.mostC === null || !bench.metalC ? null : await bench.metalC();
  if (volts < limits.leastV && asked > 0) return `Stopped at ${volts.toFixed(2)} V, below your ${limits.leastV} V.`;
  if (amps > limits.mostA * TOO_MUCH) return `Stopped at ${amps.toFixed(3)} A, above your ${limits.mostA} A.`;
  if (volts * amps > limits.mostW) return `Stopped at ${(volts * amps).toFixed(1)} W, above your ${limits.mostW} W.`;
  if (metal !== null && metal > limits.mostC!)
    return `Stopped at ${metal.toFixed(0)} °C, above your ${limits.mostC} °C.`;
  return null;
}
