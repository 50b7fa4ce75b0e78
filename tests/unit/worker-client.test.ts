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
  wrap: () => ({ evaluate: (what: unknown) => (what === 'quick' ? Promise.resolve('done') : new Promise(() => {})) }),
}));

import { poolSolver, replaceSolver, solver, SolverGone } from '@/workers/client';

const evaluate = (role: 'edit' | 'search', what: string) =>
  (solver(role) as unknown as { evaluate(what: string): Promise<unknown> }).evaluate(what);

beforeEach(() => {
  replaceSolver('edit');
  replaceSolver('search');
  FakeWorker.made.length = 0;
});

test('one thread for each role, started once', async () => {
  expect(await evaluate('edit', 'quick')).toBe('done');
  expect(await evaluate('edit', 'quick')).toBe('done');
  expect(FakeWorker.made).toHaveLength(1);
  solver('search');
  poolSolver(0);
  poolSolver(1);
  poolSolver(1);
  expect(FakeWorker.made).toHaveLength(4);
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
