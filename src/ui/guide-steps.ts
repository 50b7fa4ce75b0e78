/** What a newcomer has seen and done so far. */
export interface Seen {
  low: boolean;
  working: boolean;
  failed: boolean;
  cured: boolean;
  own: boolean;
}

export const NOTHING_SEEN: Seen = { low: false, working: false, failed: false, cured: false, own: false };

/** What a moment of the work shows. */
export interface Moment {
  band: string;
  /** Whether the working of a figure was opened by hand. */
  opened: boolean;
  /** How many verdicts fail; null while that is being found. */
  fails: number | null;
  /** Whether name or need are no longer those it began with. */
  own: boolean;
}

/** What has been seen once stays seen; what comes later counts only after what comes before. */
export function seenAfter(seen: Seen, { band, opened, fails, own }: Moment): Seen {
  const low = seen.low || band === 'low';
  const working = seen.working || (low && opened);
  const failed = seen.failed || (working && fails !== null && fails > 0);
  const cured = seen.cured || (failed && fails === 0);
  return { low, working, failed, cured, own: seen.own || (cured && own) };
}

export const STEPS: readonly { key: keyof Seen; says: string }[] = [
  {
    key: 'low',
    says: 'Follow the volts from left to right: mains, winding, diodes, reservoir, regulator, load. Then look at the mains at its lowest: choose low, or press 1.',
  },
  {
    key: 'working',
    says: 'No number is naked. Choose one of the figures under the terrace: its working opens below it, with what went into it.',
  },
  {
    key: 'failed',
    says: 'Now break it: choose the reservoir and type 2200 uF for its capacitance. Something fails, and says what, by how much, and why.',
  },
  {
    key: 'cured',
    says: 'Cure it: open the verdict that fails and take one of its fixes. Each was simulated with everything else before it was offered. Undo is always there.',
  },
  {
    key: 'own',
    says: 'Make it yours: choose the load and type what you want to feed, or give the design a name of your own at the top.',
  },
];

/** Where the work is: the first step not done; the number of steps where all are. */
export function stepAt(seen: Seen): number {
  const at = STEPS.findIndex(({ key }) => !seen[key]);
  return at < 0 ? STEPS.length : at;
}
