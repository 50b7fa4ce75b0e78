import { SolveError } from '@/core/solve/solve-error';
import { drop, inPieces } from '@/workers/in-pieces';

/** Work that takes so many milliseconds a step. */
function* counting(to: number, stepMs: number): Generator<number, string> {
  for (let n = 1; n <= to; n++) {
    for (const began = performance.now(); performance.now() - began < stepMs;);
    yield n;
  }
  return 'counted';
}

const never = () => {
  throw new Error('told too late');
};

test('all that came is told, in its order, by the time the answer is there; work that takes longer tells on the way', async () => {
  const told: number[][] = [];
  const answer = await inPieces('search', 1, counting(30, 4), (parts) => told.push(parts));
  expect(answer).toEqual({ ok: true, value: { end: 'counted' } });
  expect(told.flat()).toEqual(Array.from({ length: 30 }, (_, n) => n + 1));
  expect(told.length).toBeGreaterThan(1);
});

test('a newer one of its kind takes its place, another kind does not; what was dropped says nothing any more', async () => {
  const told: Record<string, number[]> = { first: [], second: [], fixes: [] };
  const into = (name: string) => (parts: number[]) => void told[name]!.push(...parts);
  const answers = await Promise.all([
    inPieces('search', 1, counting(40, 5), into('first')),
    inPieces('fixes', 2, counting(20, 5), into('fixes')),
    inPieces('search', 3, counting(20, 5), into('second')),
  ]);
  expect(answers.map((a) => a.ok && (a.value?.end ?? null))).toEqual([null, 'counted', 'counted']);
  expect(told['first']!.length).toBeLessThan(40);
  expect(told['second']).toHaveLength(20);
  expect(told['fixes']).toHaveLength(20);
  const dropped = inPieces('search', 4, counting(1000, 5), () => drop('search'));
  expect(await dropped).toEqual({ ok: true, value: null });
});

test('where it fails on the way what came before is told, and the failure is a sentence', async () => {
  const told: number[] = [];
  function* failing(): Generator<number, never> {
    yield 1;
    throw new SolveError('the second step has no answer');
  }
  const answer = await inPieces('search', 9, failing(), (parts) => told.push(...parts));
  expect(answer).toEqual({ ok: false, error: 'the second step has no answer' });
  expect(told).toEqual([1]);
  expect(await inPieces('search', 10, failingAtOnce(), never)).toMatchObject({ ok: false });
});

function* failingAtOnce(): Generator<never, never> {
  throw new SolveError('nothing to begin with');
}
