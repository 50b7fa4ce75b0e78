import type { Unit } from '@/core/quantity/parse';

/** What is joined by a net, for whoever draws, wires or builds it. */
export type NetRole = 'mains' | 'earth' | 'winding' | 'charging' | 'rail' | 'ground' | 'output' | 'inside';

export interface Net {
  name: string;
  role: NetRole;
  /** Which rail it belongs to: 0 the plus one, 1 the minus one; null for what is common. */
  rail: 0 | 1 | null;
  /** What it is called inside a regulator: 'adjust', 'base'; left out elsewhere. */
  local?: string;
  /** The same for each of several alike parts side by side, each of which has one of its own. */
  alike?: string;
}

export type PartKind =
  | 'inlet'
  | 'fuse'
  | 'switch'
  | 'cutout'
  | 'transformer'
  | 'source'
  | 'diode'
  | 'bridge'
  | 'valve'
  | 'capacitor'
  | 'electrolytic'
  | 'resistor'
  | 'pot'
  | 'choke'
  | 'zener'
  | 'led'
  | 'transistor'
  | 'regulator'
  | 'control'
  | 'heater'
  | 'fan'
  | 'terminal';

/** Where in the street a part stands. */
export type Block = 'mains' | 'transformer' | 'rectifier' | 'filter' | 'ahead' | 'regulator' | 'output';

export interface Pin {
  name: string;
  net: string;
}

/** A part as it is built in: what it is, and which of its pins is on which net. */
export interface NetPart {
  /** T1, D3, R7. */
  ref: string;
  kind: PartKind;
  /** What it is printed with: '4700 µF', '7815', 'time-lag'. */
  value: string;
  /** What it bears, where the design says it: '35 V'; empty where a simulation has to. */
  rating: string;
  /** What it is there for, in words. */
  what: string;
  pins: readonly Pin[];
  block: Block;
  rail: 0 | 1 | null;
  /** The output it belongs to; null for what they share. */
  output: string | null;
  /** Which line of the bill it is on, and what stands side by side with it and alike. */
  line: string;
  /** What it is known by when references move: its line, and which of those on it. */
  key: string;
  /** Its value in SI, where it has one that is a number. */
  si: { value: number; unit: Unit } | null;
  /** Through it flows what its output gives. */
  carriesLoad: boolean;
  /** Belongs to the mains and is soldered into the board all the same, as was asked for. */
  soldered: boolean;
  /** A negative twin: a PNP transistor, a regulator for below ground. */
  negative: boolean;
}

/** The parts of a design and what joins them: the one truth schematic, wiring list, kit and board read. */
export interface Netlist {
  parts: readonly NetPart[];
  nets: readonly Net[];
  /** Nets a probe goes to, in the order of the power-up: each with the points of the bench read there. */
  tests: readonly { ref: string; net: string; points: readonly string[] }[];
}

export const GROUND = '0 V';
/** The first net of each rail, from ground outwards. */
export const RAW = ['raw +', 'raw −'] as const;

/** The net a pin is on. @throws RangeError for a pin it does not have */
export function netAt({ ref, pins }: NetPart, name: string): string {
  const pin = pins.find((p) => p.name === name);
  if (!pin) throw new RangeError(`${ref} has no pin '${name}'`);
  return pin.net;
}
