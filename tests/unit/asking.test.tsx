/** @jest-environment @stryker-mutator/jest-runner/jest-env/jsdom */
import { act, cleanup, render, screen } from '@testing-library/react';
import type { Design } from '@/core/design/design';
import { SolverGone } from '@/workers/client';

type Reply = { ok: true; value: string } | { ok: false; error: string };
/** What was asked, in order, each to be answered by the test. */
const questions: {
  design: { name: string };
  answer: (reply: Reply) => void;
  tell: (found: (string | null)[]) => void;
}[] = [];
let dropped = 0;
let design = { name: 'first' } as Design;

jest.mock('@/workers/client', () => ({
  callback: (f: unknown) => f,
  dropSearch: () => void dropped++,
  replaceSolver: () => {},
  solver: () => drawing,
  poolSolver: (n: number) => pool.solver(n),
  poolStarted: (n: number) => n < pool.there,
  endOfPoolSolver: (n: number) => () => pool.ended.push(n),
  SolverGone: class SolverGone extends Error {},
}));
jest.mock('@/ui/session', () => ({ useDesign: () => design }));

import { useFound } from '@/ui/use-found';
import { useSolved } from '@/ui/use-solved';
import { changesInPool, drawInPool, moreInPool, solveInPool, tryInPool } from '@/workers/browser-pool';
import { Stopped, type PoolOptions } from '@/workers/pool';

const asks = (_: unknown, d: Design) =>
  new Promise<Reply>((answer) => questions.push({ design: d, answer, tell: () => {} }));
const searches = async (d: Design, { onFound, signal }: PoolOptions<string | null>) => {
  signal!.addEventListener('abort', () => dropped++);
  const reply = await new Promise<Reply>((answer) => questions.push({ design: d, answer, tell: onFound! }));
  if (!reply.ok) throw new Error(reply.error);
  return reply.value.split('');
};

const wait = (ms: number) => act(async () => void (await jest.advanceTimersByTimeAsync(ms)));
const answer = (n: number, reply: Reply) =>
  act(async () => {
    questions[n]!.answer(reply);
    await Promise.resolve();
  });

beforeEach(() => {
  jest.useFakeTimers();
  questions.length = 0;
  dropped = 0;
  design = { name: 'first' } as Design;
});
afterEach(() => {
  cleanup();
  jest.useRealTimers();
});

describe('what a screen asks about the design', () => {
  function Shown({ waitMs = 0, nothing = false }) {
    const { value, of, trouble } = useSolved(nothing ? null : asks, { waitMs });
    return <p>{`${value ?? 'nothing'} of ${of?.name ?? 'none'}${trouble ? `: ${trouble}` : ''}`}</p>;
  }
  const says = () => screen.getByText(/ of /).textContent;

  test('stands with the design it is about, until a newer answer is there', async () => {
    const { rerender } = render(<Shown />);
    await wait(0);
    expect(questions.map((q) => q.design.name)).toEqual(['first']);
    await answer(0, { ok: true, value: 'one' });
    expect(says()).toBe('one of first');
    design = { name: 'second' } as Design;
    rerender(<Shown />);
    await wait(0);
    expect(says()).toBe('one of first');
    await answer(1, { ok: true, value: 'two' });
    expect(says()).toBe('two of second');
  });

  test('an answer the design has moved on from is dropped, and what was overtaken is never begun', async () => {
    const { rerender } = render(<Shown />);
    await wait(0);
    for (const name of ['second', 'third', 'fourth']) {
      design = { name } as Design;
      rerender(<Shown />);
      await wait(0);
    }
    // Busy with the first: the others wait, and only the newest of them is asked.
    expect(questions.map((q) => q.design.name)).toEqual(['first']);
    await answer(0, { ok: true, value: 'one' });
    expect(says()).toBe('nothing of none');
    expect(questions.map((q) => q.design.name)).toEqual(['first', 'fourth']);
    await answer(1, { ok: true, value: 'four' });
    expect(says()).toBe('four of fourth');
  });

  test('trouble is said beside the last good answer', async () => {
    const { rerender } = render(<Shown />);
    await wait(0);
    await answer(0, { ok: true, value: 'one' });
    design = { name: 'second' } as Design;
    rerender(<Shown />);
    await wait(0);
    await answer(1, { ok: false, error: 'no cycle closes' });
    expect(says()).toBe('one of first: no cycle closes');
    design = { name: 'third' } as Design;
    rerender(<Shown />);
    await wait(0);
    await answer(2, { ok: true, value: 'three' });
    expect(says()).toBe('three of third');
  });

  test('the hand has to rest where that is wanted; nothing is asked where nothing is', async () => {
    const { rerender } = render(<Shown waitMs={200} />);
    await wait(150);
    design = { name: 'second' } as Design;
    rerender(<Shown waitMs={200} />);
    await wait(150);
    expect(questions).toHaveLength(0);
    await wait(60);
    expect(questions.map((q) => q.design.name)).toEqual(['second']);
    cleanup();
    questions.length = 0;
    render(<Shown nothing />);
    await wait(500);
    expect(questions).toHaveLength(0);
  });
});

