import { acReading, ampsError } from '@/core/bench/own-instruments';
import type { MeasuredState } from '@/core/bench/measured';
import { Warming } from '@/core/bench/row-warmth';
import type { SimulatedBuild } from '@/core/bench/simulated-build';
import { dice } from '@/core/quantity/dice';
import type { InstrumentKind } from './commands';

/** Where a stand-in's probe can be put. */
const PROBES = ['RESERVOIR', 'OUTPUT', 'WINDING'] as const;
type Probe = (typeof PROBES)[number];

/** Points of a trace, over ten divisions. */
const TRACE_POINTS = 500;
const DIVISIONS = 10;
/** What an instrument sends for more than it can show. */
const OVERLOAD = '9.9E37';

/**
 * One simulated supply with four instruments around it: they answer the common commands and a few of their own, which all
 * begin with SIM. Every one of them says what it is when it is asked who it is.
 */
export class StandIns {
  private readonly warming: Warming;
  private readonly roll;
  private readonly errors: Record<InstrumentKind, string[]> = { meter: [], load: [], scope: [], source: [] };
  private lastS: number;
  private loadA = 0;
  private loadOn = false;
  private sourceOn = true;
  private probe: Probe = 'OUTPUT';
  /** Whether the meter stands on amps, in series with the load, and takes its burden. */
  private inSeries = false;
  private timeS = 0.005;
  private voltScale = 1;

  /**
   * @param clock seconds
   * @param speed how many times as fast as real its copper and metal warm
   */
  constructor(
    private readonly build: SimulatedBuild,
    private mainsV: number,
    private readonly clock: () => number,
    private readonly speed = 1,
  ) {
    this.warming = new Warming(build.design);
    this.roll = dice(build.hidden.seed + 1);
    this.lastS = clock();
  }

  /** What an instrument answers a line; null where it says nothing. */
  answer(kind: InstrumentKind, line: string): string | null {
    const [head, rest] = split(line);
    const common = this.common(kind, head);
    if (common !== undefined) return common;
    try {
      const own = this.own(kind, head, rest);
      if (own !== undefined) return own;
      this.errors[kind].push(`-113,"Undefined header; ${head.slice(0, 40)}"`);
      return head.endsWith('?') ? '' : null;
    } catch (error) {
      this.errors[kind].push(`-200,"Execution error; ${error instanceof Error ? error.message : 'unknown'}"`);
      return head.endsWith('?') ? OVERLOAD : null;
    }
  }

  private common(kind: InstrumentKind, head: string): string | null | undefined {
    const { seed } = this.build.hidden;
    switch (head) {
      case '*IDN?':
        return `EMBER RAIL,SIMULATED ${kind.toUpperCase()},SEED ${seed},SPEED ${this.speed}`;
      case '*OPC?':
        return '1';
      case '*CLS':
        this.errors[kind] = [];
        return null;
      case '*RST':
        if (kind === 'load') this.setLoad(this.loadA, false);
        return null;
      case 'SYST:ERR?':
        return this.errors[kind].shift() ?? '0,"No error"';
      default:
        return undefined;
    }
  }

  private own(kind: InstrumentKind, head: string, rest: string): string | null | undefined {
    if (kind === 'meter') return this.meter(head, rest);
    if (kind === 'load') return this.load(head, rest);
    if (kind === 'scope') return this.scope(head, rest);
    return this.source(head, rest);
  }

