/** A word of the trade, and what it means here. */
export interface Term {
  /** As it is written in a list. */
  term: string;
  /** Other forms it takes in a sentence, small letters. */
  also: readonly string[];
  says: string;
}

const term = (name: string, says: string, ...also: string[]): Term => ({ term: name, also, says });

/** Every word a newcomer stops at, in the order of the alphabet. One list serves every screen. */
export const GLOSSARY: readonly Term[] = [
  term(
    'Aged reservoir',
    'An electrolytic loses capacitance with the years. What has to hold is judged with the loss you allow for on top of its tolerance.',
    'aged',
  ),
  term(
    'Bleeder',
    'A resistor across the reservoir that empties it after the plug is pulled. It burns a little all the time, and it is why a hand is safe minutes later.',
  ),
  term('Burden', 'What an ammeter takes for itself: volts at its shunt that the load no longer gets.'),
  term(
    'Case',
    'The metal or plastic a part’s heat leaves through. Between junction and case lie the kelvins of the part itself.',
  ),
  term(
    'Charging loop',
    'Winding, diodes, reservoir and back: the pulses that fill the reservoir go round here and nowhere else. Short, thick, and shared with nothing.',
    'charging pulses',
  ),
  term(
    'Choke input',
    'A choke ahead of the reservoir: current flows all the time, the volts settle near the mean instead of the peak, and winding and diodes have an easy life.',
    'choke-input',
  ),
  term(
    'Class I, class II',
    'Class I: exposed metal is earthed. Class II: two layers of insulation, and no earth at all. Never half of each.',
    'class i',
    'class ii',
  ),
  term(
    'Clearance',
    'The shortest way through air between two conductors; along a surface it is called creepage. Between mains and low volts 8 mm.',
    'creepage',
  ),
  term(
    'Conduction',
    'The short part of each half cycle in which the diodes carry current: from where the mains rises above the reservoir to a little after its peak.',
    'conduct',
    'conducts',
  ),
  term(
    'Corner',
    'One set of circumstances at their ends: mains low or high, load full or none, cans fresh or aged. A design holds when it holds in every corner.',
    'corners',
  ),
  term(
    'Crest factor',
    'Peak over RMS. The pulses into a reservoir have two to four, which is why a winding carries more amperes than the load draws.',
  ),
  term(
    'Critical current',
    'Below it the current in a choke stops within each cycle and the volts climb towards the peak. A bleeder keeps the load above it.',
  ),
  term(
    'Current sharing',
    'Transistors side by side never draw alike; a resistor in each emitter makes the one that draws more hold itself back.',
    'share the current',
  ),
  term(
    'Derating',
    'What a part may bear falls as it warms: its limit at 25 °C is not its limit in your box.',
    'derated',
  ),
  term(
    'Dropout',
    'The least volts a regulator needs between its input and its output. Below that it no longer regulates: the ripple comes through.',
    'drops out',
  ),
  term('Duty', 'The share of the time something is on. It decides what gets warm, not what the volts fall to.'),
  term('EMF', 'What a winding would give with nothing drawn from it: its open volts.', 'open volts'),
  term('ESR', 'The resistance inside a capacitor. The ripple current heats it, and it adds steps to the ripple.'),
  term(
    'Flat top',
    'Mains whose peaks are shaved off by everything else on the line. A reservoir charges at the peak, so the volts are lower than the meter makes you think.',
    'flat-top',
  ),
  term(
    'Foldback',
    'A current limit that falls as the output is pulled down, so that a short burns less than full load does.',
    'folds back',
  ),
  term(
    'Forward drop',
    'What a diode takes while it conducts: 0.7 to 1.1 V of silicon, half of that of a Schottky.',
    'forward volts',
  ),
  term(
    'Headroom',
    'What is left at the valley of the ripple, low mains, full load, above what the regulator needs. The number that decides most designs.',
  ),
  term(
    'High line',
    'The mains at the upper end of what is usual. Everything is hottest there, and the volts stand highest without load.',
  ),
  term(
    'I²t',
    'What a pulse of current has melted by its end: amperes squared times seconds. A fuse or a diode bears so much once.',
    'i2t',
  ),
  term(
    'Isolating transformer',
    'Two windings that share nothing but iron: touch one end of the secondary and nothing flows. A variable transformer alone does not isolate.',
  ),
  term(
    'Junction',
    'The spot of silicon the watts arise in. It is the hottest place, it cannot be touched, and its limit is the part’s.',
    'junctions',
  ),
  term(
    'K/W',
    'Kelvins for each watt: how much warmer one end of a way for heat is than the other. Small is good.',
    'kelvins a watt',
    'thermal resistance',
  ),
  term(
    'Leakage inductance',
    'The part of a winding’s field its partner does not share. It rounds the pulses and takes a little of the volts.',
  ),
  term(
    'Line and load regulation',
    'How much the output moves when the mains, or the load, does.',
    'load regulation',
    'line regulation',
  ),
  term(
    'Low line',
    'The mains at the lower end of what is usual. The valley is lowest there: this is where headroom is judged.',
  ),
  term('Minimum load', 'What some regulators have to be drawn from at least, or their output climbs.'),
  term('Noise floor', 'What a scope shows with its probe on its own ground: no ripple below it can be read.'),
  term(
    'Pass transistor',
    'The one the load’s current goes through, and that burns the difference between rail and output.',
    'pass device',
    'pass transistors',
  ),
  term(
    'Peak reverse volts',
    'What a diode has to block: with a centre tap twice the peak of a half, with a bridge once.',
    'reverse volts',
    'reverse voltage',
  ),
  term('Pre-regulator', 'Something ahead of the regulator that takes part of the volts, and of the heat.'),
  term(
    'Protective earth',
    'The green-yellow wire that makes a fault blow the fuse instead of waiting for a hand. To all exposed metal, with its own screw.',
  ),
  term('Rail', 'The volts at the reservoir and after its filter, before anything regulates them.', 'rails'),
  term('Rectifier', 'The diodes that let the mains’ alternating current into the reservoir one way only.'),
  term(
    'Regulation of a transformer',
    'How far its volts rise when its load is taken away, in per cent. Small ones 20 and more, large ones 5.',
    'regulation',
  ),
  term('Reservoir', 'The capacitor after the rectifier: it feeds the load between two pulses.'),
  term('Residual', 'A reading less what the model says it should be, in sigmas. Most lie within two.', 'residuals'),
  term(
    'Ripple',
    'What is left of the mains on a DC voltage: up with each pulse, down with the load. Peak to peak unless something else is said.',
  ),
  term(
    'Ripple current',
    'The RMS of what flows in and out of a capacitor; it heats it, and its data sheet allows so much.',
  ),
  term(
    'Ripple rejection',
    'By how much a regulator lowers the ripple at its input, in dB: 60 dB is a thousandth. Below its dropout it is nothing.',
    'rejection',
  ),
  term(
    'RMS',
    'The steady current that would heat the same: for pulses well above their mean. Copper, fuses and wires go by it.',
  ),
  term(
    'Safe operating area',
    'The volts and amperes a transistor bears together; at many volts much less than its watts alone would allow.',
    'safe area',
    'second breakdown',
  ),
  term('Schottky', 'A diode of metal on silicon: half the forward drop, but leaky when hot and for few reverse volts.'),
  term(
    'Series lamp',
    'A bulb between mains and a supply on its first day: it stays dark when all is well and glows instead of letting things burn.',
    'lamp in series',
  ),
  term(
    'Sigma',
    'The usual size of an error that nobody can know: two of three readings lie within one, nineteen of twenty within two.',
    'sigmas',
  ),
  term(
    'Star ground',
    'One point, at the reservoir’s minus, that every ground comes to by its own wire, so that no pulse flows through another’s ground.',
    'star',
  ),
  term(
    'Surge',
    'The first pulse after switching on, into an empty reservoir: tens of times what flows later.',
    'inrush',
  ),
  term('Swinging choke', 'A choke whose inductance grows as its current falls, just where a choke input needs it.'),
  term(
    'Tab',
    'The metal of a power part. It is joined to one of its legs: two tabs of different volts never touch one sink bare.',
  ),
  term(
    'Time-lag fuse',
    'A fuse that lets the surge pass and still opens on what lasts. In the primary always this kind.',
    'time-lag',
  ),
  term('True RMS', 'A meter that squares before it averages. Others are right on a sine and wrong on anything else.'),
  term(
    'VA',
    'Volts times amperes a transformer bears for good. With a reservoir only some half of it comes out as DC watts.',
  ),
  term(
    'Valley',
    'The lowest point of the ripple, just before the next pulse. If it dips below what the regulator needs, hum comes through.',
  ),
];