describe('what a search finds', () => {
  function Found() {
    const { found, running, trouble } = useFound(searches);
    return <p>{`found ${found.join(',')}${running ? ' …' : ''}${trouble ?? ''}`}</p>;
  }
  const says = () => screen.getByText(/^found/).textContent;
  const tell = (n: number, found: (string | null)[]) => act(async () => questions[n]!.tell(found));

  test('comes as it is found without what is nothing, and stands in the order it was asked for when all of it is there', async () => {
    render(<Found />);
    expect(questions).toHaveLength(0);
    await wait(260);
    await tell(0, ['a']);
    expect(says()).toBe('found a …');
    await tell(0, ['c', null, 'b']);
    expect(says()).toBe('found a,c,b …');
    await answer(0, { ok: true, value: 'abc' });
    expect(says()).toBe('found a,b,c');
  });

  test('a change of the design ends it and begins anew; what the old one still says concerns nobody', async () => {
    const { rerender } = render(<Found />);
    await wait(260);
    await tell(0, ['a']);
    design = { name: 'second' } as Design;
    rerender(<Found />);
    expect(dropped).toBe(1);
    await wait(260);
    await tell(0, ['late']);
    await tell(1, ['b']);
    expect(says()).toBe('found b …');
    await answer(0, { ok: false, error: 'late' });
    expect(says()).toBe('found b …');
    await answer(1, { ok: false, error: ': nothing came back' });
    expect(says()).toBe('found b: nothing came back');
  });

  test('a hand that moves on at once has asked nothing; leaving ends it', async () => {
    const { rerender, unmount } = render(<Found />);
    await wait(100);
    design = { name: 'second' } as Design;
    rerender(<Found />);
    await wait(260);
    expect(questions.map((q) => q.design.name)).toEqual(['second']);
    expect(dropped).toBe(0);
    unmount();
    expect(dropped).toBe(1);
  });
});

/** Who draws builds: asks for what a test wants asked. */
const drawing = {
  goes: [] as unknown[][],
  taken: [] as unknown[],
  refuses: false,
  beginBatch: async () => ({ ok: true, value: { plan: {}, asks: drawing.goes.shift()! } }),
  takeAnswers: async (_: number, answers: unknown[]) => {
    if (drawing.refuses) return { ok: false, error: 'these builds are no longer being drawn' };
    drawing.taken.push(...answers);
    return { ok: true, value: undefined };
  },
  nextAsks: async () => ({ ok: true, value: drawing.goes.shift() ?? [] }),
  summariseBatch: async () => ({ ok: true, value: 'what they come to' }),
};

