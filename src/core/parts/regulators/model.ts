import type { Unit } from '@/core/quantity/parse';

/** A small part that belongs to a regulator, and what it is for. */
export interface SmallPart {
  what: string;
  value: number | null;
  unit: Unit;
  why: string;
  /** What the negative twin wants in its place, where that is another value. */
  twinValue?: number;
}

export type WiredKind =
  'regulator' | 'transistor' | 'diode' | 'zener' | 'resistor' | 'pot' | 'capacitor' | 'electrolytic' | 'control';

/**
 * A part of a regulator as it is joined: pins by name, each on one of the regulator's own nets, of which 'in', 'out' and
 * 'ground' lead out of it. All for a positive rail.
 */
export interface WiredPart {
  kind: WiredKind;
  /** What it is there for. */
  what: string;
  /** As printed, where it is no plain value. */
  name?: string;
  value: number | null;
  unit: Unit;
  pins: Readonly<Record<string, string>>;
  /** How many stand side by side; a net named with '#' is each one's own. */
  times?: number;
  /** What its negative twin wants in its place, where that is another value. */
  twinValue?: number;
  /** Through it flows what the output gives. */
  carriesLoad?: true;
  /** The line of the bill it is on: a small part's `what` or a burner's label; none of those for the device itself. */
  billed?: string;
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
  /** Everything it is made of, as it is joined, from its input to its output. */
  wired: readonly WiredPart[];
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

const INPUT_CAPACITOR = 'Capacitor, input pin to ground';
const OUTPUT_CAPACITOR = 'Capacitor, output pin to ground';

/** Capacitors a regulator wants at its pins, F. @param twin what the negative twin of it wants, where that is more */
export function pinCapacitors(
  inputF: number,
  outputF: number,
  twin?: { inputF: number; outputF: number },
): SmallPart[] {
  return [
    {
      what: INPUT_CAPACITOR,
      value: inputF,
      unit: 'F',
      why: 'where the reservoir is more than a few centimetres of wire away',
      ...(twin ? { twinValue: twin.inputF } : {}),
    },
    {
      what: OUTPUT_CAPACITOR,
      value: outputF,
      unit: 'F',
      why: 'keeps it quiet at high frequency',
      ...(twin ? { twinValue: twin.outputF } : {}),
    },
  ];
}

export const REVERSE_DIODE: SmallPart = {
  what: 'Diode 1N4002, output to input',
  value: null,
  unit: '',
  why: 'a large capacitor behind it, or a shorted input, would otherwise discharge backwards through it',
};

/** From this capacitance on a capacitor is an electrolytic, and has a plus and a minus, F. */
const POLARISED_F = 1e-6;

/** A capacitor of a list of small parts as it is joined. */
export function wiredCapacitor(part: SmallPart, plus: string, minus: string): WiredPart {
  const { what, value, unit, twinValue } = part;
  return {
    kind: value! >= POLARISED_F ? 'electrolytic' : 'capacitor',
    what,
    value,
    unit,
    pins: { plus, minus },
    ...(twinValue === undefined ? {} : { twinValue }),
    billed: what,
  };
}

/** A small diode of a list of small parts as it is joined. */
export const wiredDiode = ({ what }: SmallPart, anode: string, cathode: string): WiredPart => ({
  kind: 'diode',
  what,
  name: '1N4002',
  value: null,
  unit: '',
  pins: { anode, cathode },
  billed: what,
});