const WORDS: ReadonlyMap<string, Term> = new Map(
  GLOSSARY.flatMap((t) => [t.term.toLowerCase(), ...t.also].map((word): [string, Term] => [word, t])),
);
const escapedWord = (word: string) => word.replace(/[.*+?^${}()|[\]\\]/g, '\\$&');
/** The longest first: a choke input is no input. */
const FINDER = new RegExp(
  `(?<![\\p{L}\\d])(${[...WORDS.keys()]
    .sort((a, b) => b.length - a.length)
    .map(escapedWord)
    .join('|')})(?![\\p{L}\\d])`,
  'giu',
);

/** A stretch of a text: plain, or a word that is explained. */
export interface Stretch {
  text: string;
  term: Term | null;
}

/** Where a term stands in a text: letters `from` up to `to`. */
export interface Place {
  from: number;
  to: number;
  term: Term;
}

/** Every term of a text, every time it stands there. */
export function termsIn(text: string): Place[] {
  return [...text.matchAll(FINDER)].map((match) => ({
    from: match.index,
    to: match.index + match[0].length,
    term: WORDS.get(match[0].toLowerCase())!,
  }));
}

/** A text with its terms told apart; each only where it stands first. */
export function stretches(text: string): Stretch[] {
  const found: Stretch[] = [];
  const said = new Set<Term>();
  let done = 0;
  for (const { from, to, term: known } of termsIn(text)) {
    if (said.has(known)) continue;
    said.add(known);
    if (from > done) found.push({ text: text.slice(done, from), term: null });
    found.push({ text: text.slice(from, to), term: known });
    done = to;
  }
  if (done < text.length) found.push({ text: text.slice(done), term: null });
  return found;
}

/** Where a term stands on the page of all of them. */
export const termAnchor = ({ term }: Term): string => term.toLowerCase().replace(/[^a-z0-9]+/g, '-');