/** The pool's threads, as a test wants them to behave. */
const pool = {
  ended: [] as number[],
  /** How many have been started before. */
  there: Infinity,
  asked: [] as { n: number; chunk: unknown[] }[],
  /** What each thread was told a work is about, and what it was told to drop. */
  known: new Map<string, unknown>(),
  dropped: [] as unknown[],
  behave: (async (_n: number, chunk: unknown[]) => chunk) as (n: number, chunk: unknown[]) => Promise<unknown[]>,
  solver(n: number) {
    const run = (chunk: unknown[]) => {
      this.asked.push({ n, chunk });
      return this.behave(n, chunk);
    };
    const aboutOf = (piece: AnyPiece) => {
      const { work, about } = piece;
      if (about !== null) this.known.set(`${n} ${work}`, about);
      return this.known.get(`${n} ${work}`) as { output: string; seed: number } | undefined;
    };
    return {
      lookUp: async (work: unknown) => void this.dropped.push(work),
      survey: async (piece: AnyPiece) => {
        const about = aboutOf(piece);
        const { output } = about!;
        return { ok: true, value: piece.kind === 'more' ? [output, output, output] : drawing.goes.shift() };
      },
      go: async (piece: AnyPiece) => {
        const about = aboutOf(piece);
        if (!about) return { ok: true, value: 'unknown' };
        const said = {
          more: (edit: unknown) => `${about.output} with ${String(edit)}`,
          builds: (ask: unknown) => `${about.seed}/${(ask as { build: number }).build}`,
        }[piece.kind as 'more' | 'builds'];
        const began = performance.now();
        return run(said ? piece.items.map(said) : piece.items).then(
          (parts) => ({ ok: true, value: { parts, end: undefined, tookMs: performance.now() - began } }),
          (error: Error) => {
            if (error instanceof SolverGone) throw error;
            return { ok: false, error: error.message };
          },
        );
      },
    };
  },
};
interface AnyPiece {
  work: number;
  kind: string;
  about: unknown;
  items: unknown[];
}

