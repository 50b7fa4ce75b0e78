import type { CaseFault } from '@/core/fit/case-faults';

/** Faults of the circuit ahead of a regulator, and of what stands behind it. */
export type BenchFault =
  | CaseFault['fault']
  | 'source-dead'
  | 'path-open'
  | 'winding-open'
  | 'probe-factor'
  | 'bad-choice'
  | 'output-dead'
  | 'output-through'
  | 'output-top'
  | 'output-bottom'
  | 'other';

export interface FaultWords {
  name: string;
  /** What would confirm it, unpowered first. */
  confirm: string;
  /** Stands beside it where trying again can hurt. */
  caution?: string;
}

const UNPOWERED = 'Unplugged, the reservoir discharged through a resistor and checked with the meter:';

/** How a builder says each fault, and what proves it. */
export const FAULT_WORDS: Readonly<Record<BenchFault, FaultWords>> = {
  none: { name: 'Nothing wrong: within tolerance', confirm: 'Any further reading inside its window.' },
  'diode-open': {
    name: 'A diode does not conduct',
    confirm: `${UNPOWERED} diode range across each, both ways. An open one shows nothing either way; a bad joint there does the same, and so does its half of a tapped winding.`,
  },
  'diode-short': {
    name: 'A diode is shorted',
    confirm: `${UNPOWERED} diode range across each, both ways. A shorted one reads nearly nothing both ways.`,
    caution: 'Do not switch it on again to see: the winding is shorted every half cycle, and fuse or transformer goes.',
  },
  'reservoir-dry': {
    name: 'The reservoir has dried out',
    confirm: `${UNPOWERED} capacitance or ESR, one lead off. Powered, the ripple at full load is high and at twice the mains’ frequency.`,
  },
  'reservoir-open': {
    name: 'The reservoir is not connected',
    confirm: `${UNPOWERED} look at its joints, pull at its leads, then measure its capacitance.`,
  },
  'source-weak': {
    name: 'Resistance where none should be: a bad joint or a weaker transformer',
    confirm: `${UNPOWERED} ohms from terminal to terminal along the charging path, leads moved meanwhile. A tenth of an ohm shows.`,
  },
  'source-low': {
    name: 'Too few volts from the source: tap, mains setting, shorted turns',
    confirm: 'Open volts of the winding against the mains read at the same moment.',
    caution: 'Shorted turns run hot without load: feel for warmth only after unplugging.',
  },
  'source-high': {
    name: 'Too many volts from the source: tap or mains setting',
    confirm: 'Open volts of the winding against the mains read at the same moment.',
    caution: 'Capacitors may stand above their rating: do not leave it on.',
  },
  'extra-load': {
    name: 'More is drawn than you think: a leak or a load forgotten',
    confirm: 'Take everything off behind the reservoir. Where it stays low, a capacitor leaks and is warm.',
  },
  'source-dead': {
    name: 'Nothing comes from the source: fuse, switch, lead or winding open',
    confirm:
      'Unplugged: the fuse by ohms, not by eye; then ohms across the plug’s pins with the switch on, and across the winding. Two windings in series against each other give nothing too.',
    caution: 'A fuse that has gone went for a reason: find that first, and never put in a bigger one.',
  },
  'path-open': {
    name: 'The source gives its volts, and nothing comes to the reservoir',
    confirm: `${UNPOWERED} ohms from the winding’s ends to the rectifier’s, and from the rectifier to the reservoir; a fuse behind the winding too.`,
  },
  'winding-open': {
    name: 'One winding, or one half of it, is open',
    confirm: `${UNPOWERED} ohms of each winding and each half against the other, at the rectifier’s own terminals.`,
  },
  'probe-factor': {
    name: 'The probe’s factor: ripple was read ten times too small',
    confirm: 'The slide on the probe and the channel’s own setting; the calibrator’s square wave says which is so.',
  },
  'bad-choice': {
    name: 'Nothing is broken: a part was chosen wrongly',
    confirm:
      'Every reading lies in its window, and a verdict of the design fails: look at it in its worst circumstances.',
  },
  'output-dead': {
    name: 'Nothing comes through the regulator',
    confirm: `${UNPOWERED} its pins against the pin card, its output against ground for a short, its ground joint.`,
  },
  'output-through': {
    name: 'The regulator is shorted from input to output',
    confirm: `${UNPOWERED} ohms from its input to its output. A few ohms mean it.`,
    caution: 'The whole rail stands at the output: take the load off before anything else.',
  },
  'output-top': {
    name: 'The output goes to the top: ground, zener or lower setting resistor open',
    confirm: `${UNPOWERED} ohms from the setting pin to ground, the zener both ways, and the ground joint.`,
    caution: 'The load sees nearly the whole rail: take it off first.',
  },
  'output-bottom': {
    name: 'The output goes to the bottom: the lower setting resistor is shorted',
    confirm: `${UNPOWERED} ohms from the setting pin to ground against the resistor’s print.`,
  },
  other: {
    name: 'None of these explains it',
    confirm:
      'Read once more what stands out, with the range and the probe’s factor looked at; then the supply’s wiring against its circuit.',
  },
};

/** Where a fault sits, as a builder says it, empty where that says nothing: 'diode 2' is D3 on the drawing, which counts from one. */
export function placeWords(part: string): string {
  const diode = /^diode (\d+)$/.exec(part);
  if (diode) return `D${Number(diode[1]) + 1}`;
  const winding = /^winding (\d)$/.exec(part);
  if (winding) return `winding ${Number(winding[1]) + 1}`;
  const rail = /^rails\.(\d)/.exec(part);
  if (rail) return rail[1] === '1' ? 'minus rail' : part.includes('filter') ? 'reservoir' : 'rail';
  return '';
}
