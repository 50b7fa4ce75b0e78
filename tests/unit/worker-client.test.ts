/** A thread that can be made to fail; what it is asked is never answered. */
class FakeWorker extends EventTarget {
  static made: FakeWorker[] = [];
  ended = false;
  constructor() {
    super();
    FakeWorker.made.push(this);
  }
  terminate() {
    this.ended = true;
  }
}
Object.assign(globalThis, { Worker: FakeWorker });
jest.mock('comlink', () => ({
  proxy: (f: unknown) => f,
  wrap: () => ({
    lookUp: () => (what.busy ? new Promise(() => {}) : Promise.resolve()),
    evaluate: (asked: unknown) => (asked === 'quick' ? Promise.resolve('done') : new Promise(() => {})),
  }),
}));
/** Whether the solver is inside one long candidate. */
const what = { busy: false };

import { asked } from '@/workers/asked';
import {
  dropFixes,
  dropSearch,
  endOfPoolSolver,
  poolSolver,
  poolStarted,
  replaceSolver,
  solver,
  SolverGone,
} from '@/workers/client';

const evaluate = (role: 'edit' | 'search' | 'ask', what: string) =>
  (solver(role) as unknown as { evaluate(what: string): Promise<unknown> }).evaluate(what);

beforeEach(() => {
  replaceSolver('edit');
  replaceSolver('search');
  replaceSolver('ask');
  endOfPoolSolver(0)();
  endOfPoolSolver(1)();
  FakeWorker.made.length = 0;
});

test('one thread for each role, started once', async () => {
  expect(await evaluate('edit', 'quick')).toBe('done');
  expect(await evaluate('edit', 'quick')).toBe('done');
  expect(FakeWorker.made).toHaveLength(1);
  solver('search');
  poolSolver(1);
  poolSolver(1);
  expect(FakeWorker.made).toHaveLength(3);
  // The first of the pool is the searching one.
  expect([0, 1, 2].map(poolStarted)).toEqual([true, true, false]);
  poolSolver(0);
  expect(FakeWorker.made).toHaveLength(3);
});

test.each(['error', 'messageerror'])(
  'one that fails (%s) rejects what it was asked, and the next call starts another',
  async (how) => {
    const asked = evaluate('edit', 'slow');
    FakeWorker.made[0]!.dispatchEvent(new Event(how));
    await expect(asked).rejects.toBeInstanceOf(SolverGone);
    expect(FakeWorker.made[0]!.ended).toBe(true);
    expect(await evaluate('edit', 'quick')).toBe('done');
    expect(FakeWorker.made).toHaveLength(2);
  },
);

test('one that hangs can be replaced; what others were asked goes on', async () => {
  const edit = evaluate('edit', 'slow');
  const search = evaluate('search', 'slow');
  replaceSolver('edit');
  await expect(edit).rejects.toBeInstanceOf(SolverGone);
  const still = await Promise.race([search, Promise.resolve('still working')]);
  expect(still).toBe('still working');
  expect(FakeWorker.made.map((w) => w.ended)).toEqual([true, false]);
});

test('a late failure of one that was replaced does not take its successor down', async () => {
  solver('edit');
  replaceSolver('edit');
  solver('edit');
  FakeWorker.made[0]!.dispatchEvent(new Event('error'));
  expect(await evaluate('edit', 'quick')).toBe('done');
  expect(FakeWorker.made).toHaveLength(2);
});

describe('a search that is no longer wanted', () => {
  beforeEach(() => {
    jest.useFakeTimers();
    what.busy = false;
  });
  afterEach(() => jest.useRealTimers());
  /** The thread has answered something: it is loaded. */
  const load = () => FakeWorker.made.at(-1)!.dispatchEvent(new Event('message'));

  test('looks up in time: its thread stays', async () => {
    void evaluate('search', 'slow').catch(() => {});
    load();
    dropSearch(true);
    await jest.advanceTimersByTimeAsync(200);
    expect(FakeWorker.made[0]!.ended).toBe(false);
  });

  test('inside one long candidate its thread is ended after a tenth of a second, and what was asked is rejected', async () => {
    what.busy = true;
    const search = evaluate('search', 'slow');
    const gone = expect(search).rejects.toBeInstanceOf(SolverGone);
    load();
    dropSearch(false);
    await jest.advanceTimersByTimeAsync(95);
    expect(FakeWorker.made[0]!.ended).toBe(false);
    await jest.advanceTimersByTimeAsync(10);
    expect(FakeWorker.made[0]!.ended).toBe(true);
    await gone;
  });

  test('one that is still being loaded is not taken for one that is stuck', async () => {
    what.busy = true;
    void evaluate('search', 'slow').catch(() => {});
    dropSearch(true);
    await jest.advanceTimersByTimeAsync(500);
    expect(FakeWorker.made[0]!.ended).toBe(false);
  });

  test('let go of because the design moved on, it goes on to its next look up, however long that takes', async () => {
    what.busy = true;
    void evaluate('search', 'slow').catch(() => {});
    load();
    dropFixes();
    await jest.advanceTimersByTimeAsync(500);
    expect(FakeWorker.made[0]!.ended).toBe(false);
  });

  test('where nothing was ever searched no thread is started', () => {
    dropSearch(true);
    dropFixes();
    expect(FakeWorker.made).toHaveLength(0);
  });
});

describe('asking', () => {
  const call = (text: string) => (s: unknown) =>
    (s as { evaluate(t: string): Promise<string> }).evaluate(text).then((value) => ({ ok: true as const, value }));

  test('what went well is answered', async () => {
    expect(await asked(call('quick'))).toEqual({ ok: true, value: 'done' });
  });

  test('one that dies is asked once more, and one that dies twice is a sentence', async () => {
    const answer = asked(call('slow'));
    FakeWorker.made[0]!.dispatchEvent(new Event('error'));
    await new Promise((rest) => setTimeout(rest, 0));
    expect(FakeWorker.made).toHaveLength(2);
    FakeWorker.made[1]!.dispatchEvent(new Event('error'));
    expect(await answer).toMatchObject({ ok: false, error: expect.stringMatching(/ended twice/) as string });
    expect(FakeWorker.made).toHaveLength(2);
  });

  test('what nobody waits for any more is not asked again', async () => {
    const answer = asked(call('slow'), 'ask', () => false);
    FakeWorker.made[0]!.dispatchEvent(new Event('error'));
    expect((await answer).ok).toBe(false);
    expect(FakeWorker.made).toHaveLength(1);
  });

  test('a fault of ours is a sentence, not an exception', async () => {
    const answer = await asked(() => Promise.reject(new Error('no such member')));
    expect(answer).toMatchObject({ ok: false, error: expect.stringMatching(/no such member/) as string });
  });
});

test('a pool solver is ended by what was taken of it, its successor not', async () => {
  const first = poolSolver(0);
  const end = endOfPoolSolver(0);
  end();
  expect(FakeWorker.made.at(-1)!.ended).toBe(true);
  expect(poolSolver(0)).not.toBe(first);
  end();
  expect(FakeWorker.made.at(-1)!.ended).toBe(false);
});
