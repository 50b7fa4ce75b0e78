/** One pair of leads of an unlabelled transformer, as the meter found it. */
export interface FoundWinding {
  name: string;
  ohm: number;
  /** Volts at it with the supposed primary on the mains through a series lamp; null while not measured. */
  volts: number | null;
}

export interface Identified {
  /** Index of the winding that is most likely the primary. */
  primary: number;
  sentences: string[];
}

/** Two secondaries count as halves of one winding when their ohms differ by less than this share. */
const ALIKE = 0.12;

/**
 * What resistances say about an unlabelled step-down transformer, and then its volts. Thick wire has few ohms: the
 * winding with the most is the primary.
 * @param mainsV mains volts behind the series lamp, as read at the primary
 */
export function identify(windings: readonly FoundWinding[], mainsV: number): Identified {
  const sentences: string[] = [];
  const primary = windings.reduce((best, w, n) => (w.ohm > windings[best]!.ohm ? n : best), 0);
  const p = windings[primary]!;
  const others = windings.filter((_, n) => n !== primary);
  const next = others.reduce((most, w) => Math.max(most, w.ohm), 0);
  if (next > 0 && p.ohm < 4 * next) {
    sentences.push(
      `${p.name} has the most ohms, but less than four times the next: this may be an isolating or step-up transformer, or two halves of one primary. Measure volts only through the series lamp and with little voltage first.`,
    );
  } else if (next > 0) {
    sentences.push(
      `${p.name} is the primary: many turns of thin wire, ${Math.round(p.ohm / next)} times the ohms of the next.`,
    );
  }
  const twins = others.filter((w) =>
    others.some((o) => o !== w && Math.abs(o.ohm - w.ohm) <= ALIKE * Math.max(o.ohm, w.ohm)),
  );
  if (twins.length >= 2) {
    sentences.push(
      `${twins.map((w) => w.name).join(' and ')} are alike: two halves, or a winding with a centre tap. Phase them before joining.`,
    );
  }
  for (const w of others) {
    if (w.volts === null || !(mainsV > 0)) continue;
    sentences.push(
      `${w.name}: ${w.volts} V at ${mainsV} V on the primary, one volt for ${(mainsV / w.volts).toFixed(1)} of the mains.`,
    );
  }
  return { primary, sentences };
}

/** What two windings joined at one end tell at their open ends. */
export function phasing(firstV: number, secondV: number, joinedV: number): 'aiding' | 'opposing' | 'unclear' {
  const sum = firstV + secondV;
  const difference = Math.abs(firstV - secondV);
  // Close enough to one of the two, and far enough from the other.
  if (Math.abs(joinedV - sum) < 0.25 * Math.min(firstV, secondV)) return 'aiding';
  if (Math.abs(joinedV - difference) < 0.25 * Math.min(firstV, secondV)) return 'opposing';
  return 'unclear';
}

/** Whether what a meter reads on its DC range says that an adapter gives direct current, whatever its label. */
export function givesDirectCurrent(acRangeV: number, dcRangeV: number): boolean {
  return Math.abs(dcRangeV) > 0.2 * Math.max(Math.abs(acRangeV), 0.5);
}
