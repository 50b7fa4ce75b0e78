'use client';

import { mainsReadV } from '@/core/circuit/condition';
import type { Design } from '@/core/design/design';
import type { Fix } from '@/core/judge/verdict';
import { asked } from '@/workers/asked';
import { dropFixes, dropSearch } from '@/workers/client';
import { goThrough } from '@/workers/go-through';
import type { DesignStore } from './design-store';
import type { View } from './view';
import { whenIdle } from './when-idle';

const FIXES_AFTER_MS = 90;

/** So often a design is gone through before its first edit, and for so long, ms: a slow one fewer times. */
const WARM_ROUNDS = 20;
const WARMS_MS = 500;

/** A picture older than this after an edit is marked as not current. */
const STALE_MS = 800;

/**
 * Keeps the picture up with the document: the newest design is always the next one solved, what was overtaken is
 * dropped, and the last good picture stays until the new one is there, marked once it is older than a moment. A solver
 * that dies or hangs is replaced and asked again. Fixes follow once the hand rests.
 * @returns stops it
 */
export function startSolving(document: DesignStore, view: View): () => void {
  let running = false;
  let waiting: { design: Design; editedAt: number } | null = null;
  let fixTimer: ReturnType<typeof setTimeout> | undefined;
  let staleTimer: ReturnType<typeof setTimeout> | undefined;
  let job = 0;
  let seeking = 0;
  let stopped = false;
  let callOff = () => {};

  async function work() {
    if (running) return;
    running = true;
    while (waiting && !stopped) {
      const { design, editedAt } = waiting;
      waiting = null;
      const answer = await asked((solver) => solver.evaluate(design), 'edit');
      if (stopped) break;
      if (answer.ok) {
        view.setState({ picture: answer.value, trouble: null });
        // While another waits, what stands is still not what is drawn.
        if (!waiting) nowCurrent();
        markPaint(editedAt);
      } else {
        view.setState({ trouble: answer.error, current: false });
        clearTimeout(staleTimer);
      }
    }
    running = false;
  }

  function nowCurrent() {
    clearTimeout(staleTimer);
    staleTimer = undefined;
    view.setState({ current: true });
  }

  function solve(design: Design) {
    waiting = { design, editedAt: performance.now() };
    staleTimer ??= setTimeout(() => view.setState({ current: false }), STALE_MS);
    void work();
    seekFixes(design);
  }

  /**
   * Starts the solver and has it go through the design as it is until the machine has compiled what that takes: the first
   * edits wait for neither. Ends where an edit comes.
   */
  async function warmUp() {
    const { design } = document.getState();
    const still = () => !stopped && !running && document.getState().design === design;
    const until = performance.now() + WARMS_MS;
    for (let n = 0; n < WARM_ROUNDS && still() && performance.now() < until; n++)
      await asked((solver) => solver.evaluate(design), 'edit', still);
  }

  function seekFixes(design: Design) {
    clearTimeout(fixTimer);
    job++;
    // While the hand moves the processors are the picture's.
    if (seeking > 0) dropFixes();
    if (!view.getState().fixing) view.setState({ fixing: true });
    fixTimer = setTimeout(() => void findFixes(job, design), FIXES_AFTER_MS);
  }

  async function findFixes(mine: number, design: Design) {
    const found: Record<string, Fix[]> = {};
    // What an older one is at may be one candidate that takes seconds.
    if (seeking > 0) dropSearch(false);
    seeking++;
    // Where the solver ends on the way it is asked again; where it ends twice, what was found until then stands.
    await asked(
      (solver) =>
        goThrough(solver, 'fixes', design, {
          tell(batches) {
            const news = batches.filter((batch) => batch !== null);
            if (mine !== job || stopped || news.length === 0) return;
            for (const { verdict, fixes } of news) found[verdict] = fixes;
            view.setState({ fixes: { ...found } });
          },
        }),
      'search',
      () => mine === job && !stopped,
    );
    seeking--;
    if (mine === job && !stopped) view.setState({ fixes: found, fixing: false });
  }

  const unsubscribe = document.subscribe((state, before) => {
    if (state.design !== before.design && onlyWords(state.design, before.design) === false) solve(state.design);
  });
  if (view.getState().picture) {
    view.setState({ fixing: true });
    afterPaint(() => {
      performance.measure('first-terrace', { start: 0, end: performance.now() });
      if (!stopped && job === 0) seekFixes(document.getState().design);
      callOff = whenIdle(() => void warmUp());
    });
  } else {
    solve(document.getState().design);
  }
  return () => {
    stopped = true;
    callOff();
    clearTimeout(fixTimer);
    clearTimeout(staleTimer);
    unsubscribe();
  };
}

/** What no solution depends on; but of the mains side the box counts, and of the readings the last of the mains. */
const WORDS: readonly string[] = ['name', 'note', 'stage', 'picked', 'build', 'bench', 'log', 'mainsSide'];

/** Whether two designs differ in nothing that a solution depends on. */
function onlyWords(a: Design, b: Design): boolean {
  const same = (key: string) => WORDS.includes(key) || a[key as keyof Design] === b[key as keyof Design];
  return Object.keys(a).every(same) && a.mainsSide.box === b.mainsSide.box && mainsReadV(a) === mainsReadV(b);
}

/** Leaves a performance measure from the edit to the frame that shows its picture. */
function markPaint(editedAt: number) {
  afterPaint(() => performance.measure('edit-to-paint', { start: editedAt, end: performance.now() }));
}

/** Runs once the next frame has been handed over: a message task queued from the frame's own callback. */
function afterPaint(then: () => void) {
  requestAnimationFrame(() => {
    const channel = new MessageChannel();
    channel.port1.onmessage = () => {
      then();
      channel.port1.close();
    };
    channel.port2.postMessage(null);
  });
}
