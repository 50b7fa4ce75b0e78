import { fuzzCase } from '@/cli/fuzz';
import { assemble } from '@/core/circuit/assemble';
import { RUNNING_MAINS } from '@/core/solve/emf';
import { integratorFor, TIGHT } from '@/core/solve/integrator';
import { solveRun } from '@/core/solve/solve-run';
import { elimination } from '@/core/solve/work';

/** Random circuits that no search closes: left to themselves they would take from three to seven seconds. */
const PUZZLES = [1587, 2164, 846];
/** One that a slow search does close. */
const SLOW = 1242;

const outcome = (seed: number): string => {
  const { network, run } = fuzzCase(seed);
  try {
    return JSON.stringify(solveRun(network, run));
  } catch (error) {
    return (error as Error).message;
  }
};

afterEach(() => jest.restoreAllMocks());

test('what is refused for its length is refused by work done: no clock is asked', () => {
  const clock = jest.spyOn(performance, 'now').mockImplementation(() => {
    throw new Error('a clock was asked');
  });
  const date = jest.spyOn(Date, 'now').mockImplementation(() => {
    throw new Error('a clock was asked');
  });
  for (const seed of PUZZLES) expect(outcome(seed)).toMatch(/takes too long|repeats itself|more steps/);
  expect(clock).not.toHaveBeenCalled();
  expect(date).not.toHaveBeenCalled();
});

test('the same circuit gets the same answer to the last digit, whatever was solved before', () => {
  const alone = outcome(SLOW);
  expect(alone).toMatch(/meanV/);
  outcome(PUZZLES[1]!);
  expect(outcome(SLOW)).toBe(alone);
});

test('work grows with what is solved, and a cycle of an ordinary bridge stays far under the limit', () => {
  const { network } = fuzzCase(111);
  const circuit = assemble(network);
  const integrator = integratorFor(circuit);
  const before = integrator.work.done;
  integrator.setTolerance(TIGHT, new Float64Array(circuit.states).fill(1), 1);
  const options = { mains: RUNNING_MAINS, record: false, carry: false, fromRest: false };
  const steps = integrator.run(new Float64Array(circuit.states), 0, circuit.periodS, options);
  const once = integrator.work.done - before;
  // Six stages a step, each over every port and state, can hardly be had for less.
  expect(once).toBeGreaterThan(steps * 6 * circuit.ports.length * circuit.states);
  integrator.run(new Float64Array(circuit.states), 0, circuit.periodS, options);
  expect(integrator.work.done - before).toBeGreaterThan(1.5 * once);
});

test('solving n equations costs a third of a cube and a square', () => {
  expect(elimination(3)).toBe(18);
  expect(elimination(6)).toBe(108);
});