describe('the page’s pool', () => {
  const items = Array.from({ length: 60 }, (_, n) => n) as never[];
  beforeEach(() => {
    jest.useRealTimers();
    pool.ended.length = 0;
    pool.there = Infinity;
    pool.asked.length = 0;
    pool.known.clear();
    pool.dropped.length = 0;
    pool.behave = async (_n, chunk) => chunk;
  });

  test('answers in the order of the questions, over at least two threads, with progress', async () => {
    const seen: number[] = [];
    expect(await solveInPool(design, items, { onProgress: (done) => seen.push(done) })).toEqual(items);
    expect(new Set(pool.asked.map((a) => a.n)).size).toBeGreaterThanOrEqual(2);
    expect(seen.at(-1)).toBe(60);
    // Trials are handed over eight at first.
    pool.asked.length = 0;
    expect(await tryInPool(design, 'sink', items)).toEqual(items);
    expect(pool.asked[0]!.chunk).toHaveLength(8);
  });

  test('a thread that forgot what a work is about is told again', async () => {
    pool.behave = async (_n, chunk) => {
      if (pool.asked.length === 3) pool.known.clear();
      return chunk;
    };
    expect(await tryInPool(design, 'sink', items)).toEqual(items);
    expect(pool.asked.length).toBeGreaterThan(4);
  });

  test('a thread is not started for what one that is there has soon done; for longer work it is', async () => {
    jest.useFakeTimers();
    pool.there = 1;
    let msEach = 2;
    const firstAt: number[] = [];
    pool.behave = (n, chunk) => {
      firstAt[n] ??= performance.now();
      return new Promise((done) => setTimeout(() => done(chunk), msEach * chunk.length));
    };
    const tried = async () => {
      pool.asked.length = 0;
      firstAt.length = 0;
      const all = tryInPool(design, 'sink', items);
      await jest.advanceTimersByTimeAsync(10_000);
      expect(await all).toEqual(items);
      return [...new Set(pool.asked.map((a) => a.n))].sort();
    };
    expect(await tried()).toEqual([0]);
    msEach = 50;
    expect((await tried()).length).toBeGreaterThanOrEqual(2);
    // The other only once the first piece, of eight, has shown how long it takes.
    expect(firstAt[1]! - firstAt[0]!).toBeCloseTo(8 * 50, 0);
  });

  test('single changes are asked of one thread and tried by all, as they come and at last in order', async () => {
    const signal = new AbortController().signal;
    const come: unknown[] = [];
    drawing.goes = [items];
    expect(await changesInPool(design, { signal, onFound: (some) => come.push(...some) })).toEqual(items);
    expect([...come].sort()).toEqual([...items].sort());
    expect(new Set(pool.asked.map((a) => a.n)).size).toBeGreaterThanOrEqual(2);
    expect(await moreInPool(design, 'minus', { signal })).toEqual([
      'minus with minus',
      'minus with minus',
      'minus with minus',
    ]);
  });

  test('builds are asked for until there is nothing more to ask, and every answer reaches who draws them', async () => {
    const known: number[] = [];
    const signal = new AbortController().signal;
    const builds = (from: number, to: number) => Array.from({ length: to - from }, (_, n) => ({ build: from + n }));
    drawing.goes = [builds(0, 40), builds(60, 75), builds(90, 100)];
    expect(await drawInPool(design, 7, 100, { onProgress: (n) => known.push(n), signal })).toBe('what they come to');
    const every = [...builds(0, 40), ...builds(60, 75), ...builds(90, 100)].map(({ build }) => `7/${build}`);
    expect([...drawing.taken].sort()).toEqual([...every].sort());
    expect(known).toEqual([...known].sort((a, b) => a - b));
    expect(known.at(-1)).toBe(100);
    drawing.goes = [builds(0, 40)];
    drawing.refuses = true;
    await expect(drawInPool(design, 7, 100, { onProgress: () => {}, signal })).rejects.toThrow('no longer being drawn');
    drawing.refuses = false;
  });

  test('told to stop while it reads, it asks for nothing more', async () => {
    const stop = new AbortController();
    drawing.goes = [[{ build: 0 }], [{ build: 1 }]];
    drawing.taken.length = 0;
    const drawn = drawInPool(design, 7, 2, { onProgress: () => stop.abort(), signal: stop.signal });
    await expect(drawn).rejects.toBeInstanceOf(Stopped);
    expect(drawing.taken).not.toContain('7/1');
  });

  test('a thread that dies gets its chunk again, once; what cannot be solved is said', async () => {
    let died = 0;
    pool.behave = async (_n, chunk) => {
      if (died++ === 0) throw new SolverGone();
      return chunk;
    };
    expect(await solveInPool(design, items)).toEqual(items);
    pool.behave = async () => {
      throw new SolverGone();
    };
    await expect(solveInPool(design, items)).rejects.toBeInstanceOf(SolverGone);
    pool.behave = async () => {
      throw new Error('no cycle closes');
    };
    await expect(solveInPool(design, items)).rejects.toThrow('no cycle closes');
  });

  test('told to stop it stops at once, and a thread still at it is ended a tenth of a second later', async () => {
    jest.useFakeTimers();
    const stop = new AbortController();
    pool.behave = () => new Promise(() => {});
    const running = solveInPool(design, items, { signal: stop.signal });
    const stopped = expect(running).rejects.toBeInstanceOf(Stopped);
    await jest.advanceTimersByTimeAsync(5);
    stop.abort();
    await stopped;
    expect(pool.ended).toEqual([]);
    // It is told at once, and would look up between two items.
    expect(pool.dropped.length).toBeGreaterThanOrEqual(2);
    await jest.advanceTimersByTimeAsync(99);
    expect(pool.ended).toEqual([]);
    await jest.advanceTimersByTimeAsync(2);
    expect(pool.ended.length).toBeGreaterThanOrEqual(2);
  });

  test('one that was done by then is left alone', async () => {
    jest.useFakeTimers();
    const stop = new AbortController();
    let finish: (chunk: unknown[]) => void = () => {};
    pool.behave = (n, chunk) =>
      n === 0 ? new Promise((resolve) => (finish = () => resolve(chunk))) : Promise.resolve(chunk);
    const running = solveInPool(design, items, { chunk: 30, signal: stop.signal });
    const stopped = expect(running).rejects.toBeInstanceOf(Stopped);
    await jest.advanceTimersByTimeAsync(5);
    stop.abort();
    await stopped;
    finish([]);
    await jest.advanceTimersByTimeAsync(200);
    expect(pool.ended).toEqual([]);
  });
});
