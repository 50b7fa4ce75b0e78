import type { Unit } from '@/core/quantity/parse';
import type { Block, Net, NetPart, NetRole, PartKind } from './netlist';

/** Letters before the number of a part (IEC 81346 habits of hobby schematics). */
const LETTERS: Readonly<Record<PartKind, string>> = {
  inlet: 'J',
  fuse: 'F',
  switch: 'S',
  cutout: 'F',
  transformer: 'T',
  source: 'B',
  diode: 'D',
  bridge: 'D',
  valve: 'V',
  capacitor: 'C',
  electrolytic: 'C',
  resistor: 'R',
  pot: 'R',
  choke: 'L',
  zener: 'D',
  led: 'LED',
  transistor: 'Q',
  regulator: 'U',
  control: 'U',
  heater: 'E',
  fan: 'M',
  terminal: 'J',
};

/** Names that others will be given. */
const RESERVED = new Set(['held +', 'held −', 'indicator']);

export interface Added {
  kind: PartKind;
  value: string;
  rating?: string;
  what: string;
  pins: Readonly<Record<string, string>>;
  line: string;
  si?: { value: number; unit: Unit } | null;
  negative?: boolean;
  carriesLoad?: boolean;
  soldered?: boolean;
}

/** Where what is added stands. */
export interface Place {
  block: Block;
  rail: NetPart['rail'];
  output?: string | null;
}

/** Collects parts and nets; numbers the parts of each letter as they come. */
export function netlistBuilder() {
  const parts: NetPart[] = [];
  const nets = new Map<string, Net>();
  const taken = new Map<string, number>();
  return {
    parts,
    nets,
    net(name: string, role: NetRole, rail: Net['rail'] = null, more: Pick<Net, 'local' | 'alike'> = {}): string {
      if (!nets.has(name)) nets.set(name, { name, role, rail, ...more });
      return name;
    },
    /** A net a person named: numbered where another one is called so already. */
    named(name: string, role: NetRole, rail: Net['rail']): string {
      let unique = name;
      for (let n = 2; nets.has(unique) || RESERVED.has(unique); n++) unique = `${name} (${n})`;
      return this.net(unique, role, rail);
    },
    /** Adds a part; nets it names that nobody has told of are inside. @returns its reference */
    add(
      {
        kind,
        value,
        rating = '',
        what,
        pins,
        line,
        si = null,
        negative = false,
        carriesLoad = false,
        soldered = false,
      }: Added,
      place: Place,
    ): string {
      const letter = LETTERS[kind];
      const number = (taken.get(letter) ?? 0) + 1;
      taken.set(letter, number);
      const ref = `${letter}${number}`;
      for (const net of Object.values(pins)) this.net(net, 'inside', place.rail);
      parts.push({
        ref,
        kind,
        value,
        rating,
        what,
        pins: Object.entries(pins).map(([name, net]) => ({ name, net })),
        block: place.block,
        rail: place.rail,
        output: place.output ?? null,
        line,
        key: `${line} ${parts.filter((p) => p.line === line).length + 1}`,
        si,
        negative,
        carriesLoad,
        soldered,
      });
      return ref;
    },
  };
}

export type NetlistBuilder = ReturnType<typeof netlistBuilder>;
