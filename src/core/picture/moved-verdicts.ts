import type { State, Verdict } from '@/core/judge/verdict';
import { figureText } from '@/core/study/figure';

/** A verdict that stands differently in two states of a design. */
export interface MovedVerdict {
  id: Verdict['id'];
  title: string;
  /** How it stood and stands, with its figure; null where it has no meaning there. */
  before: { state: State; figure: string } | null;
  after: { state: State; figure: string } | null;
}

/** The verdicts that moved into another state between two, in the order of the second's rail, what went away last. */
export function movedVerdicts(before: readonly Verdict[], after: readonly Verdict[]): MovedVerdict[] {
  const of = (v: Verdict | undefined) => (v ? { state: v.state, figure: figureText(v.figure) } : null);
  const there = new Map(before.map((v) => [v.id, v]));
  const now = new Set(after.map((v) => v.id));
  return [
    ...after.map((v) => ({ id: v.id, title: v.title, before: of(there.get(v.id)), after: of(v) })),
    ...before.filter((v) => !now.has(v.id)).map((v) => ({ id: v.id, title: v.title, before: of(v), after: null })),
  ].filter((m) => m.before?.state !== m.after?.state);
}
