import type { Answer } from './answer';
import type { AboutOf, ItemOf, Kind, PartOf, SurveyOf, ToldOf } from './long-work';
import { DROPPED, newWork, UNKNOWN, type Hand, type Opening } from './piece';
import { runPool, Stopped, type PoolOptions } from './pool';

/** One long work, dealt out over threads. */
export class Work<K extends Kind> {
  private readonly work = newWork();
  /** Threads that have opened it. */
  private readonly open = new Set<Hand>();

  constructor(
    private readonly hands: readonly Hand[],
    private readonly kind: K,
    private readonly about: AboutOf<K>,
  ) {}

  /** What there is to go through, by the first thread. The others that are there open it meanwhile. */
  survey(): Promise<SurveyOf<K>> {
    const [first, ...others] = this.hands;
    for (const hand of others)
      if (!hand.starts?.()) this.openedBy(hand, (asked) => this.piece(hand, asked, [])).catch(() => {});
    return this.openedBy(first!, (asked) => first!.survey<K>(asked));
  }

  /**
   * Deals items out to whoever is free.
   * @param toldNow what each piece is told when it is handed over
   * @returns what each item comes to, in their order; where enough was found before, none for the rest
   * @throws Stopped when the signal says so; an error with the sentence a thread answered where it has no answer
   */
  async deal(
    items: readonly ItemOf<K>[],
    options: PoolOptions<PartOf<K>> = {},
    toldNow?: () => ToldOf<K>,
  ): Promise<PartOf<K>[]> {
    const busy = new Set<Hand>();
    const workers = this.hands.map((hand) => ({
      starts: hand.starts,
      run: async (some: ItemOf<K>[]) => {
        busy.add(hand);
        try {
          const done = await this.openedBy(hand, (asked) => this.piece(hand, asked, some, toldNow?.()));
          if (done === DROPPED) throw new Stopped('stopped');
          return { found: done.parts, tookMs: done.tookMs };
        } finally {
          busy.delete(hand);
        }
      },
    }));
    try {
      return await runPool(workers, items, options);
    } catch (error) {
      for (const hand of busy) hand.letGo?.(this.work);
      throw error;
    }
  }

  private piece(hand: Hand, asked: Opening<K>, items: readonly ItemOf<K>[], told?: ToldOf<K>) {
    return hand.go<K>({ ...asked, items, told: told as ToldOf<K> });
  }

  /** Asks a thread, and tells it what the work is about where it does not know. */
  private async openedBy<R>(hand: Hand, ask: (asked: Opening<K>) => Promise<Answer<R | typeof UNKNOWN>>): Promise<R> {
    const { work, kind, about } = this;
    const first = valueOf(await ask({ work, kind, about: this.open.has(hand) ? null : about }));
    this.open.add(hand);
    if (first !== UNKNOWN) return first as R;
    return valueOf(await ask({ work, kind, about })) as R;
  }
}

export function valueOf<T>(answer: Answer<T>): T {
  if (!answer.ok) throw new Error(answer.error);
  return answer.value;
}