  private meter(head: string, rest: string): string | null | undefined {
    switch (head) {
      case 'SIM:PROB':
        if (!PROBES.includes(rest.toUpperCase() as Probe)) return undefined;
        this.probe = rest.toUpperCase() as Probe;
        return null;
      case 'SIM:PROB?':
        return this.probe;
      case 'CONF:VOLT:DC':
      case 'CONF:VOLT:AC':
        return null;
      case 'READ?':
      case 'MEAS:VOLT:DC?':
        this.inSeries = false;
        return this.probe === 'WINDING' ? shown(this.meterNoise(0, 0.01)) : shown(this.meterV());
      case 'MEAS:VOLT:AC?':
        this.inSeries = false;
        if (this.probe === 'WINDING') return shown(this.metered(this.sourceOn ? this.at('winding', 'open') : 0));
        return shown(this.metered(this.acV()));
      case 'MEAS:CURR:DC?':
        this.inSeries = true;
        return shown(this.meteredA());
      case 'MEAS:RES?':
        // Ohms are read of what has no power on it.
        return this.sourceOn ? OVERLOAD : shown(this.windingOhm());
      case 'MEAS:TEMP?':
        return shown(this.meterNoise(this.at('sink'), 0.5));
      default:
        return undefined;
    }
  }

  /** What is left at the load's own terminals. */
  private atLoadV(): number {
    const burdenV = this.inSeries && this.drawn() > 0 ? this.build.design.bench.burdenV : 0;
    return Math.max(0, this.at('output') - burdenV);
  }

  private load(head: string, rest: string): string | null | undefined {
    switch (head) {
      case 'FUNC':
        return rest.toUpperCase() === 'CURR' ? null : undefined;
      case 'CURR': {
        const amps = Number(rest);
        if (!(amps >= 0 && amps <= 60)) return undefined;
        this.setLoad(amps, this.loadOn);
        return null;
      }
      case 'CURR?':
        return shown(this.loadA);
      case 'INP':
        if (!/^(ON|OFF|1|0)$/i.test(rest)) return undefined;
        this.setLoad(this.loadA, /^(ON|1)$/i.test(rest));
        return null;
      case 'INP?':
        return this.loadOn ? '1' : '0';
      case 'MEAS:VOLT?':
        return shown(this.metered(this.atLoadV()));
      case 'MEAS:CURR?':
        return shown(this.meteredA());
      case 'MEAS:POW?':
        return shown(this.metered(this.atLoadV()) * this.drawn());
      default:
        return undefined;
    }
  }

  private scope(head: string, rest: string): string | null | undefined {
    const positive = () => {
      const value = Number(rest);
      return value > 0 && value <= 1e3 ? value : null;
    };
    switch (head) {
      case 'TIM:SCAL': {
        const value = positive();
        if (value === null) return undefined;
        this.timeS = value;
        return null;
      }
      case 'TIM:SCAL?':
        return shown(this.timeS);
      case 'CHAN1:SCAL': {
        const value = positive();
        if (value === null) return undefined;
        this.voltScale = value;
        return null;
      }
      case 'CHAN1:SCAL?':
        return shown(this.voltScale);
      case 'ACQ':
        return null;
      case 'WAV:XINC?':
        return shown((DIVISIONS * this.timeS) / TRACE_POINTS);
      case 'WAV:DATA?':
        return this.trace().map(shown).join(',');
      default:
        return undefined;
    }
  }

  private source(head: string, rest: string): string | null | undefined {
    switch (head) {
      case 'VOLT': {
        const volts = Number(rest);
        if (!(volts >= 0.3 && volts <= 300)) return undefined;
        this.passed();
        this.mainsV = volts;
        return null;
      }
      case 'VOLT?':
        return shown(this.mainsV);
      case 'OUTP':
        if (!/^(ON|OFF|1|0)$/i.test(rest)) return undefined;
        this.passed();
        this.sourceOn = /^(ON|1)$/i.test(rest);
        return null;
      case 'OUTP?':
        return this.sourceOn ? '1' : '0';
      case 'MEAS:VOLT:AC?':
      case 'MEAS:VOLT?':
        return shown(this.sourceOn ? this.meterNoise(this.mainsV, 0.0005 * this.mainsV) : 0);
      default:
        return undefined;
    }
  }

  private setLoad(amps: number, on: boolean): void {
    this.passed();
    this.loadA = amps;
    this.loadOn = on;
  }

  /** Lets the time since last time go by in copper and metal. */
  private passed(): void {
    const now = this.clock();
    this.warming.pass(Math.max(0, now - this.lastS) * this.speed, this.drawn(), this.mainsV);
    this.lastS = now;
  }

