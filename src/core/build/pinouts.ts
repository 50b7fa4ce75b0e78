import type { NetPart } from '@/core/netlist/netlist';

/** How a part lies on the table, and which leg is which. */
export interface Pinout {
  /** Its housing, or what kind of part it is. */
  housing: string;
  /** Legs from the left, the print towards you, legs down; empty where they are told otherwise. */
  legs: readonly string[];
  /** What the metal is joined to; null where there is none. */
  tab: string | null;
  /** How its ends are told apart where it has no row of legs. */
  told: string;
  /** What happens when it goes in the wrong way round. */
  reversed: string;
}

const CHIP = 'In the wrong way round it dies at switch-on, often shorted from input to output.';
/** Rows of legs: of regulators by what they are printed with, positive and negative. Typical of the class. */
const ROWS: readonly { print: RegExp; housing: string; legs: readonly string[]; tab: string | null }[] = [
  { print: /^78L/, housing: 'TO-92', legs: ['out', 'ground', 'in'], tab: null },
  { print: /^79L/, housing: 'TO-92', legs: ['ground', 'in', 'out'], tab: null },
  { print: /^78/, housing: 'TO-220', legs: ['in', 'ground', 'out'], tab: 'ground' },
  { print: /^79/, housing: 'TO-220', legs: ['ground', 'in', 'out'], tab: 'in' },
  { print: /^337/, housing: 'TO-220', legs: ['adjust', 'in', 'out'], tab: 'in' },
  { print: /^3(17|50)(M)?$/, housing: 'TO-220', legs: ['adjust', 'out', 'in'], tab: 'out' },
  { print: /^317L/, housing: 'TO-92', legs: ['adjust', 'out', 'in'], tab: null },
  { print: /^338/, housing: 'TO-3', legs: ['adjust', 'in'], tab: 'out' },
  { print: /SOT-223/, housing: 'SOT-223', legs: ['ground', 'out', 'in'], tab: 'out' },
  { print: /^Low-dropout.*TO-220/, housing: 'TO-220', legs: ['in', 'ground', 'out'], tab: 'ground' },
  { print: /^BD139/, housing: 'TO-126', legs: ['emitter', 'collector', 'base'], tab: 'collector' },
  { print: /^TIP(3055|35|142)/, housing: 'TO-247', legs: ['base', 'collector', 'emitter'], tab: 'collector' },
  { print: /^TIP/, housing: 'TO-220', legs: ['base', 'collector', 'emitter'], tab: 'collector' },
  { print: /^(2N3055|2N3773|MJ)/, housing: 'TO-3', legs: ['base', 'emitter'], tab: 'collector' },
];

/** Where a part has a right way round, which one. Null for what has none. Makers differ: the data sheet in hand wins. */
export function pinoutOf(part: Pick<NetPart, 'kind' | 'value'>): Pinout | null {
  const row = ROWS.find((r) => r.print.test(part.value));
  switch (part.kind) {
    case 'regulator':
    case 'transistor':
      if (row) return { ...row, told: '', reversed: CHIP };
      return {
        housing: 'differs by type',
        legs: [],
        tab: null,
        told: 'Measure it with the diode range or a tester: legs of small transistors differ by type and by maker.',
        reversed: CHIP,
      };
    case 'diode':
    case 'zener':
      return simple(
        'diode',
        'The band is the cathode.',
        'Reversed, a rectifier diode shorts the winding or feeds the can the wrong way round; a zener holds 0.7 V.',
      );
    case 'valve':
      return simple(
        'valve',
        'By its socket: heater, anode and cathode as the maker’s drawing has them, seen from below.',
        'Anode and heater exchanged, the heater goes at once.',
      );
    case 'bridge':
      return simple(
        'bridge block',
        'Plus is at the bevelled corner or the longest leg, minus opposite; the other two are AC.',
        'Turned, it shorts the winding.',
      );
    case 'electrolytic':
      return simple(
        'electrolytic',
        'The stripe is minus, the long leg plus; a screw can is marked.',
        'Reversed it heats up and bursts. Eye protection at first power.',
      );
    case 'led':
      return simple(
        'LED',
        'The long leg is the anode, the flat side the cathode.',
        'Reversed it stays dark, and above 5 V it may die.',
      );
    case 'source':
      return simple(
        'source',
        'Plus and minus by the meter, before anything is joined.',
        'Reversed, every can behind it is fed the wrong way round.',
      );
    default:
      return null;
  }
}

const simple = (housing: string, told: string, reversed: string): Pinout => ({
  housing,
  legs: [],
  tab: null,
  told,
  reversed,
});
