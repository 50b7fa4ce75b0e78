/** What a meter says of an existing box, SI. */
export interface BoxReadings {
  /** Mains volts at the time. */
  mainsV: number;
  /** On the reservoir without load, and with one. */
  idleV: number;
  loadedV: number;
  loadA: number;
  /** On the reservoir with that load; null where nobody had a scope. */
  rippleVpp: number | null;
  /** How far the mains' peaks are cut, %: a crest factor of 1.41 is none. */
  flatTopPct: number;
}

/** The sentence for readings that cannot belong to a bridge and a reservoir, or null. */
export function readingsFault(r: BoxReadings): string | null {
  if (!(r.mainsV > 0 && r.idleV > 0 && r.loadedV > 0 && r.loadA > 0 && (r.rippleVpp === null || r.rippleVpp > 0)))
    return 'Each reading has to be more than nothing.';
  if (r.loadedV >= r.idleV) return 'A load pulls the rail down: the loaded reading has to be the lower one.';
  if (!(r.flatTopPct >= 0 && r.flatTopPct <= 10)) return 'Mains peaks are cut by up to 10 %: more is no mains.';
  if (r.rippleVpp !== null && r.rippleVpp > r.loadedV)
    return 'More ripple than volts: was the meter on its AC range with the right probe factor?';
  return null;
}