  private drawn(): number {
    return this.loadOn && this.sourceOn ? this.loadA : 0;
  }

  private now(load: MeasuredState['load'] = this.drawn()): MeasuredState {
    this.passed();
    return { mainsV: this.mainsV, load, ...this.warming.state };
  }

  /** What stands somewhere right now; nothing where it is not fed. */
  private at(quantity: Parameters<SimulatedBuild['read']>[0], load?: MeasuredState['load']): number {
    if (!this.sourceOn && quantity !== 'sink') return 0;
    return this.build.read(quantity, this.now(load));
  }

  /** What the meter's AC range shows of what swings where its leads are; behind a regulator next to nothing does. */
  private acV(): number {
    const { design } = this.build;
    if (!this.sourceOn || (this.probe === 'OUTPUT' && design.regulator.kind !== 'none')) return 0;
    return acReading(this.build.wave(this.now()).volts, design.bench);
  }

  private meterV(): number {
    return this.metered(this.at(this.probe === 'RESERVOIR' ? 'reservoir' : 'output'));
  }

  /** As the person's own meter shows it: its printed error is two standard deviations. */
  private metered(value: number): number {
    const { meterPct, meterDigitsV } = this.build.design.bench;
    return this.meterNoise(value, 0.5 * ((Math.abs(value) * meterPct) / 100 + meterDigitsV) * STEADY);
  }

  /** The current as an amps range or the load itself shows it. */
  private meteredA(): number {
    const amps = this.drawn();
    return this.meterNoise(amps, 0.5 * ampsError(this.build.design.bench, amps) * STEADY);
  }

  private meterNoise(value: number, sigma: number): number {
    return value + sigma * this.roll.normal();
  }

  private windingOhm(): number {
    return this.metered(this.build.windingColdOhm);
  }

  /** Ten divisions of the reservoir, coupled for alternating current, with the instrument's floor. */
  private trace(): number[] {
    const floor = this.build.design.bench.scopeFloorV / FLOOR_SIGMAS;
    const stepS = (DIVISIONS * this.timeS) / TRACE_POINTS;
    if (!this.sourceOn) return Array.from({ length: TRACE_POINTS }, () => this.meterNoise(0, floor));
    const { volts, stepS: own } = this.build.wave(this.now());
    const mean = volts.reduce((a, b) => a + b, 0) / volts.length;
    const start = this.roll.uniform() * volts.length;
    return Array.from({ length: TRACE_POINTS }, (_, n) => {
      const at = (start + (n * stepS) / own) % volts.length;
      const k = Math.floor(at);
      const next = volts[(k + 1) % volts.length]!;
      return this.meterNoise(volts[k]! + (at - k) * (next - volts[k]!) - mean, floor);
    });
  }
}

/** A good part of a meter's printed error is the same at every reading: so much of it comes and goes. */
const STEADY = 0.3;
/** White noise of one standard deviation looks so many of them high on a screen. */
const FLOOR_SIGMAS = 6;

const shown = (value: number): string => String(Number(value.toPrecision(7)));

/** A line as its header, in its short form, and what follows it. */
function split(line: string): [string, string] {
  const trimmed = line.trim().replace(/^:/, '');
  const gap = trimmed.search(/\s/);
  const head = gap < 0 ? trimmed : trimmed.slice(0, gap);
  return [shortened(head.toUpperCase()), gap < 0 ? '' : trimmed.slice(gap).trim()];
}

/** Words of a header by their first four letters, three where the fourth is a vowel: MEASURE:VOLTAGE is MEAS:VOLT. */
function shortened(head: string): string {
  if (head.startsWith('*')) return head;
  return head
    .split(':')
    .map((word) => {
      const [, letters, tail] = /^([A-Z]+)(.*)$/.exec(word) ?? [word, word, ''];
      if (letters!.length <= 4) return word;
      const short = /[AEIOU]/.test(letters![3]!) ? letters!.slice(0, 3) : letters!.slice(0, 4);
      return short + tail!;
    })
    .join(':');
}
