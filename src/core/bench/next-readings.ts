import type { Design } from '@/core/design/design';
import { mainModel } from '@/core/design/outputs';
import type { Weighed } from '@/core/fit/diagnose';
import { foretell, type ForetoldWithSlopes } from '@/core/fit/foretell';
import type { KnownSlopes } from '@/core/fit/known-slopes';
import { expectedGain, type Outlook } from '@/core/fit/gain';
import { orUnsolved } from '@/core/solve/solve-error';
import type { Asked } from './design-model';
import { readingSigma } from './measured';
import { POWERED, RELIABLE, UNPOWERED } from './reading-choices';
import { mainsForReadings } from './readings';
import type { Held, Suspicion } from './suspicions';

/** A reading worth taking next. */
export interface NextReading {
  id: string;
  label: string;
  /** Minutes it costs. */
  minutes: number;
  powered: boolean;
  /** What it teaches on average, bits. */
  gain: number;
}

/** A powered reading counts so many times its minutes: a hand near live parts is trouble of its own. */
const LIVE = 2;
const LEAST_BELIEF = 0.005;
const MOST_NEXT = 4;
const WORTH_BITS = 0.02;

/** What would tell most for its trouble, of everything not read yet, the best first. */
export function nextReadings(
  design: Design,
  weighed: readonly Weighed<Suspicion>[],
  held: readonly Held[],
): NextReading[] {
  const likely = weighed.filter((w) => w.probability >= LEAST_BELIEF && w.posterior);
  const mainsV = mainsForReadings(design)('reservoir-loaded');
  const regulated = mainModel(design) !== null;
  const read = new Set(held.map((h) => h.id));
  const open = POWERED.filter(
    (p) =>
      !read.has(p.id) &&
      (p.quantity !== 'output' || regulated) &&
      (p.quantity !== 'winding' || design.source.kind === 'mains'),
  );
  const asked = open.map((p): Asked => ({
    quantity: p.quantity,
    state: { mainsV, load: p.load === 1 ? design.demand.outputA : p.load },
  }));
  // The tolerances' slopes are those of the likeliest that has an answer everywhere.
  let known: KnownSlopes | null = null;
  const foretold = likely.map((w) => {
    const told = foretoldAll(w, asked, known);
    if (told.every((t) => t !== null))
      known ??= {
        unknowns: w.hypothesis.unknowns,
        computed: told.map((t) => t.value),
        slopes: told.map((t) => t.slopes),
      };
    return told;
  });
  const powered = open.map((p, n): NextReading => {
    const outlooks = likely.flatMap((w, k): Outlook[] => {
      const told = foretold[k]![n];
      if (!told) return [];
      const meter = readingSigma(design, p.quantity === 'output' ? 'reservoir' : p.quantity, told.value);
      return [{ probability: w.probability, mean: told.value, sigma: Math.hypot(told.sigma, meter) }];
    });
    return { id: p.id, label: p.label, minutes: p.minutes, powered: true, gain: expectedGain(outlooks) };
  });
  const unpowered = UNPOWERED.map((u): NextReading => {
    const total = likely.reduce((sum, w) => sum + w.probability, 0);
    const shown = likely.filter((w) => u.shows.includes(w.hypothesis.fault)).reduce((sum, w) => sum + w.probability, 0);
    return {
      id: u.id,
      label: u.label,
      minutes: u.minutes,
      powered: false,
      gain: binaryGain(total > 0 ? shown / total : 0),
    };
  });
  const trouble = (n: NextReading) => n.minutes * (n.powered ? LIVE : 1);
  return [...powered, ...unpowered]
    .filter((n) => n.gain > WORTH_BITS)
    .sort((a, b) => b.gain / trouble(b) - a.gain / trouble(a))
    .slice(0, MOST_NEXT);
}

/** What a hypothesis says of places nobody read: together where it can, one by one where one of them has no answer. */
function foretoldAll(
  { hypothesis, posterior }: Weighed<Suspicion>,
  asked: readonly Asked[],
  known: KnownSlopes | null,
): (ForetoldWithSlopes | null)[] {
  const { unknowns, severities } = hypothesis;
  const of = (list: readonly Asked[], like: KnownSlopes | null) =>
    orUnsolved(() => foretell(unknowns, posterior!, hypothesis.over(list), like && { known: like, severities }));
  return of(asked, known) ?? asked.map((one) => of([one], null)?.[0] ?? null);
}

/** What a check that answers yes or no, and is right so often, teaches of something that is so with a probability; bits. */
function binaryGain(share: number): number {
  const entropy = (p: number) => (p <= 0 || p >= 1 ? 0 : -p * Math.log2(p) - (1 - p) * Math.log2(1 - p));
  return entropy(share * RELIABLE + (1 - share) * (1 - RELIABLE)) - entropy(RELIABLE);
}
