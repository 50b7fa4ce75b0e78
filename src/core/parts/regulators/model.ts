import type { Unit } from '@/core/quantity/parse';

/** A small part that belongs to a regulator, and what it is for. */
export interface SmallPart {
  what: string;
  value: number | null;
  unit: Unit;
  why: string;
}

/** A number of the regulator's own arithmetic, with its working. */
export interface Setting {
  label: string;
  value: number;
  unit: Unit;
  expression: string;
  inputs: { label: string; value: number; unit: Unit }[];
}

/** What a part of a regulator beside its pass device stands in. */
export interface Burning {
  /** Volts at the input and at the output, and output current, at one instant. */
  inputV: number;
  outputV: number;
  amps: number;
}

/** A part of a regulator beside its pass device that burns watts of its own. */
export interface Burner {
  label: string;
  watts: (at: Burning) => number;
  /** What it bears for long, W; null where it is bought for twice what it burns. */
  bearsW: number | null;
}

/** A branch from the input to ground that draws (V - fromV)/ohm once the input stands above fromV. */
export interface Drain {
  fromV: number;
  ohm: number;
}

/** What gets hot, and how it is held: one device, or `count` alike ones that share the current. */
export interface PassDevice {
  package: string;
  /** Which lead the metal is joined to. */
  tab: 'ground' | 'input' | 'output' | 'none';
  /** Leads from the left, the printed face towards you. */
  pins: string;
  takesSink: boolean;
  /** How many share the current: all that are fitted, or one of them where nothing makes them share. */
  count: number;
  fitted: number;
  /** Junction to case of one device, and to free air without a sink, K/W. */
  jcKPerW: number;
  jaKPerW: number;
  junctionMaxC: number;
  /** Largest current one device bears at a voltage across it for long, A: power and second breakdown, case at 25 °C. */
  safeA: ((volts: number) => number) | null;
}

/** Something that can be wrong with a regulator, by what then comes out of it. */
export interface OutputFailure {
  /** Nothing; the whole input; as much as the pass device lets through; the least its reference allows. */
  how: 'dead' | 'through' | 'top' | 'bottom';
  /** How common it is among supplies somebody doubts, 0 to 1. Rule of thumb. */
  share: number;
  /** What it holds at the bottom, V. */
  heldV?: number;
}

/** What any of them can come to: pins or joints gone, the pass device shorted, the ground or what sets it open. */
export const FAILS_ANYWAY: readonly OutputFailure[] = [
  { how: 'dead', share: 0.05 },
  { how: 'through', share: 0.02 },
  { how: 'top', share: 0.03 },
];

/** One that is set by resistors, and holds its reference where the lower one is shorted. */
export const failsToReference = (heldV: number): readonly OutputFailure[] => [
  ...FAILS_ANYWAY,
  { how: 'bottom', share: 0.02, heldV },
];

/** A regulator as the rest of the program sees it, whatever family it is of. All typical of the class. */
export interface RegulatorModel {
  family: string;
  /** As printed on the part, or in words. */
  name: string;
  /** Highest output it is set for, V: what is simulated. */
  outputV: number;
  /** Lowest it can be set to, V: the same where nothing can be set. */
  lowestV: number;
  /** Accuracy of the output over spread, line and load, as a fraction. */
  spread: number;
  spreadSource: string;
  /** Least volts between input and output: base, and what each ampere adds, at a junction of 25 °C. */
  dropoutV: number;
  dropoutOhm: number;
  /** What warmth does to the dropout, V/K. */
  dropoutVPerK: number;
  ratedA: number;
  /** Where its own limit sets in, A, and what flows into a short with so many volts across it, A. */
  limitA: number;
  shortA: (acrossV: number) => number;
  /** Whether it protects itself against heat and shorts. */
  limitsItself: boolean;
  /** What its parts can do to the output when they die. */
  failsTo: readonly OutputFailure[];
  quiescentA: number;
  /** What else it draws from its input. */
  drains: (outputV: number) => Drain[];
  /** Share of the output current that comes through the pass device; the rest comes through a drain, as base current. */
  passShare: number;
  /** What its output falls by with each ampere, ohm. */
  outputOhm: number;
  /** Current that has to flow out of it to stay in regulation, A: of the worst part, and of a typical one. */
  minimumLoadA: number;
  minimumTypicalA: number;
  /** What its own divider draws of that, A. */
  dividerA: number;
  inputMaxV: number;
  inputLimitSource: string;
  /** Ripple rejection at a frequency, dB. */
  rejectionDb: (hz: number) => number;
  /** Output noise 10 Hz to 100 kHz, V RMS. */
  noiseV: number;
  pass: PassDevice;
  /** Other parts of it that get warm. */
  burners: Burner[];
  /** Which figures of the person's own data sheet stand in it, by the sheet's names; left out for none. */
  theirs?: readonly string[];
  /** What its capacitors have to be. */
  capacitors: string;
  small: SmallPart[];
  settings: Setting[];
  priceEur: number;
}

/** Least volts between input and output at a current, V. @param junctionC °C */
export function dropoutAt(model: RegulatorModel, amps: number, junctionC = 25): number {
  return Math.max(0, model.dropoutV + model.dropoutOhm * amps + model.dropoutVPerK * (junctionC - 25));
}

/** Where the metal lies, in words. */
export function tabWords({ takesSink, tab }: PassDevice): string {
  return takesSink || tab !== 'none' ? `its metal is the ${tab}` : 'no tab';
}

/** A limit that holds whatever stands across it. */
export const always =
  (amps: number): ((acrossV: number) => number) =>
  () =>
    amps;

/** Rejection that falls by a decade of ripple for each decade of frequency above a corner: one slow loop. */
export function fallingRejection(lowDb: number, cornerHz: number): (hz: number) => number {
  return (hz) => Math.max(0, lowDb - 10 * Math.log10(1 + (hz / cornerHz) ** 2));
}

/** Parts every three-terminal regulator wants at its pins. */
export const PIN_CAPACITORS: readonly SmallPart[] = [
  {
    what: 'Capacitor, input pin to ground',
    value: 330e-9,
    unit: 'F',
    why: 'where the reservoir is more than a few centimetres of wire away',
  },
  { what: 'Capacitor, output pin to ground', value: 100e-9, unit: 'F', why: 'keeps it quiet at high frequency' },
];

export const REVERSE_DIODE: SmallPart = {
  what: 'Diode 1N4002, output to input',
  value: null,
  unit: '',
  why: 'a large capacitor behind it, or a shorted input, would otherwise discharge backwards through it',
};
